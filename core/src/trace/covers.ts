import { boxesMeet, boxHas, boxOfPoints } from '../geometry/bounds';
import { insideEvenOdd } from '../geometry/flatten';
import { subtract, type Point } from '../geometry/vector';
import type { Path } from '../path/path';
import { flattenPath, pathBounds } from '../path/path-measure';

/** Outlines of one thing that lies over others, by the even-odd rule. */
export type Cover = readonly Path[];

/** How finely outlines are looked at, pixels. */
const FINE_PX = 0.25;
/** What lies this near to a cover's own outline is seen beside it: borders that two shapes share are seen from both. Pixels. */
const BESIDE_PX = 1;

/** Squared distance from a point to the line between two others. */
function distance2(p: Point, a: Point, b: Point): number {
  const [along, to] = [subtract(b, a), subtract(p, a)];
  const long = along.x ** 2 + along.y ** 2;
  const t = long > 0 ? Math.min(1, Math.max(0, (to.x * along.x + to.y * along.y) / long)) : 0;
  return (to.x - t * along.x) ** 2 + (to.y - t * along.y) ** 2;
}

/**
 * Tells whether something hides a place of a path: it lies within a cover, and not on its border.
 *
 * @param path in picture pixels, as are the covers
 */
export function coveredPlaces(path: Path, covers: readonly Cover[]): (at: Point) => boolean {
  const box = pathBounds(path);
  const near = covers.flatMap((cover) => {
    const polygons = cover.map((outline) => flattenPath(outline, FINE_PX));
    const around = boxOfPoints(polygons.flat());
    return boxesMeet(around, box) ? [{ polygons, around }] : [];
  });
  if (near.length === 0) return () => false;
  return (at) =>
    near.some(
      ({ polygons, around }) =>
        boxHas(around, at) &&
        insideEvenOdd(polygons, at) &&
        polygons.every((points) =>
          points.every((p, i) => distance2(at, p, points[(i + 1) % points.length]!) > BESIDE_PX ** 2),
        ),
    );
}
