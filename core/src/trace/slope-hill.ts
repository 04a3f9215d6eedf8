import { normalShare } from '../geometry/normal';
import { STEP_PX } from './across-rows';

/** What reading between pixels adds to an edge's variance. */
export const VARIANCE_OF_READING = 1 / 6;
/** A pixel's own extent: no picture is sharper. */
const VARIANCE_OF_PIXEL = 1 / 12;
/** Of the hill of slopes what is at least so high beside its top tells of its middle and width. */
const OF_HILL = 0.35;
/** What is at least so high tells of its mass: farther down there is more grain than hill. */
const OF_MASS = 0.15;
/** The hill's foot: beyond, the colours are those of the areas. */
const FOOT_OF_HILL = 0.06;

/** A hill of slopes along a row. */
export interface Hill {
  /** From the row's middle, pixels. */
  readonly middle: number;
  /** Its centroid down to its feet: sharper than a pixel, hills are no Gaussians, but their mass lies where the border does. */
  readonly centroid: number;
  /** The middle as told by values; NaN where that was not asked for or there is none. */
  drawn: number;
  /** Standard deviation of the picture's blur. */
  readonly blur: number;
  /** Its feet, steps of the row, and the share of the whole change that lies before each. */
  readonly low: number;
  readonly up: number;
  readonly before: number;
  readonly after: number;
}

/** A hill's middle lies so near to its highest step, or it is none. */
const BESIDE_TOP_PX = 1.5;

/** How far a hill goes down from its top that way, until it is so low or goes up again: a step of the row that begins at `from`. */
function footOf(
  slope: Float64Array,
  from: number,
  wide: number,
  top: number,
  step: 1 | -1,
  least: number,
): number {
  let k = top;
  for (let next = k + step; next >= 0 && next < wide; next += step) {
    const s = slope[from + next]!;
    if (!(s > least) || s >= slope[from + k]!) break;
    k = next;
  }
  return k;
}

/** The hill that rises about the middle of a row of slopes, told through a Gaussian, that begins at `from`. */
export function hillIn(slope: Float64Array, from: number, half: number, slopeBlur: number): Hill | null {
  const wide = 2 * half + 1;
  let top = half;
  while (top > 1 && slope[from + top - 1]! > slope[from + top]!) top--;
  while (top < wide - 2 && slope[from + top + 1]! > slope[from + top]!) top++;
  const high = slope[from + top]!;
  if (!(high > 0) || top <= 1 || top >= wide - 2) return null;
  const [first, last] = [footOf(slope, from, wide, top, -1, OF_HILL * high), footOf(slope, from, wide, top, 1, OF_HILL * high)]; // prettier-ignore
  const found = gaussianThrough(slope, from + top, from + first, from + last);
  if (!found || Math.abs(found.middle) > BESIDE_TOP_PX) return null;
  const variance = Math.max(VARIANCE_OF_PIXEL, found.variance - slopeBlur ** 2 - VARIANCE_OF_READING);
  const [low, up] = [footOf(slope, from, wide, top, -1, FOOT_OF_HILL * high), footOf(slope, from, wide, top, 1, FOOT_OF_HILL * high)]; // prettier-ignore
  const seen = Math.sqrt(variance + VARIANCE_OF_READING);
  let [sum, mass] = [0, 0];
  const [inner, outer] = [footOf(slope, from, wide, top, -1, OF_MASS * high), footOf(slope, from, wide, top, 1, OF_MASS * high)]; // prettier-ignore
  for (let k = inner; k <= outer; k++) {
    sum += (k - half) * slope[from + k]!;
    mass += slope[from + k]!;
  }
  return {
    centroid: (STEP_PX * sum) / mass,
    middle: (top - half) * STEP_PX + found.middle,
    drawn: NaN,
    blur: Math.sqrt(variance),
    low,
    up,
    before: normalShare(((low - top) * STEP_PX - found.middle) / seen),
    after: normalShare(((up - top) * STEP_PX - found.middle) / seen),
  };
}

/**
 * The Gaussian nearest to a hill's steps: a parabola through their logarithms, what is low being less sure by its square.
 *
 * @returns its middle from the top, and its variance, pixels; null where it has none
 */
function gaussianThrough(
  slope: Float64Array,
  top: number,
  from: number,
  to: number,
): { middle: number; variance: number } | null {
  let [w0, w1, w2, w3, w4, y0, y1, y2] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (let k = from; k <= to; k++) {
    const x = (k - top) * STEP_PX;
    const weight = slope[k]! * slope[k]!;
    const y = weight * Math.log(slope[k]! / slope[top]!);
    w0 += weight;
    w1 += weight * x;
    w2 += weight * x * x;
    w3 += weight * x ** 3;
    w4 += weight * x ** 4;
    y0 += y;
    y1 += y * x;
    y2 += y * x * x;
  }
  // Cramer's rule, without the determinant they share.
  const b = w0 * (y1 * w4 - w3 * y2) - y0 * (w1 * w4 - w2 * w3) + w2 * (w1 * y2 - y1 * w2);
  const c = w0 * (w2 * y2 - y1 * w3) - w1 * (w1 * y2 - y1 * w2) + y0 * (w1 * w3 - w2 * w2);
  const det = w0 * (w2 * w4 - w3 * w3) - w1 * (w1 * w4 - w2 * w3) + w2 * (w1 * w3 - w2 * w2);
  return c / det < 0 ? { middle: -b / (2 * c), variance: -det / (2 * c) } : null;
}
