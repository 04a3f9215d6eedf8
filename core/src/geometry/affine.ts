import type { Point } from './vector';

/** An affine map as SVG's matrix(a b c d e f): x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Affine = readonly [number, number, number, number, number, number];

export const IDENTITY: Affine = [1, 0, 0, 1, 0, 0];

export const translation = (x: number, y: number): Affine => [1, 0, 0, 1, x, y];
export const scaling = (sx: number, sy = sx): Affine => [sx, 0, 0, sy, 0, 0];
export const rotation = (angle: number): Affine => {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  return [c, s, -s, c, 0, 0];
};

/** `outer` after `inner`. */
export function compose(outer: Affine, inner: Affine): Affine {
  const [a, b, c, d, e, f] = outer;
  const [g, h, i, j, k, l] = inner;
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}

/** `map` carried out about `centre` instead of the origin. */
export const about = (map: Affine, centre: Point): Affine =>
  compose(translation(centre.x, centre.y), compose(map, translation(-centre.x, -centre.y)));

export const determinant = ([a, b, c, d]: Affine): number => a * d - b * c;

/** The inverse map, or null when the map flattens the plane (determinant 0 or not finite). */
export function invert(map: Affine): Affine | null {
  const [a, b, c, d, e, f] = map;
  const det = determinant(map);
  if (det === 0 || !Number.isFinite(det)) return null;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

export const apply = ([a, b, c, d, e, f]: Affine, p: Point): Point => ({
  x: a * p.x + c * p.y + e,
  y: b * p.x + d * p.y + f,
});

/** The map's effect on a displacement: its translation is left out. */
export const applyLinear = ([a, b, c, d]: Affine, v: Point): Point => ({
  x: a * v.x + c * v.y,
  y: b * v.x + d * v.y,
});

/** Mean scale of the map: the square root of the area it makes of a unit square. */
export const meanScale = (map: Affine): number => Math.sqrt(Math.abs(determinant(map)));
