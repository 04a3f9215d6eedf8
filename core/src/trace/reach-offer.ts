import type { Cubic } from '../geometry/cubic';
import { add, distance, scale, subtract, type Point } from '../geometry/vector';
import {
  farthestStretch,
  fitStretch,
  runOfPoints,
  runTangent,
  type Run,
  type Stretch,
  type StretchOptions,
} from '../path/fit-path';
import { ABOUT, cornerNear, onRun, turns } from './edge-run';

/** The next segment as it could lie on the picture's edge. All in picture pixels. */
export interface Reached {
  /** Where it ends: on the edge, at the pointer. */
  readonly at: Point;
  /** The edge turns sharply there. */
  readonly corner: boolean;
  /** The segment; null where a path only begins. A straight one has its control points on its thirds. */
  readonly cubic: Cubic | null;
  readonly straight: boolean;
  /** How far it lies from the edge. */
  readonly mean: number;
  readonly worst: number;
  /** The longest segment that holds the edge within the tolerance, its end the tick; null where that is `cubic`, or not known. */
  readonly farthest: Cubic | null;
  /** Turns of the edge where further anchors would stand. */
  readonly hints: readonly Point[];
  /** The tick, and turns, are not worked out yet: asked again, they are told. */
  readonly open: boolean;
}

/** The edge as it runs on from the last anchor, and the longest segment that holds it, once that is worked out. */
export interface KnownEdge {
  readonly run: Run;
  readonly farthest: Stretch | null;
  /** The edge ends where the run does; else it is only not followed farther. */
  readonly ended: boolean;
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

export const withFarthest = (
  edge: KnownEdge,
  along: StretchOptions,
): KnownEdge & { readonly farthest: Stretch } => ({
  ...edge,
  farthest: edge.farthest ?? farthestStretch(edge.run, 0, edge.run.points.length - 1, along),
});

/** Where on a known edge a place lies; null where it does not. */
export function placeOn(edge: KnownEdge, end: Point, p: Point, within: number): number | null {
  const { points } = edge.run;
  if (end.x === edge.end.x && end.y === edge.end.y) return edge.index;
  let [best, near] = [-1, within];
  for (let i = 1; i < points.length; i++) {
    const d = distance(points[i]!, p);
    if (d < near) [best, near] = [i, d];
  }
  return best < 0 ? null : best;
}

export const answerOf = (
  run: Run,
  index: number,
  { cubic, mean, worst }: Stretch,
  longest: Cubic | null,
  hints: readonly Point[],
): Reached => ({
  at: cubic[3],
  corner: run.corners.has(index),
  cubic,
  straight: isStraight(cubic),
  mean,
  worst,
  farthest: longest,
  hints,
  open: false,
});

/** The segment to a place on a known edge: its corner or the tick where one of those attracts. */
export function segmentToPlace(
  { run, farthest, ended }: KnownEdge,
  place: number,
  pointer: Point,
  near: number,
  along: StretchOptions,
  hints: number,
): Reached | null {
  const count = farthest?.count ?? -1;
  const corner = cornerNear(run, pointer, near);
  // A tick that does not hold is none.
  const holds = farthest !== null && farthest.worst < Infinity;
  const tick = holds && distance(farthest.cubic[3], pointer) <= near ? count : place;
  const index = corner !== null && corner > 0 ? corner : tick;
  const turn = count < 0 || run.corners.has(count) ? null : runTangent(run, count, 0, ABOUT);
  const further = hints > 0 && farthest ? turns(run, count, turn, along.tolerance, hints) : [];
  if (farthest && index === count) return answerOf(run, count, farthest, null, further);
  // Where the edge is not known farther, the end is no tick; where it ends, it is.
  const longest = holds && (count < run.points.length - 1 || ended) ? farthest.cubic : null;
  if (index !== place) return answerOf(run, index, fitStretch(run, 0, index, along), longest, further);
  // It ends right at the pointer, between the places the edge was looked at.
  const { at, nearest } = onRun(run, place, pointer);
  if (distance(at, pointer) > FARTHEST_IN_ATTRACTIONS * near) return null;
  const { points } = run;
  const until = runOfPoints([...points.slice(0, nearest), at, ...points.slice(nearest + 1)], run.corners);
  return answerOf(until, nearest, fitStretch(until, 0, nearest, along), longest, further);
}
