import type { Cubic } from './cubic';
import { mix, type Point } from './vector';

// Source: Boehm, "Inserting new knots into B-spline curves" (1980); Prautzsch, "Degree elevation of B-spline curves" (1984)
// in its simplest form, curve by curve; both from memory.

/** One more knot at `u`, the curve staying as it is. */
function withKnot(
  degree: number,
  knots: readonly number[],
  points: readonly Point[],
  u: number,
): { knots: number[]; points: Point[] } {
  let k = degree;
  while (k < knots.length - degree - 2 && knots[k + 1]! <= u) k++;
  const made: Point[] = [];
  for (let i = 0; i <= points.length; i++) {
    if (i <= k - degree) made.push(points[i]!);
    else if (i > k) made.push(points[i - 1]!);
    else {
      const [from, to] = [knots[i]!, knots[i + degree]!];
      made.push(mix(points[i - 1]!, points[i]!, to === from ? 0 : (u - from) / (to - from)));
    }
  }
  return { knots: [...knots.slice(0, k + 1), u, ...knots.slice(k + 1)], points: made };
}

/** A Bézier curve of degree 1, 2 or 3 as a cubic. */
function asCubic(points: readonly Point[]): Cubic {
  const [a, b, c, d] = points as readonly [Point, Point, Point?, Point?];
  if (d) return [a, b, c!, d];
  if (c) return [a, mix(a, b, 2 / 3), mix(c, b, 2 / 3), c];
  return [a, mix(a, b, 1 / 3), mix(a, b, 2 / 3), b];
}

/**
 * A B-spline of degree 1 to 3 as cubics: the same curve, from the first knot that counts to the last.
 *
 * @param knots as many as points and degree and one, none smaller than the one before
 * @returns none where they do not fit each other
 */
export function splineCubics(degree: number, knots: readonly number[], points: readonly Point[]): Cubic[] {
  const fits =
    Number.isInteger(degree) &&
    degree >= 1 &&
    degree <= 3 &&
    points.length > degree &&
    knots.length === points.length + degree + 1 &&
    knots.every((u, i) => Number.isFinite(u) && (i === 0 || u >= knots[i - 1]!));
  if (!fits) return [];
  const [start, end] = [knots[degree]!, knots[knots.length - degree - 1]!];
  let curve = { knots: [...knots], points: [...points] };
  for (const u of new Set(knots.filter((k) => k >= start && k <= end))) {
    const many = curve.knots.filter((k) => k === u).length;
    for (let n = many; n < degree; n++) curve = withKnot(degree, curve.knots, curve.points, u);
  }
  const cubics: Cubic[] = [];
  const inner = [...new Set(curve.knots.filter((k) => k >= start && k <= end))];
  for (let i = 0; i + 1 < inner.length; i++) {
    const last = curve.knots.lastIndexOf(inner[i]!);
    cubics.push(asCubic(curve.points.slice(last - degree, last + 1)));
  }
  return cubics;
}
