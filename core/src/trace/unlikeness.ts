import type { Oklab } from '../colour/oklab';
import type { Raster } from '../picture/raster';
import { A_B_WEIGHT } from './colour-at';
import { pixelUnlike } from './oklab-planes';

/** How far the picture's colour is from a given one at a place, OKLab with a and b weighted. */
export type Unlikeness = (x: number, y: number) => number;

/** Sides of the squares in which unlikeness is kept, pixels. */
const SQUARE = 32;

/** That of a picture, each pixel's worked out when it is first asked for; what lies beside the picture is as its border. */
export function unlikeness(raster: Raster, colour: Oklab): Unlikeness {
  const squares = new Map<number, Float32Array>();
  let last: Float32Array = new Float32Array(0);
  let lastKey = NaN;
  return (x, y) => {
    const px = x < 0 ? 0 : x >= raster.width ? raster.width - 1 : x | 0;
    const py = y < 0 ? 0 : y >= raster.height ? raster.height - 1 : y | 0;
    const i = (px / SQUARE) | 0;
    const j = (py / SQUARE) | 0;
    const key = j * 65_536 + i;
    if (key !== lastKey) {
      let square = squares.get(key);
      if (!square) {
        square = new Float32Array(SQUARE * SQUARE).fill(NaN);
        squares.set(key, square);
      }
      last = square;
      lastKey = key;
    }
    const k = (py - j * SQUARE) * SQUARE + px - i * SQUARE;
    if (Number.isNaN(last[k]!)) last[k] = pixelUnlike(raster, py * raster.width + px, colour, A_B_WEIGHT);
    return last[k]!;
  };
}
