import type { Raster } from './raster';

/** A picture half as wide and high: each pixel the mean of four by opacity; an odd last row or column is left out. */
export function halved({ width, height, data }: Raster): Raster {
  const w = Math.max(1, width >> 1);
  const h = Math.max(1, height >> 1);
  const out = new Uint8ClampedArray(w * h * 4);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let [r, g, b, o] = [0, 0, 0, 0];
      for (let k = 0; k < 4; k++) {
        const i = (Math.min(height - 1, 2 * y + (k >> 1)) * width + Math.min(width - 1, 2 * x + (k & 1))) * 4;
        const alpha = data[i + 3]!;
        r += alpha * data[i]!;
        g += alpha * data[i + 1]!;
        b += alpha * data[i + 2]!;
        o += alpha;
      }
      const to = (y * w + x) * 4;
      if (o > 0) {
        out[to] = r / o;
        out[to + 1] = g / o;
        out[to + 2] = b / o;
      }
      out[to + 3] = o / 4;
    }
  return { width: w, height: h, data: out };
}
