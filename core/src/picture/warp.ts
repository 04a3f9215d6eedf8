import { fromLinear, LINEAR_OF_BYTE } from '../colour/srgb';
import { invertHomography, project, type Homography } from './homography';
import type { Raster } from './raster';

const BYTE_OF_LINEAR = Uint8Array.from({ length: 4096 }, (_, i) => Math.round(fromLinear(i / 4095) * 255));

/**
 * A picture seen through a projective map: bilinear sampling in linear light, opacity premultiplied, clear outside.
 *
 * @param map source pixels to target pixels, both measured from the top left corner of the first pixel
 * @param width of the target, pixels
 */
export function warpRaster(source: Raster, map: Homography, width: number, height: number): Raster {
  const back = invertHomography(map);
  const data = new Uint8ClampedArray(width * height * 4);
  const { data: from, width: w, height: h } = source;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = project(back, { x: x + 0.5, y: y + 0.5 });
      const px = p.x - 0.5;
      const py = p.y - 0.5;
      if (!(px > -1 && py > -1 && px < w && py < h)) continue;
      const x0 = Math.floor(px);
      const y0 = Math.floor(py);
      let r = 0;
      let g = 0;
      let b = 0;
      let a = 0;
      for (let j = 0; j < 2; j++) {
        for (let i = 0; i < 2; i++) {
          const sx = x0 + i;
          const sy = y0 + j;
          if (sx < 0 || sy < 0 || sx >= w || sy >= h) continue;
          const at = (sy * w + sx) * 4;
          const weight = (i ? px - x0 : 1 - px + x0) * (j ? py - y0 : 1 - py + y0) * (from[at + 3]! / 255);
          r += weight * LINEAR_OF_BYTE[from[at]!]!;
          g += weight * LINEAR_OF_BYTE[from[at + 1]!]!;
          b += weight * LINEAR_OF_BYTE[from[at + 2]!]!;
          a += weight;
        }
      }
      if (a === 0) continue;
      const at = (y * width + x) * 4;
      data[at] = BYTE_OF_LINEAR[Math.round((r / a) * 4095)]!;
      data[at + 1] = BYTE_OF_LINEAR[Math.round((g / a) * 4095)]!;
      data[at + 2] = BYTE_OF_LINEAR[Math.round((b / a) * 4095)]!;
      data[at + 3] = Math.round(a * 255);
    }
  }
  return { width, height, data };
}
