import { oklabOfBytes, oklabToRgb } from '../colour/oklab';
import type { Rgb } from '../colour/srgb';
import type { Raster } from './raster';

/** Middle value: for an even count the mean of the two middle ones. Sorts in place. */
function median(values: Float64Array): number {
  values.sort();
  const m = values.length >> 1;
  return values.length % 2 === 1 ? values[m]! : (values[m - 1]! + values[m]!) / 2;
}

/**
 * The middle colour of a disc of the picture: the median of each OKLab channel over the pixels whose centres lie
 * within it, clear pixels left out. A disc smaller than a pixel samples the pixel it lies in.
 *
 * @param x centre in picture pixels, 0 at the left edge of the first column
 * @param radius in picture pixels
 * @returns sRGB 0 to 1, or null when the disc holds no pixel that is not clear
 */
export function sampleDisc(raster: Raster, x: number, y: number, radius: number): Rgb | null {
  const x0 = Math.max(0, Math.floor(x - radius));
  const x1 = Math.min(raster.width - 1, Math.floor(x + radius));
  const y0 = Math.max(0, Math.floor(y - radius));
  const y1 = Math.min(raster.height - 1, Math.floor(y + radius));
  const small = radius < 0.5;
  const room = Math.max(0, x1 - x0 + 1) * Math.max(0, y1 - y0 + 1);
  const ls = new Float64Array(room);
  const as = new Float64Array(room);
  const bs = new Float64Array(room);
  let n = 0;
  for (let row = y0; row <= y1; row++) {
    for (let column = x0; column <= x1; column++) {
      const inside = small
        ? column === Math.floor(x) && row === Math.floor(y)
        : Math.hypot(column + 0.5 - x, row + 0.5 - y) <= radius;
      const i = (row * raster.width + column) * 4;
      if (!inside || raster.data[i + 3] === 0) continue;
      const [l, a, b] = oklabOfBytes(raster.data, i);
      ls[n] = l;
      as[n] = a;
      bs[n] = b;
      n++;
    }
  }
  if (n === 0) return null;
  const middle = (v: Float64Array): number => median(v.subarray(0, n));
  return oklabToRgb([middle(ls), middle(as), middle(bs)]);
}
