/** A point or a displacement in the plane, y down. Units are the caller's. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

export const ORIGIN: Point = { x: 0, y: 0 };

export const point = (x: number, y: number): Point => ({ x, y });
export const add = (a: Point, b: Point): Point => ({ x: a.x + b.x, y: a.y + b.y });
export const subtract = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y });
export const scale = (a: Point, k: number): Point => ({ x: a.x * k, y: a.y * k });
export const negate = (a: Point): Point => ({ x: -a.x, y: -a.y });
export const dot = (a: Point, b: Point): number => a.x * b.x + a.y * b.y;
/** z of the cross product; positive when `b` is clockwise of `a` on screen (y down). */
export const cross = (a: Point, b: Point): number => a.x * b.y - a.y * b.x;
/** No `Math.hypot`, which takes room for its arguments each time: no coordinate is so large or small that a square would not be. */
export const length = (a: Point): number => Math.sqrt(a.x * a.x + a.y * a.y);
export function distance(a: Point, b: Point): number {
  const dx = a.x - b.x;
  const dy = a.y - b.y;
  return Math.sqrt(dx * dx + dy * dy);
}
export const mix = (a: Point, b: Point, t: number): Point => ({
  x: a.x + (b.x - a.x) * t,
  y: a.y + (b.y - a.y) * t,
});
export const samePoint = (a: Point, b: Point, within = 0): boolean => distance(a, b) <= within;

/** Unit vector of `a`, or null for the zero vector. */
export function unit(a: Point): Point | null {
  const l = length(a);
  return l > 0 ? { x: a.x / l, y: a.y / l } : null;
}

/** `a` turned to the nearest multiple of `step` radians, its length kept. */
export function snapAngle(a: Point, step: number): Point {
  const angle = Math.round(Math.atan2(a.y, a.x) / step) * step;
  const u = { x: Math.cos(angle), y: Math.sin(angle) };
  return scale(u, dot(a, u));
}
