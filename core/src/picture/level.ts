import { boxMean, scharr } from './edges';
import { lightnessOf } from './lightness';
import type { Raster } from './raster';

/** How far off level is looked for, and the width of the histogram's steps; degrees. */
const REACH = 20;
const STEP = 0.25;

/** What would level the picture: an angle to turn it by, in degrees, clockwise positive, and how sure that is, 0 to 1. */
export interface LevelOffer {
  readonly degrees: number;
  readonly certainty: number;
}

/**
 * The turn that brings the picture's strongest near-level and near-upright edges level and upright: the peak of a
 * histogram of edge directions, weighted by the gradient's square and by how much of it runs one way in the
 * neighbourhood (coherence of the structure tensor; Bigün and Granlund, "Optimal orientation detection of linear
 * symmetry", 1987), the peak refined by the parabola through it and its neighbours.
 *
 * @returns null when the picture has no edges to speak of
 */
export function levelOffer(picture: Raster): LevelOffer | null {
  const { width, height } = picture;
  if (width < 16 || height < 16) return null;
  // A blur of about two pixels: staircases of pixels would else pull directions towards the axes.
  let calm: Uint8Array = lightnessOf(picture);
  for (let pass = 0; pass < 3; pass++) calm = boxMean(calm, width, height, 2);
  const { dx, dy } = scharr(calm, width, height);
  const bins = Math.round((2 * REACH) / STEP) + 1;
  const histogram = new Float64Array(bins);
  let all = 0;
  const R = 3;
  for (let y = R; y < height - R; y += 2)
    for (let x = R; x < width - R; x += 2) {
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
      if (strength < 49 * 100) continue;
      const coherence = Math.hypot(xx - yy, 2 * xy) / strength;
      if (coherence < 0.8) continue;
      all += strength;
      // Direction of the gradient, taken to the nearest axis.
      let degrees = (0.5 * Math.atan2(2 * xy, xx - yy) * 180) / Math.PI;
      degrees -= 90 * Math.round(degrees / 90);
      const at = (degrees + REACH) / STEP;
      const low = Math.floor(at);
      if (low < 0 || low + 1 >= bins) continue;
      histogram[low]! += strength * (low + 1 - at);
      histogram[low + 1]! += strength * (at - low);
    }
  if (all === 0) return null;
  // Three times a box of three: neighbouring steps belong to one line.
  let smooth = histogram;
  for (let pass = 0; pass < 3; pass++)
    smooth = smooth.map((v, i) => ((smooth[i - 1] ?? 0) + v + (smooth[i + 1] ?? 0)) / 3);
  const peak = smooth.indexOf(Math.max(...smooth));
  const [a, b, c] = [smooth[peak - 1] ?? 0, smooth[peak]!, smooth[peak + 1] ?? 0];
  const shift = a - 2 * b + c < 0 ? (0.5 * (a - c)) / (a - 2 * b + c) : 0;
  const found = (peak + shift) * STEP - REACH;
  let near = 0;
  histogram.forEach((v, i) => {
    if (Math.abs(i - peak) <= 1 / STEP) near += v;
  });
  return { degrees: -found, certainty: Math.min(1, near / all) };
}
