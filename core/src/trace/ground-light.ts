import { apply, type Affine } from '../geometry/affine';
import { insideEvenOdd } from '../geometry/flatten';
import { flattenPath } from '../path/path-measure';
import type { Path } from '../path/path';
import { pixelAt, type Raster } from '../picture/raster';

/** How finely the outline is walked, and stepped away from, shares of the reach. */
const STEP_SHARE = 1 / 12;
/** Of the lightness found, the ground's is the one that so much is darker than: shadow is dark, glints are few. */
const LIGHT_SHARE = 0.9;
/** Fewer places than this tell nothing. */
const FEWEST_PLACES = 8;

/**
 * How light the ground is on which a thing throws its shadow: from what the picture shows beside an outline on one side.
 * A share that exceeds shadows and falls short of glints is common practice, no source.
 *
 * @param toPicture takes sheet pixels to picture pixels
 * @param side radians clockwise on screen from the right
 * @param reach how far from the outline is looked, sheet pixels
 * @returns luma of sRGB (Rec. ITU-R BT.709) from 0 to 1; null where the picture does not show enough there
 */
export function groundLight(
  raster: Raster,
  toPicture: Affine,
  paths: readonly Path[],
  side: number,
  reach: number,
): number | null {
  const outlines = paths.map((path) => flattenPath(path, reach * STEP_SHARE));
  const step = reach * STEP_SHARE;
  const lights: number[] = [];
  for (const points of outlines)
    points.forEach((from, i) => {
      const to = points[(i + 1) % points.length]!;
      const count = Math.max(1, Math.ceil(Math.hypot(to.x - from.x, to.y - from.y) / step));
      for (let k = 0; k < count; k++)
        for (let away = step; away <= reach; away += step) {
          const place = {
            x: from.x + ((to.x - from.x) * k) / count + away * Math.cos(side),
            y: from.y + ((to.y - from.y) * k) / count + away * Math.sin(side),
          };
          if (insideEvenOdd(outlines, place)) continue;
          const p = apply(toPicture, place);
          const rgb = pixelAt(raster, Math.floor(p.x), Math.floor(p.y));
          if (rgb) lights.push(0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2]);
        }
    });
  if (lights.length < FEWEST_PLACES) return null;
  lights.sort((a, b) => a - b);
  return lights[Math.floor(LIGHT_SHARE * (lights.length - 1))]!;
}
