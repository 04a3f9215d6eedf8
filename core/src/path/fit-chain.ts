import type { Point } from '../geometry/vector';
import { anchorPlaces, PLACE } from './anchor-places';
import {
  farthestStretch,
  fitStretch,
  runTangent,
  type Run,
  type Stretch,
  type StretchOptions,
} from './fit-path';

export interface ChainOptions extends StretchOptions {
  readonly about: number;
  /** Segments at most. */
  readonly most: number;
  /** Unit direction of the sheet's horizontal, which tells extremes. */
  readonly level: Point;
}

/** A run that chains are fitted to, and what is known of it from the ones before. */
export interface ChainRun {
  readonly run: Run;
  /** The longest stretch from a point, by its index. */
  readonly farthest: Map<number, Stretch>;
  /** What its points are as places for anchors. */
  places: Uint8Array | null;
}
export const chainRun = (run: Run): ChainRun => ({ run, farthest: new Map(), places: null });

/** An anchor is moved back for a likelier place by no more than this share of the segment before it. */
const BACK_SHARE = 0.6;
/** So many likelier places are tried for an anchor. */
const TRIED = 2;

const leaveAt = (run: Run, at: number, { leave, about }: ChainOptions): Point | null =>
  at === 0 ? (leave ?? null) : run.corners.has(at) ? null : runTangent(run, at, 0, about);

/** The longest stretch from a point of a run. */
export function farthestFrom({ run, farthest }: ChainRun, at: number, options: ChainOptions): Stretch {
  const known = farthest.get(at);
  if (known) return known;
  const { arrive: _, ...free } = options;
  const last = run.points.length - 1;
  const found = farthestStretch(run, at, last - at, { ...free, leave: leaveAt(run, at, options) });
  farthest.set(at, found);
  return found;
}

/** How many segments at least lead from one point to another, none of them longer than holds; Infinity above `most`. */
function fewestTo(line: ChainRun, from: number, to: number, most: number, options: ChainOptions): number {
  let [at, count] = [from, 0];
  while (at < to) {
    if (count >= most) return Infinity;
    const next = farthestFrom(line, at, options);
    if (!next.holds) return Infinity;
    at += next.count;
    count++;
  }
  return count;
}

/** Where the anchors between two points go: as few as can be, each where a person would put it if that costs no other. */
function jointsTo(line: ChainRun, to: number, count: number, options: ChainOptions): number[] {
  const { run } = line;
  const places = (line.places ??= anchorPlaces(run, options.about, options.level));
  const joints: number[] = [];
  let at = 0;
  for (let left = count; left > 1; left--) {
    const far = at + farthestFrom(line, at, options).count;
    // Longest stretches are not always the fewest: one begun earlier may hold farther.
    if (far >= to) break;
    const likely: number[] = [];
    for (let i = Math.ceil(far - BACK_SHARE * (far - at)); i <= far; i++)
      if (places[i] !== PLACE.any) likely.push(i);
    likely.sort((a, b) => places[a]! - places[b]! || b - a);
    const from = at;
    const good = likely
      .slice(0, TRIED)
      .find(
        (i) =>
          i === far ||
          (fewestTo(line, i, to, left - 1, options) < Infinity &&
            fitStretch(run, from, i - from, { ...options, leave: leaveAt(run, from, options), arrive: null })
              .holds),
      );
    at = good ?? far;
    joints.push(at);
  }
  return joints;
}

/**
 * The fewest segments that hold a run from its beginning to one of its points within a tolerance, smooth from one to the next
 * but at corners. Their anchors stand at corners, ends of straight runs, extremes and turns before any others, where that
 * takes no more of them. They are as few as longest stretches, one after the other, are; where more than `most` would be
 * needed it ends with the last of those.
 *
 * @param line the run, with what is known of it; not closed
 * @param to index of the point it ends at, 1 or more
 * @param end the same run as it ends there, if that is another: up to the last anchor it is as `line`'s is
 * @param options `arrive` is the direction back from the end, if that is given
 * @returns stretches in order; none where not even the first step is held
 * @throws RangeError for `most` below 1, or a point that is not on the run
 */
export function fitChain(line: ChainRun, to: number, options: ChainOptions, end: Run = line.run): Stretch[] {
  const { run } = line;
  const { most, arrive } = options;
  if (!(most >= 1)) throw new RangeError(`A chain has one segment or more; ${most} were asked for.`);
  if (!(to >= 1 && to < run.points.length))
    throw new RangeError(`A chain ends at a point from 1 to ${run.points.length - 1}; it was ${to}.`);
  // What is not reached by so many ends with the last of them.
  let [reached, count] = [0, 0];
  while (reached < to && count < most) {
    const next = farthestFrom(line, reached, options);
    if (!next.holds) break;
    reached += next.count;
    count++;
  }
  if (count === 0) return [];
  const whole = reached >= to;
  const until = whole ? to : reached;
  const joints = [...jointsTo(line, until, count, options), until];
  const fitted = (from: number, upTo: number): Stretch =>
    fitStretch(upTo === to ? end : run, from, upTo - from, {
      ...options,
      leave: leaveAt(run, from, options),
      arrive: upTo === to ? arrive : null,
    });
  const out = joints.map((joint, i) => fitted(joints[i - 1] ?? 0, joint));
  const last = out.at(-1)!;
  // Where it does not arrive as it should, one more anchor lets it.
  if (whole && arrive && !last.holds && count < most && last.count > 3) {
    const from = to - last.count;
    const middle = from + (last.count >> 1);
    const [a, b] = [fitted(from, middle), fitted(middle, to)];
    if (a.holds && b.worst < last.worst) out.splice(-1, 1, a, b);
  }
  return out;
}
