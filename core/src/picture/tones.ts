import { GREY_OF_LIGHTNESS, greyRaster, lightnessOf } from './lightness';
import type { Raster } from './raster';

/** How often each lightness 0 to 255 occurs; clear pixels left out. */
export function lightnessHistogram(lightness: Uint8Array, of: Raster): number[] {
  const counts = new Array<number>(256).fill(0);
  for (let i = 0; i < lightness.length; i++) if (of.data[i * 4 + 3] !== 0) counts[lightness[i]!]!++;
  return counts;
}

/**
 * Boundaries that part a histogram into classes of least variance within (largest between).
 * Source: Otsu, "A threshold selection method from gray-level histograms", IEEE Transactions on Systems, Man, and
 * Cybernetics 9 (1979), its multi-level form, solved exactly by dynamic programming over the 256 levels.
 *
 * @param histogram 256 counts
 * @param count number of classes, 2 to 9
 * @returns count − 1 boundaries, rising: a level up to and including the first is of the first class, and so on
 */
export function otsuLevels(histogram: readonly number[], count: number): number[] {
  if (!(Number.isInteger(count) && count >= 2 && count <= 9))
    throw new RangeError(`Tone steps are 2 to 9; ${count} was asked for.`);
  const n = histogram.length;
  const weight = new Float64Array(n + 1);
  const moment = new Float64Array(n + 1);
  histogram.forEach((c, i) => {
    weight[i + 1] = weight[i]! + c;
    moment[i + 1] = moment[i]! + c * i;
  });
  /** Between-class share of levels from `a` up to but not including `b`. */
  const share = (a: number, b: number): number => {
    const w = weight[b]! - weight[a]!;
    const m = moment[b]! - moment[a]!;
    return w > 0 ? (m * m) / w : 0;
  };
  let best = Float64Array.from({ length: n + 1 }, (_, b) => share(0, b));
  const cuts: Int32Array[] = [];
  for (let k = 2; k <= count; k++) {
    const next = new Float64Array(n + 1).fill(-1);
    const cut = new Int32Array(n + 1);
    for (let b = k; b <= n; b++)
      for (let a = k - 1; a < b; a++) {
        const value = best[a]! + share(a, b);
        if (value > next[b]!) {
          next[b] = value;
          cut[b] = a;
        }
      }
    best = next;
    cuts.push(cut);
  }
  const bounds: number[] = [];
  for (let k = cuts.length - 1, b = n; k >= 0; k--) {
    b = cuts[k]![b]!;
    bounds.unshift(b - 1);
  }
  return bounds;
}

export interface ToneOptions {
  /** Number of values, 2 to 9. */
  readonly count: number;
  /** Boundaries between them, lightness 0 to 255, rising; by Otsu's method when null. */
  readonly bounds: readonly number[] | null;
  /** Pixels within which the commonest value wins, so that specks vanish; 0 for none. */
  readonly smooth: number;
}

export interface Tones {
  readonly raster: Raster;
  readonly bounds: readonly number[];
}

/** The picture in a few flat greys, each the mean lightness of what it stands for. */
export function toneSteps(picture: Raster, { count, bounds, smooth }: ToneOptions): Tones {
  const lightness = lightnessOf(picture);
  const histogram = lightnessHistogram(lightness, picture);
  const at =
    bounds && bounds.length === count - 1 ? [...bounds].sort((a, b) => a - b) : otsuLevels(histogram, count);
  const classOf = new Uint8Array(256);
  for (let v = 0, c = 0; v < 256; v++) {
    while (c < at.length && v > at[c]!) c++;
    classOf[v] = c;
  }
  const sum = new Float64Array(count);
  const weight = new Float64Array(count);
  histogram.forEach((n, v) => {
    sum[classOf[v]!]! += n * v;
    weight[classOf[v]!]! += n;
  });
  const greys = Uint8Array.from({ length: count }, (_, c) => {
    const low = c === 0 ? 0 : at[c - 1]!;
    const high = c === count - 1 ? 255 : at[c]!;
    return GREY_OF_LIGHTNESS[Math.round(weight[c]! > 0 ? sum[c]! / weight[c]! : (low + high) / 2)]!;
  });
  let classes = lightness.map((v) => classOf[v]!);
  if (smooth > 0) classes = commonest(classes, picture.width, picture.height, count, Math.round(smooth));
  for (let i = 0; i < classes.length; i++) classes[i] = greys[classes[i]!]!;
  return { raster: greyRaster(classes, picture), bounds: at };
}

/** The commonest class within a square of `radius` about each pixel, by running counts. */
function commonest(
  classes: Uint8Array,
  width: number,
  height: number,
  count: number,
  radius: number,
): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(classes.length);
  const columns = new Int32Array(width * count);
  const take = (row: number, by: number): void => {
    if (row < 0 || row >= height) return;
    for (let x = 0; x < width; x++) columns[x * count + classes[row * width + x]!]! += by;
  };
  for (let row = 0; row < radius; row++) take(row, 1);
  const window = new Int32Array(count);
  for (let y = 0; y < height; y++) {
    take(y + radius, 1);
    take(y - radius - 1, -1);
    window.fill(0);
    const add = (x: number, by: number): void => {
      if (x < 0 || x >= width) return;
      for (let c = 0; c < count; c++) window[c]! += by * columns[x * count + c]!;
    };
    for (let x = 0; x < radius; x++) add(x, 1);
    for (let x = 0; x < width; x++) {
      add(x + radius, 1);
      add(x - radius - 1, -1);
      // Where several are as common, the pixel's own stays.
      let best = classes[y * width + x]!;
      for (let c = 0; c < count; c++) if (window[c]! > window[best]!) best = c;
      out[y * width + x] = best;
    }
  }
  return out;
}
