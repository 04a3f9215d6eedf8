import { add, ORIGIN, scale, subtract, type Point } from './vector';

/** Where a line through points is at length 0, its slope there, and half its second derivative. */
export interface Parabola {
  readonly at: Point;
  readonly slope: Point;
  readonly bend: Point;
}

/**
 * The straight line, and the parabola, nearest to points at given lengths along a line, by least squares. Where there are too
 * few points, or they lie at too few places, for a parabola, that is the line again.
 *
 * @param rows two or more
 */
export function nearestParabola(rows: readonly { readonly s: number; readonly p: Point }[]): {
  readonly line: Parabola;
  readonly curve: Parabola;
} {
  const n = rows.length;
  // About the first point, so that far-off coordinates lose nothing.
  const o = rows[0]?.p ?? ORIGIN;
  let [m1, m2, m3, m4] = [0, 0, 0, 0];
  let [p0, p1, p2] = [ORIGIN, ORIGIN, ORIGIN];
  for (const { s, p } of rows) {
    const d = subtract(p, o);
    const ss = s * s;
    [m1, m2, m3, m4] = [m1 + s, m2 + ss, m3 + ss * s, m4 + ss * ss];
    [p0, p1, p2] = [add(p0, d), add(p1, scale(d, s)), add(p2, scale(d, ss))];
  }
  const two = n * m2 - m1 * m1;
  const along = two > 0 ? scale(subtract(scale(p1, n), scale(p0, m1)), 1 / two) : ORIGIN;
  const line: Parabola = {
    at: add(o, scale(subtract(p0, scale(along, m1)), 1 / (n || 1))),
    slope: along,
    bend: ORIGIN,
  };
  // Normal equations of c + b s + a s², by Cramer's rule.
  const det = n * (m2 * m4 - m3 * m3) - m1 * (m1 * m4 - m3 * m2) + m2 * (m1 * m3 - m2 * m2);
  if (n < 4 || !(Math.abs(det) > 1e-9 * Math.abs(n * m2 * m4))) return { line, curve: line };
  const mixed = (k0: number, k1: number, k2: number): Point =>
    scale(add(add(scale(p0, k0), scale(p1, k1)), scale(p2, k2)), 1 / det);
  const curve: Parabola = {
    at: add(o, mixed(m2 * m4 - m3 * m3, m2 * m3 - m1 * m4, m1 * m3 - m2 * m2)),
    slope: mixed(m2 * m3 - m1 * m4, n * m4 - m2 * m2, m1 * m2 - n * m3),
    bend: mixed(m1 * m3 - m2 * m2, m1 * m2 - n * m3, n * m2 - m1 * m1),
  };
  return { line, curve };
}
