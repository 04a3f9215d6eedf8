import { add, ORIGIN, type Point } from './vector';

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
  let [x0, x1, x2, y0, y1, y2] = [0, 0, 0, 0, 0, 0];
  for (let i = 0; i < n; i++) {
    const { s, p } = rows[i]!;
    const x = p.x - o.x;
    const y = p.y - o.y;
    const ss = s * s;
    m1 += s;
    m2 += ss;
    m3 += ss * s;
    m4 += ss * ss;
    x0 += x;
    y0 += y;
    x1 += x * s;
    y1 += y * s;
    x2 += x * ss;
    y2 += y * ss;
  }
  const two = n * m2 - m1 * m1;
  const slope = two > 0 ? { x: (n * x1 - m1 * x0) / two, y: (n * y1 - m1 * y0) / two } : ORIGIN;
  const line: Parabola = {
    at: { x: o.x + (x0 - m1 * slope.x) / (n || 1), y: o.y + (y0 - m1 * slope.y) / (n || 1) },
    slope,
    bend: ORIGIN,
  };
  // Normal equations of c + b s + a s², by Cramer's rule.
  const det = n * (m2 * m4 - m3 * m3) - m1 * (m1 * m4 - m3 * m2) + m2 * (m1 * m3 - m2 * m2);
  if (n < 4 || !(Math.abs(det) > 1e-9 * Math.abs(n * m2 * m4))) return { line, curve: line };
  const mixed = (k0: number, k1: number, k2: number): Point => ({
    x: (k0 * x0 + k1 * x1 + k2 * x2) / det,
    y: (k0 * y0 + k1 * y1 + k2 * y2) / det,
  });
  const curve: Parabola = {
    at: add(o, mixed(m2 * m4 - m3 * m3, m2 * m3 - m1 * m4, m1 * m3 - m2 * m2)),
    slope: mixed(m2 * m3 - m1 * m4, n * m4 - m2 * m2, m1 * m2 - n * m3),
    bend: mixed(m1 * m3 - m2 * m2, m1 * m2 - n * m3, n * m2 - m1 * m1),
  };
  return { line, curve };
}
