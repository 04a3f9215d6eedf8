import { lineIntersection } from '../geometry/intersect';
import { nearestParabola } from '../geometry/parabola';
import { cross, dot, mix, unit, type Point } from '../geometry/vector';

/** Length along which each side of a corner is looked at, pixels. */
export const SIDE_PX = 16;

/** How far a straight side seems to bow for the grain in it, pixels: drawn on, it is much. */
export const GRAIN_PX = 0.15;

/** A place on a side, and how far from the corner it lies along it: negative before the corner, positive after it; pixels. */
export interface OnSide {
  readonly s: number;
  readonly p: Point;
}

/** A place where two sides, drawn on, meet, and how much the way turns there, radians. */
export interface Corner {
  readonly at: Point;
  readonly turn: number;
}

/**
 * Where a side's line is at length 0, and which way it goes: by the parabola nearest to it, its bow taken the less seriously
 * the less it stands out from grain (shrinkage after James and Stein, 1961).
 */
function drawnOn(rows: readonly OnSide[]): { at: Point; way: Point } | null {
  const { line, curve } = nearestParabola(rows);
  const half = Math.abs(rows.at(-1)!.s - rows[0]!.s) / 2;
  const bow = Math.hypot(curve.bend.x, curve.bend.y) * half * half;
  const kept = bow > GRAIN_PX ? 1 - (GRAIN_PX / bow) ** 2 : 0;
  const way = unit(mix(line.slope, curve.slope, kept));
  return way && { at: mix(line.at, curve.at, kept), way };
}

/**
 * Where the two sides of a corner meet, drawn on from where each runs undisturbed; null where they run side by side.
 *
 * @param before places on the one side, two or more, in the order of the way
 * @param after on the other
 */
export function sidesMeet(before: readonly OnSide[], after: readonly OnSide[]): Corner | null {
  const [a, b] = [drawnOn(before), drawnOn(after)];
  const at = a && b && lineIntersection(a.at, a.way, b.at, b.way);
  return at ? { at, turn: Math.abs(Math.atan2(cross(a.way, b.way), dot(a.way, b.way))) } : null;
}
