import { oklabOfLinear, type Oklab } from '../colour/oklab';
import { LINEAR_OF_BYTE } from '../colour/srgb';
import type { Point } from '../geometry/vector';
import type { Raster } from '../picture/raster';

/** The picture's colour in the pixel a place lies in, beside the picture that of its border; clear pixels show white paper. */
export function colourAt({ width, height, data }: Raster, { x, y }: Point): Oklab {
  const i = Math.min(width - 1, Math.max(0, Math.floor(x)));
  const j = Math.min(height - 1, Math.max(0, Math.floor(y)));
  const p = 4 * (j * width + i);
  const solid = data[p + 3]! / 255;
  const light = (c: number): number => solid * LINEAR_OF_BYTE[data[p + c]!]! + 1 - solid;
  return oklabOfLinear(light(0), light(1), light(2));
}

/** Differences of a and b count so many times one of L, as in edge fields. */
export const A_B_WEIGHT = 2;
/** How far two colours are from each other, a and b weighted. */
export const colourGap = (one: Oklab, other: Oklab): number =>
  Math.hypot(one[0] - other[0], A_B_WEIGHT * (one[1] - other[1]), A_B_WEIGHT * (one[2] - other[2]));

/** The middle value of colours, each of L, a and b by itself; there is at least one. */
export function middleColour(colours: readonly Oklab[]): Oklab {
  const middle = (c: 0 | 1 | 2): number =>
    colours.map((v) => v[c]).sort((a, b) => a - b)[colours.length >> 1]!;
  return [middle(0), middle(1), middle(2)];
}
