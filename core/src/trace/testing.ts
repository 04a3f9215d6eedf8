import { seeded } from '../seed';
import { flattenPath } from '../path/path-measure';
import type { Path } from '../path/path';
import type { Raster } from '../picture/raster';

/** Shapes as areas on a ground, their borders anti-aliased by 8 × 8 samples a pixel; grain in levels of 255. */
export function painted(
  width: number,
  height: number,
  shapes: readonly { readonly path: Path; readonly rgb: readonly [number, number, number] }[],
  ground: readonly [number, number, number],
  grain = 0,
): Raster {
  const data = new Uint8ClampedArray(width * height * 4);
  const sum = new Float64Array(width * height * 3);
  for (let i = 0; i < width * height; i++) sum.set(ground, 3 * i);
  const SUB = 8;
  for (const { path, rgb } of shapes) {
    const polygon = flattenPath(path, 0.01);
    for (let y = 0; y < height; y++) {
      const cover = new Float64Array(width);
      for (let v = 0; v < SUB; v++) {
        const at = y + (v + 0.5) / SUB;
        const crossings: number[] = [];
        polygon.forEach((a, i) => {
          const b = polygon[(i + 1) % polygon.length]!;
          if (a.y <= at !== b.y <= at) crossings.push(a.x + ((at - a.y) / (b.y - a.y)) * (b.x - a.x));
        });
        crossings.sort((a, b) => a - b);
        for (let k = 0; k + 1 < crossings.length; k += 2) {
          const [from, to] = [Math.max(0, crossings[k]!), Math.min(width, crossings[k + 1]!)];
          for (let x = Math.floor(from); x < to; x++)
            cover[x]! += (Math.min(x + 1, to) - Math.max(x, from)) / SUB;
        }
      }
      for (let x = 0; x < width; x++)
        for (let c = 0; c < 3; c++) {
          const i = 3 * (y * width + x) + c;
          sum[i] = sum[i]! * (1 - cover[x]!) + rgb[c]! * cover[x]!;
        }
    }
  }
  const random = seeded(97);
  for (let i = 0; i < width * height; i++) {
    const g = grain * (random() + random() + random() - 1.5);
    for (let c = 0; c < 3; c++) data[4 * i + c] = sum[3 * i + c]! + g;
    data[4 * i + 3] = 255;
  }
  return { width, height, data };
}
