import { MirrotError } from '../error';
import { solveLinear } from './linear';
import type { Point } from './vector';

/** A projective map of the plane, its 3 × 3 matrix row by row. */
export type Homography = readonly [number, number, number, number, number, number, number, number, number];

const multiply = (a: Homography, b: Homography): Homography =>
  Array.from({ length: 9 }, (_, i) => {
    const row = i - (i % 3);
    return a[row]! * b[i % 3]! + a[row + 1]! * b[(i % 3) + 3]! + a[row + 2]! * b[(i % 3) + 6]!;
  }) as unknown as Homography;

/** The map's inverse. Throws as `homography` when it flattens the plane. */
export function invertHomography([a, b, c, d, e, f, g, h, i]: Homography): Homography {
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
  if (det === 0 || !Number.isFinite(det)) throw flat();
  return [
    (e * i - f * h) / det, (c * h - b * i) / det, (b * f - c * e) / det,
    (f * g - d * i) / det, (a * i - c * g) / det, (c * d - a * f) / det,
    (d * h - e * g) / det, (b * g - a * h) / det, (a * e - b * d) / det,
  ]; // prettier-ignore
}

const flat = (): MirrotError =>
  new MirrotError(
    'quad',
    'These four points do not span an area: three of them lie in one line. Move one of them.',
  );

/** Shift and scale that bring points about the origin at a mean distance of √2 (Hartley and Zisserman, 4.4.4). */
function normalisation(points: readonly Point[]): Homography {
  const x = points.reduce((s, p) => s + p.x, 0) / points.length;
  const y = points.reduce((s, p) => s + p.y, 0) / points.length;
  const mean = points.reduce((s, p) => s + Math.hypot(p.x - x, p.y - y), 0) / points.length;
  if (!(mean > 0)) throw flat();
  const k = Math.SQRT2 / mean;
  return [k, 0, -k * x, 0, k, -k * y, 0, 0, 1];
}

/**
 * The projective map that takes four points to four others.
 * Source: Hartley and Zisserman, Multiple View Geometry (2003), the normalised direct linear transform (algorithm
 * 4.2), exact for four points.
 *
 * @param from four points, no three in one line, any unit
 * @param to where each goes
 * @throws MirrotError `quad` when three points lie in one line
 */
export function homography(from: readonly Point[], to: readonly Point[]): Homography {
  const before = normalisation(from);
  const after = normalisation(to);
  const rows: number[][] = [];
  const right: number[] = [];
  for (let k = 0; k < 4; k++) {
    const { x, y } = project(before, from[k]!);
    const { x: u, y: v } = project(after, to[k]!);
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]);
    right.push(u, v);
  }
  const h = solveLinear(rows, right);
  if (!h || h.some((v) => Math.abs(v) > 1e9)) throw flat();
  const map = multiply(invertHomography(after), multiply([...h, 1] as unknown as Homography, before));
  invertHomography(map);
  return map;
}

/** Where the map takes a point. */
export function project([a, b, c, d, e, f, g, h, i]: Homography, p: Point): Point {
  const w = g * p.x + h * p.y + i;
  return { x: (a * p.x + b * p.y + c) / w, y: (d * p.x + e * p.y + f) / w };
}
