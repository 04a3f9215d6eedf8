import { apply, distance, type Affine, type Cubic, type Path, type Point } from '@mirrot/core';
import type { Raster } from '@mirrot/core';
import { newestWish } from './work-loop';
import { reachWorker, type ReachAnswer, type ReachWish } from '$lib/workers/trace';

/** What is asked for: the next segment of a path up to a place of the sheet. */
export interface ReachAsk {
  readonly wish: ReachWish;
  readonly key: string;
  readonly raster: Raster;
  /** From pixels of the raster to the sheet, and how many picture pixels one of them is. */
  readonly map: Affine;
  readonly step: number;
  /** The path that goes on, as it is; null where one begins. */
  readonly after: Path | null;
  /** The place of the sheet it was asked for, and the one it has to end at, if there is one. */
  readonly pointer: Point;
  readonly to: Point | null;
}

/** The next segment, or a chain of them, as offered on the sheet; lengths in picture pixels. */
export interface ReachOffer extends ReachAnswer {
  readonly after: Path | null;
  readonly pointer: Point;
  readonly to: Point | null;
  /** It lies so far off that it is no help: one segment cannot reach there. */
  readonly wild: boolean;
}

/** Offers the next segment on the picture's edge, worked out away from the page. */
export interface Reaching {
  readonly offer: ReachOffer | null;
  /** Asks for another; of several asked for while one is worked out only the last is. Null withdraws the offer. */
  ask(ask: ReachAsk | null): void;
  /** What was asked last. */
  readonly asked: ReachAsk | null;
  /** The offer for what was asked last, once it is there; null where another was asked for first. */
  readonly latest: Promise<ReachOffer | null>;
}

/** A segment that leaves the edge by more than this many times what was asked for is not offered. */
const WILD_TOLERANCES = 12;

function onSheet(found: ReachAnswer, { map, step, wish, after, pointer, to }: ReachAsk): ReachOffer {
  const at = (p: Point): Point => apply(map, p);
  const onto = ([a, b, c, d]: Cubic): Cubic => [at(a), at(b), at(c), at(d)];
  return {
    ...found,
    at: at(found.at),
    segments: found.segments.map((s) => ({ ...s, cubic: onto(s.cubic) })),
    mean: found.mean * step,
    worst: found.worst * step,
    wild: !found.holds && found.worst > WILD_TOLERANCES * wish.options.tolerance,
    farthest: found.farthest && onto(found.farthest),
    hints: found.hints.map(at),
    after,
    pointer,
    to,
  };
}

/** How far from where turns ahead were shown they stay, in what attracts. */
const STAY = 6;

/** @param find asks the worker */
export function createReaching(
  find: (ask: ReachAsk) => Promise<ReachAnswer | 'later' | null> = ({ key, raster, wish }) =>
    reachWorker.ask(key, raster, async (work) => work.reach(key, wish)),
): Reaching {
  let offer: ReachOffer | null = $state.raw(null);
  let asked: ReachAsk | null = null;
  /** What the turns ahead that are shown are for. */
  let hintsOf: ReachAsk | null = null;
  let latest: Promise<ReachOffer | null> = Promise.resolve(null);
  /** Hears that what waits will not be worked on. */
  let skip = (): void => {};

  const queue = newestWish(async ({ ask, done }: { ask: ReachAsk; done(offer: ReachOffer | null): void }) => {
    const found = await find(ask).catch(() => null);
    if (found === 'later') {
      // It goes on, unless the pointer has by now.
      if (queue.waits) done(null);
      else wait(ask, done);
      return;
    }
    const next = found && onSheet(found, ask);
    // Turns ahead are worked out when the pointer rests; they stay while it goes on near there.
    const { options } = ask.wish;
    const from = (options.hints ?? 0) > 0 ? ask : hintsOf;
    const stays =
      from?.after === ask.after && distance(from.wish.pointer, ask.wish.pointer) < STAY * options.near;
    const was = offer?.after === ask.after ? offer : null;
    offer = next && {
      ...next,
      hints: next.hints.length === 0 && stays && was ? was.hints : next.hints,
      // A tick stays until the next one is worked out.
      farthest: next.open && was ? was.farthest : next.farthest,
    };
    hintsOf = stays ? from : null;
    done(offer);
    // The tick is shown as soon as it is worked out.
    if (found?.open && !queue.waits) wait(ask, () => {});
  });
  function wait(ask: ReachAsk, done: (offer: ReachOffer | null) => void): void {
    skip = () => done(null);
    queue.ask({ ask, done });
  }

  return {
    get offer() {
      return offer;
    },
    get asked() {
      return asked;
    },
    ask(ask) {
      asked = ask;
      if (queue.waits) skip();
      queue.drop();
      if (!ask) {
        offer = null;
        latest = Promise.resolve(null);
        return;
      }
      latest = new Promise((done) => wait(ask, done));
    },
    get latest() {
      return latest;
    },
  };
}
