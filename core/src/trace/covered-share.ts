import type { Path } from '../path/path';
import { regionOf } from './region';

/**
 * The share of an area that outlines cover, 0 to 1; null where the area is nothing.
 *
 * @param area outlines of it, in pixels of a raster
 * @param covers outlines of each thing that covers, by the even-odd rule, in the same pixels
 * @param size of the raster: of the area only what lies on it counts
 */
export function coveredShare(
  area: readonly Path[],
  covers: readonly (readonly Path[])[],
  size: { readonly width: number; readonly height: number },
): number | null {
  const region = regionOf(area, covers, size);
  return region && region.whole > 0 ? 1 - region.open / region.whole : null;
}
