import { apply, type Affine } from '../geometry/affine';
import { insideEvenOdd } from '../geometry/flatten';
import { flattenPath } from '../path/path-measure';
import type { Point } from '../geometry/vector';
import type { Path } from '../path/path';
import { pixelAt, type Raster } from '../picture/raster';

/** How finely the outline is walked, and stepped away from, shares of the reach. */
const STEP_SHARE = 1 / 12;
/** Of the lightness found, the ground's is the one that so much is darker than: shadow is dark, glints are few. */
const LIGHT_SHARE = 0.9;
/** Pieces of the outline that lie nearly along the side's direction, the cosine to their normal, throw no shadow there. */
const LEAST_FACING = 0.3;
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
  const toSide = { x: Math.cos(side), y: Math.sin(side) };
  const beside = (p: Point, away: number): Point => ({ x: p.x + away * toSide.x, y: p.y + away * toSide.y });
  const lights: number[] = [];
  for (const points of outlines)
    points.forEach((from, i) => {
      const to = points[(i + 1) % points.length]!;
      const [dx, dy, length] = [to.x - from.x, to.y - from.y, Math.hypot(to.x - from.x, to.y - from.y)];
      if (Math.abs(dx * toSide.y - dy * toSide.x) <= LEAST_FACING * length) return;
      const count = Math.ceil(length / step);
      for (let k = 0; k < count; k++) {
        const start = { x: from.x + (dx * k) / count, y: from.y + (dy * k) / count };
        if (!insideEvenOdd(outlines, beside(start, -step / 2))) continue;
        for (let away = step; away <= reach; away += step) {
          const place = beside(start, away);
          if (insideEvenOdd(outlines, place)) continue;
          const p = apply(toPicture, place);
          const rgb = pixelAt(raster, Math.floor(p.x), Math.floor(p.y));
          if (rgb) lights.push(0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2]);
        }
      }
    });
  if (lights.length < FEWEST_PLACES) return null;
  lights.sort((a, b) => a - b);
  return lights[Math.floor(LIGHT_SHARE * (lights.length - 1))]!;
}
