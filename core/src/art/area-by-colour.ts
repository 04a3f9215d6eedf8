import { boxOfPoints, boxHeight, boxWidth, EMPTY_BOX, uniteBoxes } from '../geometry/bounds';
import { markInside, type PlaceGrid } from '../geometry/scanline';
import { flattenPath } from '../path/path-measure';
import { shapeBounds } from './bounds';
import { hexAt, paletteOf, seenPaint } from './paint';
import type { Art } from './schema';
import { shapesOf, wholePaths } from './tree';

/** A colour and how much of all that is filled shows it. */
export interface ColourShare {
  readonly hex: string;
  readonly share: number;
}

/** Places that are looked at along the longer side. */
const PLACES_ALONG = 320;

/**
 * How much of what is filled shows each colour, the largest share first: at each place the topmost fill counts, as if all were
 * opaque; lines and copies are left out. Of a gradient the colour in the middle of its shape counts for all of it.
 */
export function areaByColour(art: Art): ColourShare[] {
  const palette = paletteOf(art.chips);
  const filled = shapesOf(art).flatMap(({ shape, shown }) => (shown && shape.fill ? [shape] : []));
  const box = filled.map(shapeBounds).reduce(uniteBoxes, EMPTY_BOX);
  const size = Math.max(boxWidth(box), boxHeight(box));
  if (!(size > 0)) return [];
  const step = size / PLACES_ALONG;
  const grid: PlaceGrid = {
    x0: box.x0,
    y0: box.y0,
    step,
    width: Math.max(1, Math.ceil(boxWidth(box) / step)),
    height: Math.max(1, Math.ceil(boxHeight(box) / step)),
  };
  const taken = new Uint8Array(grid.width * grid.height);
  const counts = new Map<string, number>();
  let all = 0;
  for (const shape of filled.toReversed()) {
    const polygons = wholePaths(shape).map((path) => flattenPath(path, step / 4));
    const bounds = boxOfPoints(polygons.flat());
    const middle = { x: (bounds.x0 + bounds.x1) / 2, y: (bounds.y0 + bounds.y1) / 2 };
    const hex = hexAt(seenPaint(shape.fill!, palette), middle);
    markInside(polygons, grid, (at) => {
      if (taken[at] === 1) return;
      taken[at] = 1;
      all++;
      counts.set(hex, (counts.get(hex) ?? 0) + 1);
    });
  }
  return [...counts].map(([hex, n]) => ({ hex, share: n / all })).sort((a, b) => b.share - a.share);
}
