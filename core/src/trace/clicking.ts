import { cubicLength, cubicPoint, type Cubic } from '../geometry/cubic';
import { distance, negate, subtract, unit, type Point } from '../geometry/vector';
import { seeded } from '../seed';
import { corner, type Anchor } from '../path/anchor';
import { pathCubics, type Path } from '../path/path';
import { nearestOnPath } from '../path/path-measure';
import type { Light } from './edge-profile';
import { reach, reachMemory, type ReachField, type ReachStart } from './reach';
import type { Reached } from './reach-offer';

// Shared by tests and the bench only: a hand that clicks an outline round at Reach's ticks.

/** Points along a path, about a pixel apart. */
export const pointsAlong = (path: Path): Point[] =>
  pathCubics(path).flatMap((c) => {
    const n = Math.max(1, Math.round(cubicLength(c)));
    return Array.from({ length: n }, (_, k) => cubicPoint(c, k / n));
  });

export interface Clicked {
  /** As far as it came. */
  readonly path: Path;
  /** Whether it came all the way. */
  readonly whole: boolean;
  /** Milliseconds each question took, by the clock given. */
  readonly times: number[];
  readonly log: string[];
}

/** How far the pointer goes from one question to the next, pixels. */
const STRIDE = 16;
/** So near to where it began a hand closes, pixels. */
const HOME = 36;
/** Segments taken at once where one cannot hold the edge as far as the first anchor, at most. */
const CHAIN = 8;
/** So often a hand moves before it presses, at most, and so far each time before it begins, pixels. */
const MOST_TRIES = 8;
const ONWARD_PX = 6;
/** So far a hand goes on where nothing is offered, pixels. */
const BLIND = 100;
/** Places of the truth looked at for where a click lies on it. */
const ONWARD = 900;

/**
 * Clicks along an outline: from each anchor the pointer goes along it until a tick stands still behind the pointer, and
 * clicks there; near its beginning it closes.
 *
 * @param field the picture; or what of it is looked at from an anchor so many pixels off
 * @param near picture pixels about the pointer within which things attract
 * @param clock milliseconds
 * @param strays how far the hand strays from the outline either way, pixels; `seed` says how
 * @param rest what happens at a place between two questions
 */
export function clickAlong(
  field: ReachField | ((far: number) => ReachField),
  truth: Path,
  tolerance: number,
  near: number,
  {
    clock = () => 0,
    rest = () => {},
    light = 'looks',
    strays = 0,
    seed = 5,
  }: {
    readonly clock?: () => number;
    readonly rest?: (p: Point) => void;
    readonly light?: Light;
    readonly strays?: number;
    readonly seed?: number;
  } = {},
): Clicked {
  let line = pointsAlong(truth);
  const n = line.length;
  const at = (k: number): Point => line[truth.closed ? k % n : Math.min(n - 1, k)]!;
  const random = seeded(seed);
  const off = (): number => strays * (2 * random() - 1);
  /** Where the hand is that is meant to be at a place. */
  const byHand = (p: Point): Point => (strays > 0 ? { x: p.x + off(), y: p.y + off() } : p);
  const times: number[] = [];
  const log: string[] = [];
  const memory = reachMemory();
  const ask = (
    start: ReachStart | null,
    p: Point,
    to?: { at: Point; arrive: Point | null },
  ): Reached | null => {
    // It goes on with each move until all of it is there.
    const at = to?.at ?? p;
    const far = start ? Math.max(Math.abs(at.x - start.at.x), Math.abs(at.y - start.at.y)) : 0;
    const seen = typeof field === 'function' ? field(far) : field;
    for (;;) {
      rest(p);
      const from = clock();
      const got = reach(seen, start, p, { tolerance, near, light, ...(to && { to, most: CHAIN }) }, memory);
      times.push(clock() - from);
      if (!memory.open) return got;
    }
  };
  // Where a path would begin is shown: who sees it beside the outline goes on a little before pressing.
  let first = ask(null, byHand(line[0]!));
  const isAside = (): boolean => !first || (strays > 0 && nearestOnPath(truth, first.at)!.distance > strays);
  for (let tries = 1; truth.closed && tries < MOST_TRIES && isAside(); tries++) {
    line = [...line.slice(ONWARD_PX), ...line.slice(0, ONWARD_PX)];
    first = ask(null, byHand(line[0]!));
  }
  const anchors: Anchor[] = [];
  const end = (whole: boolean): Clicked => ({ path: { id: 'clicked', closed: whole && truth.closed, anchors }, whole, times, log }); // prettier-ignore
  if (!first) return end(false);
  anchors.push({ ...corner(first.at.x, first.at.y), kind: first.corner ? 'corner' : 'smooth' });
  log.push(
    `begins ${first.corner ? 'at a corner' : 'smooth'} ${distance(first.at, line[0]!).toFixed(2)} off`,
  );
  const drawn: Cubic[] = [];
  let place = 0;
  while (place < n && anchors.length < 200) {
    const last = anchors.at(-1)!;
    const start: ReachStart = {
      at: last,
      leave: last.kind === 'smooth' && last.in ? unit(negate(last.in)) : null,
      drawn: [...drawn],
    };
    let got: Reached | null = null;
    // Past half a ring the other way round would be the shorter one.
    const most = Math.min(ONWARD - 200, truth.closed ? 0.45 * n : n);
    for (let lead = 24; lead <= most; lead += STRIDE) {
      const here = ask(start, byHand(at(place + lead)));
      // Where nothing is offered yet, as in a notch a hair wide, the hand goes on.
      if (!here && (got || lead > BLIND)) break;
      if (!here) continue;
      got = here;
      if (got.farthest || got.corner || (!truth.closed && place + lead >= n)) break;
    }
    const home = truth.closed && n - place < HOME;
    if (!got && !home) return (log.push(`lost at ${place} of ${n}`), end(false));
    const target = home ? anchors[0]! : (got!.farthest?.[3] ?? got!.at);
    let [best, far] = [place + 1, Infinity];
    for (let k = 1; k < ONWARD; k++) {
      const d = distance(at(place + k), target);
      if (d < far - 1e-9) [far, best] = [d, place + k];
    }
    // A press so near to the first anchor is one on it.
    const onFirst = anchors.length > 1 && distance(target, anchors[0]!) <= near;
    const closes = home || (truth.closed && (best >= n - near || (onFirst && place > n / 2)));
    const ahead = anchors[0]!.kind === 'smooth' && anchors[0]!.out ? unit(negate(anchors[0]!.out)) : null;
    const to = closes ? { at: anchors[0]!, arrive: ahead } : undefined;
    let taken = ask(start, to?.at ?? byHand(target), to);
    // Nobody presses where nothing is offered.
    for (let tries = 1; !taken && !to && tries < MOST_TRIES; tries++) taken = ask(start, byHand(target));
    // Close by, a press on the first anchor closes all the same, straight.
    if (home && !taken?.segments.length)
      return (log.push(`closed at ${place} of ${n}, nothing offered`), end(true));
    if (!taken?.segments.length)
      return (log.push(`nothing to take at ${place} to ${best} of ${n}`), end(false));
    log.push(`${place} to ${best} of ${n}, ${far.toFixed(2)} off, worst ${taken.worst.toFixed(2)}${taken.corner ? ', corner' : ''}, ${taken.segments.length} of them${got?.farthest ? '' : ', no tick'}`); // prettier-ignore
    for (const { cubic, straight, corner: sharp } of taken.segments) {
      const [a, b, c, d] = cubic;
      drawn.push(cubic);
      if (!straight) anchors[anchors.length - 1] = { ...anchors.at(-1)!, out: subtract(b, a) };
      anchors.push({ ...corner(d.x, d.y), kind: sharp ? 'corner' : 'smooth', in: straight ? null : subtract(c, d) }); // prettier-ignore
    }
    if (closes) {
      anchors[0] = { ...anchors[0]!, in: anchors.pop()!.in };
      return end(true);
    }
    place = best;
    if (!truth.closed && place >= n - near) return end(true);
  }
  return end(false);
}
