import type { Oklab } from '../colour/oklab';
import { boxOfPoints } from '../geometry/bounds';
import { insideEvenOdd } from '../geometry/flatten';
import type { Path } from '../path/path';
import { flattenPath } from '../path/path-measure';
import type { Raster } from '../picture/raster';
import { colourAt, colourGap, middleColour } from './colour-at';
import { coveredPlaces, type Cover } from './covers';

/** Places looked at across the longer side of a path's box, and the fewest that tell anything. */
const PLACES_ACROSS = 24;
const FEWEST = 16;
/** An area has one colour where so much of it lies this near to its middle value: OKLab, a and b weighted. */
const OF_ONE_COLOUR = 0.6;
const ALIKE = 0.12;
/** How finely the outline is looked at, pixels. */
const FINE_PX = 0.5;

/**
 * The one colour that the picture has within a closed path, by which its own edge is told from others while it has no fill:
 * the middle value of places in it, what lies over it left out.
 *
 * @param path in picture pixels
 * @param covers what hides the picture, picture pixels
 * @returns null where the area is too small, or of many colours, or the path is open
 */
export function ownColour(path: Path, raster: Raster, covers: readonly Cover[] = []): Oklab | null {
  if (!path.closed || path.anchors.length < 2) return null;
  const outline = flattenPath(path, FINE_PX);
  const box = boxOfPoints(outline);
  const step = Math.max(1, Math.max(box.x1 - box.x0, box.y1 - box.y0) / PLACES_ACROSS);
  const isCovered = coveredPlaces(path, covers);
  const found: Oklab[] = [];
  for (let y = box.y0 + step / 2; y < box.y1; y += step)
    for (let x = box.x0 + step / 2; x < box.x1; x += step) {
      if (x < 0 || y < 0 || x >= raster.width || y >= raster.height) continue;
      if (!insideEvenOdd([outline], { x, y }) || isCovered({ x, y })) continue;
      found.push(colourAt(raster, { x, y }));
    }
  if (found.length < FEWEST) return null;
  const middle = middleColour(found);
  const alike = found.filter((v) => colourGap(v, middle) <= ALIKE);
  return alike.length >= OF_ONE_COLOUR * found.length ? middle : null;
}
