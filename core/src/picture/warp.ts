import { fromLinear, LINEAR_OF_BYTE } from '../colour/srgb';
import { invertHomography, type Homography } from '../geometry/homography';
import type { Raster } from './raster';

const STEPS = 4096;
const BYTE_OF_LINEAR = Uint8Array.from({ length: STEPS }, (_, i) =>
  Math.round(fromLinear(i / (STEPS - 1)) * 255),
);

/** Catmull–Rom weights of the four neighbours at a fraction between the middle two. */
function weigh(t: number, out: Float64Array): void {
  const t2 = t * t;
  const t3 = t2 * t;
  out[0] = -0.5 * t + t2 - 0.5 * t3;
  out[1] = 1 - 2.5 * t2 + 1.5 * t3;
  out[2] = 0.5 * t + 2 * t2 - 1.5 * t3;
  out[3] = -0.5 * t2 + 0.5 * t3;
}

/**
 * A picture seen through a projective map: bicubic sampling (Keys, "Cubic convolution interpolation for digital image
 * processing", 1981; a = −½) in linear light, opacity premultiplied, clear outside. At the source's border the
 * outermost pixels go on by half a pixel, so that an edge on the border stays whole.
 *
 * @param map source pixels to target pixels, both measured from the top left corner of the first pixel
 * @param width of the target, pixels
 * @param rows the target's rows to make, from and to; all when left out. The raster then holds those rows only
 */
export function warpRaster(
  source: Raster,
  map: Homography,
  width: number,
  height: number,
  rows: readonly [from: number, to: number] = [0, height],
): Raster {
  const [ha, hb, hc, hd, he, hf, hg, hh, hi] = invertHomography(map);
  const [first, end] = rows;
  const data = new Uint8ClampedArray(width * (end - first) * 4);
  const { data: from, width: w, height: h } = source;
  const wx = new Float64Array(4);
  const wy = new Float64Array(4);
  for (let y = first; y < end; y++) {
    for (let x = 0; x < width; x++) {
      const u = x + 0.5;
      const v = y + 0.5;
      const k = hg * u + hh * v + hi;
      const sx = (ha * u + hb * v + hc) / k;
      const sy = (hd * u + he * v + hf) / k;
      if (!(sx >= 0 && sy >= 0 && sx <= w && sy <= h)) continue;
      const px = sx - 0.5;
      const py = sy - 0.5;
      const x0 = Math.floor(px);
      const y0 = Math.floor(py);
      weigh(px - x0, wx);
      weigh(py - y0, wy);
      let r = 0;
      let g = 0;
      let b = 0;
      let a = 0;
      for (let j = 0; j < 4; j++) {
        const row = Math.min(h - 1, Math.max(0, y0 + j - 1)) * w;
        for (let i = 0; i < 4; i++) {
          const at = (row + Math.min(w - 1, Math.max(0, x0 + i - 1))) * 4;
          const weight = wx[i]! * wy[j]! * from[at + 3]!;
          r += weight * LINEAR_OF_BYTE[from[at]!]!;
          g += weight * LINEAR_OF_BYTE[from[at + 1]!]!;
          b += weight * LINEAR_OF_BYTE[from[at + 2]!]!;
          a += weight;
        }
      }
      if (!(a > 0.5)) continue;
      const at = ((y - first) * width + x) * 4;
      data[at] = BYTE_OF_LINEAR[step(r / a)]!;
      data[at + 1] = BYTE_OF_LINEAR[step(g / a)]!;
      data[at + 2] = BYTE_OF_LINEAR[step(b / a)]!;
      data[at + 3] = a;
    }
  }
  return { width, height: end - first, data };
}

const step = (linear: number): number => Math.min(STEPS - 1, Math.max(0, Math.round(linear * (STEPS - 1))));
