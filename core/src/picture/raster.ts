import type { Rgb } from '../colour/srgb';

/** Pixels, row by row from the top left, four bytes each: red, green, blue (sRGB), opacity (not premultiplied). */
export interface Raster {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array | Uint8ClampedArray;
}

/** Colour of the pixel in column x, row y (whole numbers from 0), or null outside the picture or where it is clear. */
export function pixelAt(raster: Raster, x: number, y: number): Rgb | null {
  if (x < 0 || y < 0 || x >= raster.width || y >= raster.height) return null;
  const i = (y * raster.width + x) * 4;
  if (raster.data[i + 3] === 0) return null;
  return [raster.data[i]! / 255, raster.data[i + 1]! / 255, raster.data[i + 2]! / 255];
}
