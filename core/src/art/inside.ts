import { boxHas, boxOfPoints } from '../geometry/bounds';
import { insideEvenOdd } from '../geometry/flatten';
import { flattenPath, pathBounds } from '../path/path-measure';
import type { Path } from '../path/path';
import type { Shape } from './schema';
import { wholePaths } from './tree';

// What lies inside a shape's lines.

const polygons = new WeakMap<Path, ReturnType<typeof flattenPath>>();

/** The path as a polygon fine enough to decide what is inside it: a two-thousandth of its size. */
export function polygonOf(path: Path): ReturnType<typeof flattenPath> {
  let polygon = polygons.get(path);
  if (!polygon) {
    const box = boxOfPoints(path.anchors);
    const size = Math.max(box.x1 - box.x0, box.y1 - box.y0, 1e-3);
    polygons.set(path, (polygon = flattenPath(path, size / 2000)));
  }
  return polygon;
}

/** Whether a point lies in the shape's inside (even-odd; open paths are taken as closed, as a fill does). */
export const shapeHas = (shape: Shape, p: { x: number; y: number }): boolean =>
  insideEvenOdd(wholePaths(shape).map(polygonOf), p);

/** Whether all of `inner` lies inside `outer`'s line (both taken as closed). */
export const pathInside = (inner: Path, outer: Path): boolean => {
  const [first] = inner.anchors;
  // Most paths lie quite elsewhere: no line need be followed to know that.
  if (!first || !boxHas(pathBounds(outer), first)) return false;
  const around = polygonOf(outer);
  return polygonOf(inner).every((p) => insideEvenOdd([around], p));
};
