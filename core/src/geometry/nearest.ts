import { cubicDerivative, cubicPoint, cubicSecondDerivative, type Cubic } from './cubic';
import { dot, subtract, type Point } from './vector';

/** The point of a curve nearest to another: where (t), the point, and how far. */
export interface NearestOnCurve {
  readonly t: number;
  readonly point: Point;
  readonly distance: number;
}

// C(3,i)·C(2,j)/C(5,i+j): weights of the product of a cubic and a quadratic in Bernstein form.
const PRODUCT = [
  [1, 2 / 5, 1 / 10],
  [3 / 5, 3 / 5, 3 / 10],
  [3 / 10, 3 / 5, 3 / 5],
  [1 / 10, 2 / 5, 1],
] as const;

/**
 * Nearest point of a cubic. Where it is nearest inside the curve, (B(t) − p)·B'(t) is 0: a polynomial of degree five,
 * whose roots are parted in Bernstein form by its sign changes and refined by Newton's method kept in its bracket.
 * Source: Schneider, "Solving the nearest-point-on-curve problem", Graphics Gems (1990).
 *
 * @param c control points, any unit
 * @param p the point to be near to, same unit
 * @returns t in [0, 1] to about 1e-15; an end where ends are as near
 */
export function nearestOnCubic(c: Cubic, p: Point): NearestOnCurve {
  const at = (t: number): NearestOnCurve => {
    const q = cubicPoint(c, t);
    return { t, point: q, distance: Math.hypot(q.x - p.x, q.y - p.y) };
  };
  let best = at(0);
  const keep = (n: NearestOnCurve): void => {
    if (n.distance < best.distance) best = n;
  };
  keep(at(1));
  const quintic = [0, 0, 0, 0, 0, 0];
  for (let j = 0; j < 3; j++) {
    const d = subtract(c[j + 1]!, c[j]!);
    for (let i = 0; i < 4; i++) quintic[i + j]! += PRODUCT[i]![j]! * dot(subtract(c[i]!, p), d);
  }
  // A point on the curve makes coefficients of pure rounding error; they count as 0.
  const noise = 1e-15 * Math.max(...quintic.map(Math.abs));
  const search = (b: readonly number[], low: number, high: number, depth: number): void => {
    let changes = 0;
    let last = 0;
    for (const v of b) {
      const sign = Math.abs(v) <= noise ? 0 : Math.sign(v);
      if (sign !== 0 && last !== 0 && sign !== last) changes++;
      if (sign !== 0) last = sign;
    }
    if (changes === 0 && Math.abs(b[0]!) > noise && Math.abs(b[5]!) > noise) return;
    if (changes === 1 && b[0]! < 0 && b[5]! > 0) return keep(at(refine(c, p, low, high)));
    if (depth === 0 || last === 0) return keep(at((low + high) / 2));
    const left: number[] = [];
    const right = [...b];
    for (let k = 0; k < 6; k++) {
      left.push(right[0]!);
      for (let i = 0; i < 5 - k; i++) right[i] = (right[i]! + right[i + 1]!) / 2;
    }
    const middle = (low + high) / 2;
    search(left, low, middle, depth - 1);
    search(right, middle, high, depth - 1);
  };
  search(quintic, 0, 1, 26);
  return best;
}

/** Root of (B(t) − p)·B'(t) between `low` and `high`, where it goes from below 0 to above. */
function refine(c: Cubic, p: Point, low: number, high: number): number {
  let t = (low + high) / 2;
  for (let i = 0; i < 60; i++) {
    const toward = subtract(cubicPoint(c, t), p);
    const d1 = cubicDerivative(c, t);
    const slope = dot(toward, d1);
    if (slope > 0) high = t;
    else low = t;
    const curvature = dot(d1, d1) + dot(toward, cubicSecondDerivative(c, t));
    let next = curvature > 0 ? t - slope / curvature : (low + high) / 2;
    if (!(next > low && next < high)) next = (low + high) / 2;
    if (Math.abs(next - t) < 1e-15) return next;
    t = next;
  }
  return t;
}
