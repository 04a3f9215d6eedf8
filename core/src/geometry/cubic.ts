import { boxOfPoints, type Box } from './bounds';
import { integrate } from './gauss';
import { quadraticRoots } from './polynomial';
import { cross, distance, length, mix, scale, subtract, type Point } from './vector';

/** A cubic Bézier curve by its four control points, first and last on the curve. */
export type Cubic = readonly [Point, Point, Point, Point];

/** Handle length, in radii, with which four cubics stand for a circle: 4/3 (√2 − 1). Its radial error is 2.73e-4 r. */
export const CIRCLE_HANDLE = (4 / 3) * (Math.SQRT2 - 1);

/** The straight line from `a` to `b` as a cubic of even speed (control points on the thirds). */
export const lineCubic = (a: Point, b: Point): Cubic => [a, mix(a, b, 1 / 3), mix(a, b, 2 / 3), b];

export function cubicPoint([p0, p1, p2, p3]: Cubic, t: number): Point {
  const s = 1 - t;
  const a = s * s * s;
  const b = 3 * s * s * t;
  const c = 3 * s * t * t;
  const d = t * t * t;
  return {
    x: a * p0.x + b * p1.x + c * p2.x + d * p3.x,
    y: a * p0.y + b * p1.y + c * p2.y + d * p3.y,
  };
}

/** First derivative by t. */
export function cubicDerivative([p0, p1, p2, p3]: Cubic, t: number): Point {
  const s = 1 - t;
  const a = 3 * s * s;
  const b = 6 * s * t;
  const c = 3 * t * t;
  return {
    x: a * (p1.x - p0.x) + b * (p2.x - p1.x) + c * (p3.x - p2.x),
    y: a * (p1.y - p0.y) + b * (p2.y - p1.y) + c * (p3.y - p2.y),
  };
}

/** Second derivative by t. */
export function cubicSecondDerivative([p0, p1, p2, p3]: Cubic, t: number): Point {
  const s = 1 - t;
  return {
    x: 6 * s * (p2.x - 2 * p1.x + p0.x) + 6 * t * (p3.x - 2 * p2.x + p1.x),
    y: 6 * s * (p2.y - 2 * p1.y + p0.y) + 6 * t * (p3.y - 2 * p2.y + p1.y),
  };
}

/**
 * Direction of travel at t, not normalised; where handles lie in their anchors, the limit from inside.
 * Zero only when all four points coincide.
 */
export function cubicTangent(c: Cubic, t: number): Point {
  const d = cubicDerivative(c, t);
  const reach = distance(c[0], c[1]) + distance(c[1], c[2]) + distance(c[2], c[3]);
  if (length(d) > 1e-9 * reach) return d;
  const second = cubicSecondDerivative(c, t);
  if (t < 0.5 && length(second) > 1e-9 * reach) return second;
  if (t >= 0.5 && length(second) > 1e-9 * reach) return { x: -second.x, y: -second.y };
  return subtract(c[3], c[0]);
}

/** Both halves of the curve parted at t (de Casteljau). */
export function splitCubic([p0, p1, p2, p3]: Cubic, t: number): [Cubic, Cubic] {
  const a = mix(p0, p1, t);
  const b = mix(p1, p2, t);
  const c = mix(p2, p3, t);
  const d = mix(a, b, t);
  const e = mix(b, c, t);
  const m = mix(d, e, t);
  return [
    [p0, a, d, m],
    [m, e, c, p3],
  ];
}

/** Parameters strictly inside (0, 1) where x or y is extreme. */
export function cubicExtrema([p0, p1, p2, p3]: Cubic): number[] {
  const roots = (a: number, b: number, c: number, d: number): number[] =>
    quadraticRoots(d - 3 * c + 3 * b - a, 2 * (c - 2 * b + a), b - a);
  return [...roots(p0.x, p1.x, p2.x, p3.x), ...roots(p0.y, p1.y, p2.y, p3.y)].filter((t) => t > 0 && t < 1);
}

/**
 * Parameters strictly inside (0, 1) where the curve goes over from bending one way to bending the other: roots of the
 * cross product of its first and second derivatives, a quadratic (Stone and DeRose, "A geometric characterization of
 * parametric cubic curves", 1989).
 */
export function cubicInflections([p0, p1, p2, p3]: Cubic): number[] {
  const a = subtract(p1, p0);
  const b = subtract(subtract(p2, p1), a);
  const c = { x: p3.x - p0.x - 3 * (p2.x - p1.x), y: p3.y - p0.y - 3 * (p2.y - p1.y) };
  const [k0, k1, k2] = [cross(a, b), cross(a, c), cross(b, c)];
  // A straight line bends nowhere.
  const size = Math.max(...[a, b, c].map((v) => v.x * v.x + v.y * v.y));
  if (Math.max(Math.abs(k0), Math.abs(k1), Math.abs(k2)) <= 1e-12 * size) return [];
  return quadraticRoots(k2, k1, k0).filter((t) => t > 0 && t < 1);
}

/**
 * Signed curvature at t, one over the radius of the circle that fits there, in 1 / the points' unit; positive where the
 * curve turns clockwise on screen. 0 where the curve stands still.
 */
export function cubicCurvature(c: Cubic, t: number): number {
  const d = cubicDerivative(c, t);
  const speed = length(d);
  const reach = distance(c[0], c[1]) + distance(c[1], c[2]) + distance(c[2], c[3]);
  return speed > 1e-9 * reach ? cross(d, cubicSecondDerivative(c, t)) / speed ** 3 : 0;
}

/** The part of a cubic between two parameters. */
export function subCubic(c: Cubic, from: number, to: number): Cubic {
  const [, rest] = from > 0 ? splitCubic(c, from) : [c, c];
  if (to >= 1) return rest;
  return splitCubic(rest, (to - from) / (1 - from))[0];
}

/** A cubic about the origin so many times as large. */
export const scaledCubic = ([a, b, c, d]: Cubic, by: number): Cubic => [
  scale(a, by),
  scale(b, by),
  scale(c, by),
  scale(d, by),
];

/** A cubic the other way round. */
export const reversedCubic = ([a, b, c, d]: Cubic): Cubic => [d, c, b, a];

/**
 * Where a cubic crosses itself: both parameters, rising; null where it does not. A cubic does so once at most: from
 * B(t) = B(u) follow two linear equations for t + u and t·u (power basis, both coordinates).
 */
export function selfCrossing([p0, p1, p2, p3]: Cubic): readonly [number, number] | null {
  const a3 = { x: p3.x - 3 * p2.x + 3 * p1.x - p0.x, y: p3.y - 3 * p2.y + 3 * p1.y - p0.y };
  const a2 = { x: 3 * (p2.x - 2 * p1.x + p0.x), y: 3 * (p2.y - 2 * p1.y + p0.y) };
  const a1 = { x: 3 * (p1.x - p0.x), y: 3 * (p1.y - p0.y) };
  const det = cross(a3, a2);
  if (det === 0) return null;
  const sum = cross(a1, a3) / det;
  const product = sum * sum - cross(a2, a1) / det;
  const root = Math.sqrt(sum * sum - 4 * product);
  const [t, u] = [(sum - root) / 2, (sum + root) / 2];
  return root > 1e-9 && t >= 0 && u <= 1 ? [t, u] : null;
}

/** Exact bounding box of the curve (not of its control points). */
export const cubicBounds = (c: Cubic): Box =>
  boxOfPoints([c[0], c[3], ...cubicExtrema(c).map((t) => cubicPoint(c, t))]);

/** Whether the curve is a straight line from end to end, handles lying in it. */
export function isStraight([p0, p1, p2, p3]: Cubic, within = 1e-9): boolean {
  const chord = subtract(p3, p0);
  const size = length(chord);
  if (size === 0) return distance(p0, p1) <= within && distance(p0, p2) <= within;
  const off = (p: Point): number => Math.abs(chord.x * (p.y - p0.y) - chord.y * (p.x - p0.x)) / size;
  const along = (p: Point): number => (chord.x * (p.x - p0.x) + chord.y * (p.y - p0.y)) / (size * size);
  const inside = (u: number): boolean => u >= -1e-12 && u <= 1 + 1e-12;
  return off(p1) <= within && off(p2) <= within && inside(along(p1)) && inside(along(p2));
}

/**
 * Arc length from t = 0 to t = `to`, in the unit of the points, to a relative 1e-9 of the control polygon:
 * Gauss–Legendre quadrature of the speed, halved until two answers agree.
 */
export function cubicLength(c: Cubic, to = 1): number {
  const speed = (t: number): number => {
    const d = cubicDerivative(c, t);
    return length(d);
  };
  const reach = distance(c[0], c[1]) + distance(c[1], c[2]) + distance(c[2], c[3]);
  const over = (a: number, b: number, whole: number, depth: number): number => {
    const m = (a + b) / 2;
    const left = integrate(speed, a, m);
    const right = integrate(speed, m, b);
    if (depth === 0 || Math.abs(left + right - whole) <= 1e-10 * reach) return left + right;
    return over(a, m, left, depth - 1) + over(m, b, right, depth - 1);
  };
  return reach === 0 ? 0 : over(0, to, integrate(speed, 0, to), 18);
}

/** ½∫ (x dy − y dx) along the curve, exact: its share of a closed path's signed area, positive when clockwise on screen. */
export const cubicArea = ([p0, p1, p2, p3]: Cubic): number =>
  (6 * cross(p0, p1) +
    3 * cross(p0, p2) +
    cross(p0, p3) +
    3 * cross(p1, p2) +
    3 * cross(p1, p3) +
    6 * cross(p2, p3)) /
  20;
