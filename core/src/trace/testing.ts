import { fromLinear, LINEAR_OF_BYTE } from '../colour/srgb';
import { seeded } from '../seed';
import { flattenPath } from '../path/path-measure';
import type { Path } from '../path/path';
import type { Raster } from '../picture/raster';
import { gaussian, blurPlane } from './blur-planes';

// Shared by tests and the bench only: pictures made of outlines that are known.

/** Colour in levels of 255. */
export type Levels = readonly [r: number, g: number, b: number];
/** An area of one colour, or of one that differs from place to place. */
export interface Area {
  readonly path: Path;
  readonly rgb: Levels | ((x: number, y: number) => Levels);
}

const SUBROWS = 8;

/** Share of each pixel that an outline covers, by eight exact rows a pixel, told pixel by pixel where there is any. */
function coverage(
  path: Path,
  width: number,
  height: number,
  tell: (pixel: number, share: number) => void,
): void {
  const polygon = flattenPath(path, 0.01);
  for (let y = 0; y < height; y++) {
    const cover = new Float64Array(width);
    for (let v = 0; v < SUBROWS; v++) {
      const at = y + (v + 0.5) / SUBROWS;
      const crossings: number[] = [];
      polygon.forEach((a, i) => {
        const b = polygon[(i + 1) % polygon.length]!;
        if (a.y <= at !== b.y <= at) crossings.push(a.x + ((at - a.y) / (b.y - a.y)) * (b.x - a.x));
      });
      crossings.sort((a, b) => a - b);
      for (let k = 0; k + 1 < crossings.length; k += 2) {
        const [from, to] = [Math.max(0, crossings[k]!), Math.min(width, crossings[k + 1]!)];
        for (let x = Math.floor(from); x < to; x++)
          cover[x]! += (Math.min(x + 1, to) - Math.max(x, from)) / SUBROWS;
      }
    }
    for (let x = 0; x < width; x++) if (cover[x]! > 0) tell(y * width + x, cover[x]!);
  }
}

/** Areas over each other, by their values; a plane a channel. */
function composed(
  width: number,
  height: number,
  areas: readonly Area[],
  ground: Area['rgb'],
  valueOf: (level: number) => number,
): Float32Array[] {
  const planes = [0, 1, 2].map(() => new Float32Array(width * height));
  const colourAt = (rgb: Area['rgb'], i: number): Levels =>
    typeof rgb === 'function' ? rgb(i % width, Math.floor(i / width)) : rgb;
  for (let i = 0; i < width * height; i++) {
    const rgb = colourAt(ground, i);
    planes.forEach((plane, c) => (plane[i] = valueOf(rgb[c]!)));
  }
  for (const { path, rgb } of areas)
    coverage(path, width, height, (i, share) => {
      const colour = colourAt(rgb, i);
      planes.forEach((plane, c) => (plane[i] = plane[i]! * (1 - share) + valueOf(colour[c]!) * share));
    });
  return planes;
}

/** Shapes as areas on a ground, mixed at their borders by sRGB values; grain in levels of 255. */
export function painted(
  width: number,
  height: number,
  shapes: readonly { readonly path: Path; readonly rgb: Levels }[],
  ground: Levels,
  grain = 0,
): Raster {
  const data = new Uint8ClampedArray(width * height * 4);
  const planes = composed(width, height, shapes, ground, (v) => v);
  const random = seeded(97);
  for (let i = 0; i < width * height; i++) {
    const g = grain * (random() + random() + random() - 1.5);
    for (let c = 0; c < 3; c++) data[4 * i + c] = planes[c]![i]! + g;
    data[4 * i + 3] = 255;
  }
  return { width, height, data };
}

export interface Camera {
  /** Standard deviation of the lens's blur, pixels; one for all, or for each place. */
  readonly blur?: number | ((x: number, y: number) => number);
  /** Standard deviation of the grain, levels of 255; the same in all channels, and apart in each. */
  readonly grain?: number;
  readonly colourGrain?: number;
  readonly seed?: number;
}

/** Blurs between which one that differs from place to place is mixed, pixels. */
const BLUR_STEP = 0.25;

/**
 * The same as a lens shows it: light is mixed and blurred, not the values that stand for it; grain comes after.
 */
export function photographed(
  width: number,
  height: number,
  areas: readonly Area[],
  ground: Area['rgb'],
  { blur = 0, grain = 0, colourGrain = 0, seed = 97 }: Camera = {},
): Raster {
  const light = composed(width, height, areas, ground, (v) => LINEAR_OF_BYTE[Math.round(v)]!);
  const lensed = light.map((plane) => lensBlurred(plane, width, height, blur));
  const data = new Uint8ClampedArray(width * height * 4);
  const random = seeded(seed);
  // The sum of three even ones has a variance of a quarter.
  const one = (): number => 2 * (random() + random() + random() - 1.5);
  for (let i = 0; i < width * height; i++) {
    const all = grain * one();
    for (let c = 0; c < 3; c++)
      data[4 * i + c] = 255 * fromLinear(lensed[c]![i]!) + all + (colourGrain > 0 ? colourGrain * one() : 0);
    data[4 * i + 3] = 255;
  }
  return { width, height, data };
}

function lensBlurred(
  plane: Float32Array,
  width: number,
  height: number,
  blur: NonNullable<Camera['blur']>,
): Float32Array {
  if (typeof blur === 'number') return blur > 0 ? softened(plane, width, height, blur) : plane;
  const made = new Map<number, Float32Array>();
  const by = (step: number): Float32Array => {
    let soft = made.get(step);
    if (!soft) made.set(step, (soft = step > 0 ? softened(plane, width, height, step * BLUR_STEP) : plane));
    return soft;
  };
  return Float32Array.from(plane, (_, i) => {
    const steps = blur(i % width, Math.floor(i / width)) / BLUR_STEP;
    const low = Math.floor(steps);
    return by(low)[i]! + (steps - low) * (by(low + 1)[i]! - by(low)[i]!);
  });
}

/** A plane through a Gaussian, its border's pixels standing for what lies beyond. */
function softened(plane: Float32Array, width: number, height: number, sigma: number): Float32Array {
  const { g, r } = gaussian(sigma);
  const [w, h] = [width + 2 * r, height + 2 * r];
  const wide = new Float32Array(w * h);
  const within = (v: number, size: number): number => Math.min(size - 1, Math.max(0, v - r));
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) wide[y * w + x] = plane[within(y, height) * width + within(x, width)]!;
  return blurPlane(wide, w, h, g, r);
}

/** A picture made larger by cubics between its pixels. Source: Keys, "Cubic convolution interpolation" (1981), from memory. */
export function enlarged({ width, height, data }: Raster, times: number): Raster {
  const [w, h] = [width * times, height * times];
  const out = new Uint8ClampedArray(w * h * 4);
  const weight = (d: number): number => {
    const a = Math.abs(d);
    return a < 1 ? 1.5 * a ** 3 - 2.5 * a ** 2 + 1 : a < 2 ? -0.5 * a ** 3 + 2.5 * a ** 2 - 4 * a + 2 : 0;
  };
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const [u, v] = [(x + 0.5) / times - 0.5, (y + 0.5) / times - 0.5];
      const [i, j] = [Math.floor(u), Math.floor(v)];
      const sum = [0, 0, 0, 0];
      for (let q = j - 1; q <= j + 2; q++)
        for (let p = i - 1; p <= i + 2; p++) {
          const at = 4 * (Math.min(height - 1, Math.max(0, q)) * width + Math.min(width - 1, Math.max(0, p)));
          const share = weight(u - p) * weight(v - q);
          for (let c = 0; c < 4; c++) sum[c]! += share * data[at + c]!;
        }
      out.set(sum, 4 * (y * w + x));
    }
  return { width: w, height: h, data: out };
}
