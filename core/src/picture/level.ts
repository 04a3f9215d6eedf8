import { toDegrees, toRadians } from '../geometry/angle';
import { boxMean, scharr } from './edges';
import { lightnessOf } from './lightness';
import type { Raster } from './raster';

/** How far off level is looked for, and the width of the histogram's steps; degrees. */
const REACH_DEGREES = 20;
const HISTOGRAM_STEP_DEGREES = 0.25;

/** What would level the picture: an angle to turn it by, in degrees, clockwise positive, and how sure that is, 0 to 1. */
export interface LevelOffer {
  readonly degrees: number;
  readonly certainty: number;
}

/** An edge pixel: where it lies, how strong it is, and whether it runs more level than upright. */
interface EdgePixel {
  readonly x: number;
  readonly y: number;
  readonly weight: number;
  readonly flat: boolean;
}

/** Most edge pixels taken into account; a larger picture is sampled evenly. */
const MOST_EDGES = 30_000;

/**
 * How sharply edge pixels pile up when they are projected along a direction and its normal: the sum of squares of the
 * profiles. Source: Postl, "Detection of linear oblique structures and skew scan in digitized documents" (1986).
 */
function sharpness(edges: readonly EdgePixel[], degrees: number, size: number): number {
  const c = Math.cos(toRadians(degrees));
  const s = Math.sin(toRadians(degrees));
  const profiles = [new Float64Array(2 * size + 4), new Float64Array(2 * size + 4)] as const;
  for (const { x, y, weight, flat } of edges) {
    const at = (flat ? y * c - x * s : x * c + y * s) + size / 2;
    const low = Math.floor(at);
    const profile = profiles[flat ? 0 : 1];
    profile[low]! += weight * (low + 1 - at);
    profile[low + 1]! += weight * (at - low);
  }
  return profiles.reduce((sum, p) => sum + p.reduce((t, v) => t + v * v, 0), 0);
}

/**
 * The turn that brings the picture's strongest near-level and near-upright edges level and upright. A histogram of
 * edge directions, weighted by the gradient's square where it runs one way in its neighbourhood (structure tensor;
 * Bigün and Granlund, "Optimal orientation detection of linear symmetry", 1987), says about where; the direction in
 * which whole edges fall together (`sharpness`) says exactly: local directions waver with the pixels' steps.
 *
 * @returns null when the picture has no edges to speak of
 */
export function levelOffer(picture: Raster): LevelOffer | null {
  const { width, height } = picture;
  if (width < 16 || height < 16) return null;
  let calm: Uint8Array = lightnessOf(picture);
  for (let pass = 0; pass < 2; pass++) calm = boxMean(calm, width, height, 1);
  const { dx, dy } = scharr(calm, width, height);
  const bins = Math.round((2 * REACH_DEGREES) / HISTOGRAM_STEP_DEGREES) + 1;
  const histogram = new Float64Array(bins);
  const edges: EdgePixel[] = [];
  let all = 0;
  const R = 3;
  const every = Math.max(1, Math.round(Math.sqrt((width * height) / 500_000)));
  for (let y = R; y < height - R; y += every)
    for (let x = R; x < width - R; x += every) {
      let xx = 0;
      let xy = 0;
      let yy = 0;
      for (let j = -R; j <= R; j++)
        for (let i = -R; i <= R; i++) {
          const k = (y + j) * width + x + i;
          xx += dx[k]! * dx[k]!;
          xy += dx[k]! * dy[k]!;
          yy += dy[k]! * dy[k]!;
        }
      const strength = xx + yy;
      if (strength < 49 * 100 || (xx - yy) ** 2 + 4 * xy * xy < 0.64 * strength * strength) continue;
      all += strength;
      // Direction of the gradient, taken to the nearest axis.
      const direction = toDegrees(0.5 * Math.atan2(2 * xy, xx - yy));
      const degrees = direction - 90 * Math.round(direction / 90);
      const at = Math.round((degrees + REACH_DEGREES) / HISTOGRAM_STEP_DEGREES);
      if (at < 0 || at >= bins) continue;
      histogram[at]! += strength;
      const k = y * width + x;
      edges.push({ x, y, weight: Math.sqrt(dx[k]! * dx[k]! + dy[k]! * dy[k]!), flat: yy > xx });
    }
  if (edges.length === 0) return null;
  // Which six degrees hold most of it.
  const half = Math.round(3 / HISTOGRAM_STEP_DEGREES);
  const within = (at: number): number => {
    let sum = 0;
    for (let i = Math.max(0, at - half); i <= Math.min(bins - 1, at + half); i++) sum += histogram[i]!;
    return sum;
  };
  const sums = Array.from(histogram, (_, i) => within(i));
  const about = sums.indexOf(Math.max(...sums)) * HISTOGRAM_STEP_DEGREES - REACH_DEGREES;
  const thin = Math.ceil(edges.length / MOST_EDGES);
  const taken = thin > 1 ? edges.filter((_, i) => i % thin === 0) : edges;
  const size = width + height;
  let best = about;
  let fine = 0.2;
  for (let reach = 5; fine > 0.01; reach = 2 * fine, fine /= 4) {
    let most = -1;
    const from = best;
    for (let a = from - reach; a <= from + reach + 1e-9; a += fine) {
      const value = sharpness(taken, a, size);
      if (value > most) [most, best] = [value, a];
    }
  }
  const near = within(Math.round((best + REACH_DEGREES) / HISTOGRAM_STEP_DEGREES));
  return { degrees: best === 0 ? 0 : -best, certainty: Math.min(1, near / all) };
}
