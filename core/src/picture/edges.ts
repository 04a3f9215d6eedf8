import { greyRaster, lightnessOf } from './lightness';
import type { Raster } from './raster';

/** Differences across three rows or columns, weighted `side`, `middle`, `side`; the border's pixels stand for what lies beyond. */
function differences(
  grey: Uint8Array,
  width: number,
  height: number,
  side: number,
  middle: number,
): { dx: Float32Array; dy: Float32Array } {
  const dx = new Float32Array(grey.length);
  const dy = new Float32Array(grey.length);
  for (let y = 0; y < height; y++) {
    const up = Math.max(0, y - 1) * width;
    const here = y * width;
    const down = Math.min(height - 1, y + 1) * width;
    for (let x = 0; x < width; x++) {
      const l = x > 0 ? x - 1 : 0;
      const r = x < width - 1 ? x + 1 : x;
      const a = grey[up + l]!;
      const c = grey[up + r]!;
      const g = grey[down + l]!;
      const i = grey[down + r]!;
      dx[here + x] = side * (c + i - a - g) + middle * (grey[here + r]! - grey[here + l]!);
      dy[here + x] = side * (g + i - a - c) + middle * (grey[down + x]! - grey[up + x]!);
    }
  }
  return { dx, dy };
}

/**
 * Sobel's gradient: weights 1, 2, 1, not divided by their sum, as is usual.
 *
 * @returns dx and dy of every pixel
 */
export const sobel = (grey: Uint8Array, width: number, height: number) =>
  differences(grey, width, height, 1, 2);

/**
 * Scharr's gradient, as large as Sobel's but true to direction: weights 3, 10, 3 of 16.
 * Source: Scharr, "Optimale Operatoren in der Digitalen Bildverarbeitung" (2000).
 */
export const scharr = (grey: Uint8Array, width: number, height: number) =>
  differences(grey, width, height, 0.75, 2.5);

/** A box mean of `radius` by running sums, across and then down, rounded; at the border of what lies within. */
export function boxMean(grey: Uint8Array, width: number, height: number, radius: number): Uint8Array {
  const across = new Uint16Array(grey.length);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let sum = 0;
    for (let x = 0; x < Math.min(radius, width); x++) sum += grey[row + x]!;
    for (let x = 0; x < width; x++) {
      if (x + radius < width) sum += grey[row + x + radius]!;
      if (x > radius) sum -= grey[row + x - radius - 1]!;
      const count = Math.min(width - 1, x + radius) - Math.max(0, x - radius) + 1;
      // A sixteenth of a step is kept between the passes.
      across[row + x] = (16 * sum) / count;
    }
  }
  const out = new Uint8Array(grey.length);
  const sums = new Float64Array(width);
  const take = (y: number, by: number): void => {
    const row = y * width;
    for (let x = 0; x < width; x++) sums[x]! += by * across[row + x]!;
  };
  for (let y = 0; y < Math.min(radius, height); y++) take(y, 1);
  for (let y = 0; y < height; y++) {
    if (y + radius < height) take(y + radius, 1);
    if (y > radius) take(y - radius - 1, -1);
    const share = 1 / (16 * (Math.min(height - 1, y + radius) - Math.max(0, y - radius) + 1));
    for (let x = 0; x < width; x++) out[y * width + x] = sums[x]! * share + 0.5;
  }
  return out;
}

/** Sums of all values above and left of each corner. Source: Crow, "Summed-area tables", SIGGRAPH 1984. */
function integral(grey: Uint8Array, width: number, height: number): Float64Array {
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += grey[y * width + x]!;
      sums[(y + 1) * (width + 1) + x + 1] = sums[y * (width + 1) + x + 1]! + row;
    }
  }
  return sums;
}

function windowMean(
  sums: Float64Array,
  width: number,
  height: number,
  x: number,
  y: number,
  radius: number,
): number {
  const x0 = Math.max(0, x - radius);
  const y0 = Math.max(0, y - radius);
  const x1 = Math.min(width, x + radius + 1);
  const y1 = Math.min(height, y + radius + 1);
  const w = width + 1;
  const sum = sums[y1 * w + x1]! - sums[y0 * w + x1]! - sums[y1 * w + x0]! + sums[y0 * w + x0]!;
  return sum / ((x1 - x0) * (y1 - y0));
}

/**
 * The picture as its edges only: dark where lightness or opacity changes, paper elsewhere. Grain is smoothed away
 * first. The border of clear pixels is an edge like any other, so the result is opaque.
 */
export function edgePicture(picture: Raster): Raster {
  const { width, height } = picture;
  const { dx, dy } = sobel(boxMean(lightnessOf(picture), width, height, 1), width, height);
  const out = new Uint8Array(width * height);
  // A step of 40 in lightness is full ink; what is under 3 is grain.
  const opacity = new Uint8Array(width * height);
  for (let i = 0; i < opacity.length; i++) opacity[i] = picture.data[i * 4 + 3]!;
  const clear = opacity.some((v) => v < 255) ? sobel(opacity, width, height) : null;
  for (let i = 0; i < out.length; i++) {
    const border = clear ? Math.hypot(clear.dx[i]!, clear.dy[i]!) / 4 : 0;
    // Lightness says nothing where there is none: across the border only opacity counts.
    const step = border > 0 ? border : opacity[i] === 0 ? 0 : Math.sqrt(dx[i]! * dx[i]! + dy[i]! * dy[i]!);
    out[i] = 255 - Math.min(230, Math.max(0, step - 12) * 1.6);
  }
  return greyRaster(out, null, picture);
}

/**
 * A sketch as lines on clean paper: a pixel is ink as far as it is darker than the paper about it.
 * Source: Bradley and Roth, "Adaptive thresholding using the integral image", Journal of Graphics Tools 12 (2007),
 * with a soft edge in place of the hard threshold so that lines keep their smooth sides.
 *
 * @param strength 0 to 100: how faint a line may be and still be ink
 */
export function lineDrawing(picture: Raster, strength = 50): Raster {
  const { width, height } = picture;
  const grey = lightnessOf(picture);
  const sums = integral(grey, width, height);
  const radius = Math.max(4, Math.round(Math.max(width, height) / 32));
  const darker = 0.24 - 0.002 * strength;
  const out = new Uint8Array(grey.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const mean = windowMean(sums, width, height, x, y, radius);
      const below = (mean - grey[y * width + x]!) / Math.max(mean, 1);
      out[y * width + x] = 255 - 255 * Math.min(1, Math.max(0, (below - darker * 0.5) / darker));
    }
  return greyRaster(out, picture);
}
