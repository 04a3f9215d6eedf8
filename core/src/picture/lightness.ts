import { CONES_OF_LINEAR, OKLAB_OF_ROOTS } from '../colour/oklab';
import { LINEAR_OF_BYTE } from '../colour/srgb';
import type { Raster } from './raster';

const FINE = 8192;
/** Cube roots of 0 to 1. */
const CUBE_ROOT = Float32Array.from({ length: FINE + 1 }, (_, i) => Math.cbrt(i / FINE));

/** What each byte of red, green and blue adds to the three cone responses, in steps of `CUBE_ROOT`. */
const CONE_SHARE_OF_BYTE = CONES_OF_LINEAR.map((cone) =>
  cone.map((k) => Float32Array.from(LINEAR_OF_BYTE, (v) => v * k * FINE)),
) as unknown as Float32Array[][];

const [[L_L, L_M, L_S]] = OKLAB_OF_ROOTS;

/**
 * OKLab lightness of every pixel, 0 to 255, to half a step; clear pixels count as white paper.
 * Source: Ottosson's OKLab, as `oklabOfLinear`, with tabled products and cube roots.
 */
export function lightnessOf({ width, height, data }: Raster): Uint8Array {
  const out = new Uint8Array(width * height);
  const [lr, lg, lb] = CONE_SHARE_OF_BYTE[0] as [Float32Array, Float32Array, Float32Array];
  const [mr, mg, mb] = CONE_SHARE_OF_BYTE[1] as [Float32Array, Float32Array, Float32Array];
  const [sr, sg, sb] = CONE_SHARE_OF_BYTE[2] as [Float32Array, Float32Array, Float32Array];
  for (let i = 0, k = 0; i < out.length; i++, k += 4) {
    if (data[k + 3] === 0) {
      out[i] = 255;
      continue;
    }
    const r = data[k]!;
    const g = data[k + 1]!;
    const b = data[k + 2]!;
    const l = CUBE_ROOT[(lr[r]! + lg[g]! + lb[b]! + 0.5) | 0]!;
    const m = CUBE_ROOT[(mr[r]! + mg[g]! + mb[b]! + 0.5) | 0]!;
    const s = CUBE_ROOT[(sr[r]! + sg[g]! + sb[b]! + 0.5) | 0]!;
    out[i] = (L_L * l + L_M * m + L_S * s) * 255 + 0.5;
  }
  return out;
}

/** A raster of greys from one value a pixel, as opaque as the picture it was made of; wholly when that is null. */
export function greyRaster(
  values: Uint8Array,
  of: Raster | null,
  size: Pick<Raster, 'width' | 'height'> = of!,
): Raster {
  const data = new Uint8ClampedArray(values.length * 4);
  for (let i = 0, k = 0; i < values.length; i++, k += 4) {
    data[k] = data[k + 1] = data[k + 2] = values[i]!;
    data[k + 3] = of ? of.data[k + 3]! : 255;
  }
  return { width: size.width, height: size.height, data };
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
export function greyPicture(picture: Raster): Raster {
  const values = lightnessOf(picture);
  for (let i = 0; i < values.length; i++) values[i] = GREY_OF_LIGHTNESS[values[i]!]!;
  return greyRaster(values, picture);
}
