import { LINEAR_OF_BYTE } from '../colour/srgb';
import type { Raster } from './raster';

const FINE = 8192;
/** Cube roots of 0 to 1. */
const CUBE_ROOT = Float32Array.from({ length: FINE + 1 }, (_, i) => Math.cbrt(i / FINE));

/**
 * OKLab lightness of every pixel, 0 to 255, to half a step; clear pixels count as white paper.
 * Source: Ottosson's OKLab, as `oklabOfLinear`, with tabled cube roots.
 */
export function lightnessOf({ width, height, data }: Raster): Uint8Array {
  const out = new Uint8Array(width * height);
  for (let i = 0, k = 0; i < out.length; i++, k += 4) {
    const opacity = data[k + 3]!;
    if (opacity === 0) {
      out[i] = 255;
      continue;
    }
    const r = LINEAR_OF_BYTE[data[k]!]! * FINE;
    const g = LINEAR_OF_BYTE[data[k + 1]!]! * FINE;
    const b = LINEAR_OF_BYTE[data[k + 2]!]! * FINE;
    const l = CUBE_ROOT[(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b + 0.5) | 0]!;
    const m = CUBE_ROOT[(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b + 0.5) | 0]!;
    const s = CUBE_ROOT[(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b + 0.5) | 0]!;
    out[i] = (0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s) * 255 + 0.5;
  }
  return out;
}

/** A raster of greys from one value a pixel, opacity taken from the picture it was made of. */
export function greyRaster(values: Uint8Array, of: Raster): Raster {
  const data = new Uint8ClampedArray(values.length * 4);
  for (let i = 0, k = 0; i < values.length; i++, k += 4) {
    data[k] = data[k + 1] = data[k + 2] = values[i]!;
    data[k + 3] = of.data[k + 3]!;
  }
  return { width: of.width, height: of.height, data };
}

/** The grey byte whose OKLab lightness is the given one, 0 to 255. */
export const GREY_OF_LIGHTNESS: Uint8Array = (() => {
  const greys = lightnessOf({
    width: 256,
    height: 1,
    data: Uint8Array.from({ length: 1024 }, (_, i) => (i % 4 === 3 ? 255 : i >> 2)),
  });
  return Uint8Array.from({ length: 256 }, (_, wanted) => {
    let best = 0;
    for (let grey = 1; grey < 256; grey++)
      if (Math.abs(greys[grey]! - wanted) < Math.abs(greys[best]! - wanted)) best = grey;
    return best;
  });
})();

/** The picture without its colours, as light and dark as it is. */
export const greyPicture = (picture: Raster): Raster =>
  greyRaster(
    lightnessOf(picture).map((l) => GREY_OF_LIGHTNESS[l]!),
    picture,
  );
