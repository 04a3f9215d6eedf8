import { cubicPoint, type Cubic } from './cubic';
import type { Point } from './vector';

/**
 * Points along a cubic, its start left out and its end included, no chord farther than `tolerance` from the curve.
 * The number of equal steps follows from the bound on the second difference of the control points
 * (Wang's formula; Goldman, Pyramid Algorithms, 2003).
 */
export function flattenCubic(c: Cubic, tolerance: number): Point[] {
  const [p0, p1, p2, p3] = c;
  const bend = Math.max(
    Math.hypot(p0.x - 2 * p1.x + p2.x, p0.y - 2 * p1.y + p2.y),
    Math.hypot(p1.x - 2 * p2.x + p3.x, p1.y - 2 * p2.y + p3.y),
  );
  const steps = Math.min(512, Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / tolerance))));
  const points: Point[] = [];
  for (let i = 1; i < steps; i++) points.push(cubicPoint(c, i / steps));
  points.push(p3);
  return points;
}

/** Whether `p` lies inside the polygons under the even-odd rule (each taken as closed). */
export function insideEvenOdd(polygons: readonly (readonly Point[])[], p: Point): boolean {
  let inside = false;
  for (const polygon of polygons) {
    for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
      const a = polygon[i]!;
      const b = polygon[j]!;
      if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
    }
  }
  return inside;
}

/** How often the polygons (each taken as closed) run round `p`, clockwise on screen counted up, the other way down. */
export function windingNumber(polygons: readonly (readonly Point[])[], p: Point): number {
  let turns = 0;
  for (const polygon of polygons) {
    for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
      const a = polygon[j]!;
      const b = polygon[i]!;
      if (a.y > p.y !== b.y > p.y && p.x < ((a.x - b.x) * (p.y - b.y)) / (a.y - b.y) + b.x)
        turns += b.y > a.y ? -1 : 1;
    }
  }
  return turns;
}
