import type { Cubic } from '../geometry/cubic';
import { add, distance, scale, subtract, type Point } from '../geometry/vector';
import { fitChain, type ChainOptions, type ChainRun } from '../path/fit-chain';
import { fitStretch, runOfPoints, runTangent, type Run, type Stretch } from '../path/fit-path';
import { ABOUT, cornerNear, onRun, turns } from './edge-run';

/** One of the segments offered. A straight one has its control points on its thirds. */
export interface ReachedSegment {
  readonly cubic: Cubic;
  readonly straight: boolean;
  /** The edge turns sharply where it ends. */
  readonly corner: boolean;
}

/** The next segment as it could lie on the picture's edge, or a chain of several. All in picture pixels. */
export interface Reached {
  /** Where it ends: on the edge, at the pointer, or as far as so many segments reach. */
  readonly at: Point;
  /** The edge turns sharply there. */
  readonly corner: boolean;
  /** In order; none where a path only begins. */
  readonly segments: readonly ReachedSegment[];
  /** How far they lie from the edge. */
  readonly mean: number;
  readonly worst: number;
  /** They lie on it as near as was asked for. */
  readonly holds: boolean;
  /** The longest segment that holds the edge within the tolerance, its end the tick; null where that is offered, or not known. */
  readonly farthest: Cubic | null;
  /** Turns of the edge where further anchors would stand. */
  readonly hints: readonly Point[];
  /** The tick, and turns, are not worked out yet: asked again, they are told. */
  readonly open: boolean;
}

/** The edge as it runs on from the last anchor, and the longest segments that hold it, once they are worked out. */
export interface KnownEdge {
  readonly line: ChainRun;
  /** The last of the places it was found at, before they were laid onto it. */
  readonly track: readonly Point[];
  /** The edge ends where the run does; else it is only not followed farther. */
  readonly ended: boolean;
  /** So long a run is wanted, pixels: it is laid a piece a question. */
  readonly wanted: number;
  /** Pixels from point to point. */
  readonly spacing: number;
  /** How softly it was read: standard deviation, pixels. */
  readonly soft: number;
  /** How far grain puts its points off: standard deviation, pixels. */
  readonly grain: number;
  /** What it was edge for: a pixel, and where on the run that is. */
  readonly end: Point;
  readonly index: number;
}
/** An edge farther from the pointer than this many times what attracts is not meant: pixels may be larger than that. */
export const FARTHEST_IN_ATTRACTIONS = 1.25;

const isStraight = ([a, b, , d]: Cubic): boolean =>
  distance(b, add(a, scale(subtract(d, a), 1 / 3))) <= 1e-9 * (1 + distance(a, d));

/** Where on a known edge a place lies; null where it does not. */
export function placeOn(edge: KnownEdge, end: Point, p: Point, within: number): number | null {
  const { points } = edge.line.run;
  if (end.x === edge.end.x && end.y === edge.end.y) return edge.index;
  let [best, near] = [-1, within];
  for (let i = 1; i < points.length; i++) {
    const d = distance(points[i]!, p);
    if (d < near) [best, near] = [i, d];
  }
  return best < 0 ? null : best;
}

/** The answer for stretches of a run, one after the other, or a single one. */
export function answerOf(
  run: Run,
  stretches: readonly Stretch[],
  longest: Cubic | null,
  hints: readonly Point[],
): Reached {
  let index = 0;
  const segments = stretches.map(({ cubic, count }): ReachedSegment => {
    index += count;
    return { cubic, straight: isStraight(cubic), corner: run.corners.has(index) };
  });
  const last = segments.at(-1)!;
  return {
    at: last.cubic[3],
    corner: last.corner,
    segments,
    mean: stretches.reduce((sum, { mean, count }) => sum + count * mean, 0) / index,
    worst: Math.max(...stretches.map((s) => s.worst)),
    holds: stretches.every((s) => s.holds),
    farthest: longest,
    hints,
    open: false,
  };
}

/** One segment to a place of an edge where that holds it; else, once its longest are known, a chain of the fewest that do. */
function stretchesTo(line: ChainRun, index: number, along: ChainOptions, until: Run): readonly Stretch[] {
  const one = fitStretch(until, 0, index, along);
  if (one.holds || along.most === 1 || !line.farthest.has(0)) return [one];
  const chain = fitChain(line, index, along, until);
  return chain.length > 0 ? chain : [one];
}

/** The segment, or the chain, to a place on a known edge: its corner or the tick where one of those attracts. */
export function segmentToPlace(
  { line, ended }: KnownEdge,
  place: number,
  pointer: Point,
  near: number,
  along: ChainOptions,
  hints: number,
): Reached | null {
  const { run } = line;
  const farthest = line.farthest.get(0) ?? null;
  const count = farthest?.count ?? -1;
  const corner = cornerNear(run, pointer, near);
  // A tick that does not hold is none.
  const tick = farthest?.holds && distance(farthest.cubic[3], pointer) <= near ? count : place;
  const index = corner !== null && corner > 0 ? corner : tick;
  const furtherFrom = (at: number): Point[] => {
    if (hints === 0 || !farthest) return [];
    return turns(run, at, run.corners.has(at) ? null : runTangent(run, at, 0, ABOUT), along.tolerance, hints);
  };
  if (farthest && index === count) return answerOf(run, [farthest], null, furtherFrom(count));
  // Where the edge is not known farther, the end is no tick; where it ends, it is.
  const longest = farthest?.holds && (count < run.points.length - 1 || ended) ? farthest.cubic : null;
  const answer = (until: Run, to: number): Reached => {
    const stretches = stretchesTo(line, to, along, until);
    return answerOf(until, stretches, longest, furtherFrom(stretches.length > 1 ? to : count));
  };
  if (index !== place) return answer(run, index);
  // It ends right at the pointer, between the places the edge was looked at.
  const { at, nearest } = onRun(run, place, pointer);
  if (distance(at, pointer) > FARTHEST_IN_ATTRACTIONS * near) return null;
  const { points } = run;
  return answer(runOfPoints([...points.slice(0, nearest), at, ...points.slice(nearest + 1)], run.corners), nearest); // prettier-ignore
}
