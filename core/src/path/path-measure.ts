import { boxOfPoints, EMPTY_BOX, uniteBoxes, type Box } from '../geometry/bounds';
import { cubicArea, cubicBounds, cubicLength, lineCubic, type Cubic } from '../geometry/cubic';
import { flattenCubic } from '../geometry/flatten';
import { nearestOnCubic } from '../geometry/nearest';
import type { Point } from '../geometry/vector';
import type { Path } from './path';
import { pathCubics, memoised } from './path';

/** Exact bounds of the line itself; of the lone anchor if there is no segment; `EMPTY_BOX` when empty. */
export const pathBounds = memoised((path): Box => {
  const cubics = pathCubics(path);
  if (cubics.length === 0) return boxOfPoints(path.anchors);
  return cubics.map(cubicBounds).reduce(uniteBoxes, EMPTY_BOX);
});

/** Length of the line in the path's unit, closing segment included when closed. */
export const pathLength = (path: Path): number =>
  pathCubics(path).reduce((sum, c) => sum + cubicLength(c), 0);

/** Signed area in the path's unit squared, an open path taken as closed by a line; positive when clockwise on screen. */
export function pathArea(path: Path): number {
  const first = path.anchors[0];
  const last = path.anchors.at(-1);
  if (!first || !last) return 0;
  const closing = path.closed ? 0 : cubicArea(lineCubic(last, first));
  return pathCubics(path).reduce((sum, c) => sum + cubicArea(c), closing);
}

/** The path as a polygon, no chord farther than `tolerance` from the line. First anchor first. */
export function flattenPath(path: Path, tolerance: number): Point[] {
  const first = path.anchors[0];
  if (!first) return [];
  return [{ x: first.x, y: first.y }, ...pathCubics(path).flatMap((c) => flattenCubic(c, tolerance))];
}

/** Where a path comes nearest to a point. */
/** Length of a path from its beginning to a place on it. */
export function lengthTo(
  path: Path,
  { segment, t }: { readonly segment: number; readonly t: number },
): number {
  const cubics = pathCubics(path);
  return (
    cubics.slice(0, segment).reduce((sum, c) => sum + cubicLength(c), 0) + cubicLength(cubics[segment]!, t)
  );
}

export interface NearestOnPath {
  readonly segment: number;
  readonly t: number;
  readonly point: Point;
  readonly distance: number;
}

/** Least squared distance from `p` to the box about a curve's control points, which the curve never leaves. */
function boxDistance2([a, b, c, d]: Cubic, p: Point): number {
  const dx = Math.max(Math.min(a.x, b.x, c.x, d.x) - p.x, p.x - Math.max(a.x, b.x, c.x, d.x), 0);
  const dy = Math.max(Math.min(a.y, b.y, c.y, d.y) - p.y, p.y - Math.max(a.y, b.y, c.y, d.y), 0);
  return dx * dx + dy * dy;
}

/**
 * Nearest point of the path's line to `p`; the earliest of equals. Segments whose box is farther than what was found
 * are passed over.
 *
 * @param within farther than this does not count
 * @returns null when the path has no segment, or none within reach
 */
export function nearestOnPath(path: Path, p: Point, within = Infinity): NearestOnPath | null {
  let best: NearestOnPath | null = null;
  let least = within;
  pathCubics(path).forEach((c, segment) => {
    if (boxDistance2(c, p) > least * least) return;
    const n = nearestOnCubic(c, p);
    if (best ? n.distance >= least : n.distance > least) return;
    best = { segment, ...n };
    least = n.distance;
  });
  return best;
}
