import { polygonOf } from '../art/inside';
import { insideEvenOdd } from '../geometry/flatten';
import { flattenPath } from '../path/path-measure';
import type { ProofShape } from './finding';

/** How finely a shape's outline is looked at, sheet pixels. */
const STEP_PX = 0.5;

/** Whether all of a shape, its line's weight too, lies within the area of another, and none of that one's outline within it. */
export function liesWithin(inner: ProofShape, outer: ProofShape): boolean {
  const area = outer.whole.map(polygonOf);
  const weight = (inner.shape.stroke?.width ?? 0) / 2;
  const outline = inner.whole.flatMap((path) => flattenPath(path, STEP_PX));
  const around = weight === 0 ? [[0, 0]] : [[weight, 0], [-weight, 0], [0, weight], [0, -weight]]; // prettier-ignore
  if (!outline.every(({ x, y }) => around.every(([dx, dy]) => insideEvenOdd(area, { x: x + dx!, y: y + dy! })))) return false; // prettier-ignore
  // A hole of the outer one within the inner one would show it.
  const own = inner.whole.map(polygonOf);
  return outer.whole.flatMap((path) => flattenPath(path, STEP_PX)).every((p) => !insideEvenOdd(own, p));
}
