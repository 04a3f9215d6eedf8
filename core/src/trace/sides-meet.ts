import { lineIntersection } from '../geometry/intersect';
import { nearestParabola } from '../geometry/parabola';
import { add, cross, dot, mix, ORIGIN, unit, type Point } from '../geometry/vector';

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

/** Where a side's line is at length 0, and the unit direction in which it goes there. */
interface DrawnOn {
  readonly at: Point;
  readonly way: Point;
}

/**
 * A side drawn on by the parabola nearest to it, its bow taken the less seriously the less it stands out from grain
 * (shrinkage after James and Stein, 1961).
 *
 * @param long from the side's first place to its last
 */
function drawnOn({ line, curve }: ReturnType<typeof nearestParabola>, long: number): DrawnOn | null {
  const bow = Math.hypot(curve.bend.x, curve.bend.y) * (long / 2) ** 2;
  const kept = bow > GRAIN_PX ? 1 - (GRAIN_PX / bow) ** 2 : 0;
  const way = unit(mix(line.slope, curve.slope, kept));
  return way && { at: mix(line.at, curve.at, kept), way };
}

function cornerOf(a: DrawnOn | null, b: DrawnOn | null): Corner | null {
  const at = a && b && lineIntersection(a.at, a.way, b.at, b.way);
  return at ? { at, turn: Math.abs(Math.atan2(cross(a.way, b.way), dot(a.way, b.way))) } : null;
}

/**
 * Where the two sides of a corner meet, drawn on from where each runs undisturbed; null where they run side by side.
 *
 * @param before places on the one side, two or more, in the order of the way
 * @param after on the other
 */
export function sidesMeet(before: readonly OnSide[], after: readonly OnSide[]): Corner | null {
  const drawn = (rows: readonly OnSide[]): DrawnOn | null =>
    drawnOn(nearestParabola(rows), Math.abs(rows.at(-1)!.s - rows[0]!.s));
  return cornerOf(drawn(before), drawn(after));
}

/** What a fit tells of a side: where its line is and its slope; where its parabola is, its slope and its bend. */
const TOLD = 5;

/** What each place of a side weighs in each of those: a least squares fit is a sum of places weighted by their lengths alone. */
const sideWeights = (lengths: readonly number[]): Float64Array =>
  Float64Array.from(
    lengths.flatMap((_, k) => {
      const { line, curve } = nearestParabola(
        lengths.map((s, i) => ({ s, p: { x: i === k ? 1 : 0, y: 0 } })),
      );
      return [line.at.x, line.slope.x, curve.at.x, curve.slope.x, curve.bend.x];
    }),
  );

/**
 * Where the sides of corners meet, as `sidesMeet` tells it, at any point of an even line: for many points much faster.
 *
 * @param near points from the corner to where its sides run undisturbed
 * @param count points of each side that are looked at, two or more
 * @param spacing pixels from point to point
 * @returns the corner at a point of a line that has `near + count` more on both sides
 */
export function evenSidesMeet(
  near: number,
  count: number,
  spacing: number,
): (points: readonly Point[], i: number) => Corner | null {
  const lengths = Array.from({ length: count }, (_, k) => (near + k) * spacing);
  const sides = ([-1, 1] as const).map((way) => ({ way, weights: sideWeights(lengths.map((s) => way * s)) }));
  const sums = new Float64Array(2 * TOLD);
  const told = (m: number): Point => ({ x: sums[m]!, y: sums[TOLD + m]! });
  return (points, i) => {
    const o = points[i]!;
    const [before, after] = sides.map(({ way, weights }) => {
      sums.fill(0);
      for (let k = 0, j = i + way * near; k < count; k++, j += way) {
        const x = points[j]!.x - o.x;
        const y = points[j]!.y - o.y;
        for (let m = 0; m < TOLD; m++) {
          sums[m]! += weights[TOLD * k + m]! * x;
          sums[TOLD + m]! += weights[TOLD * k + m]! * y;
        }
      }
      const line = { at: add(o, told(0)), slope: told(1), bend: ORIGIN };
      const curve = { at: add(o, told(2)), slope: told(3), bend: told(4) };
      return drawnOn({ line, curve }, (count - 1) * spacing);
    });
    return cornerOf(before!, after!);
  };
}
