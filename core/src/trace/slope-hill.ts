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

/**
 * The hill that rises about the middle of a row of slopes, told through a Gaussian, that begins at `from`.
 *
 * @param borders whether another border runs along before it, and after it
 */
export function hillIn(
  slope: Float64Array,
  from: number,
  half: number,
  slopeBlur: number,
  borders: readonly [boolean, boolean] = [false, false],
): Hill | null {
  const wide = 2 * half + 1;
  const top = topFrom(slope, from, wide, half);
  if (!(slope[from + top]! > 0) || top <= 1 || top >= wide - 2) return null;
  const alone = withoutNeighbours(slope, from, wide, top, borders);
  return alone ? hillAbout(alone, 0, half, top, slopeBlur) : hillAbout(slope, from, half, top, slopeBlur);
}

/** The top of the hill on which a step of a row lies. */
function topFrom(slope: Float64Array, from: number, wide: number, start: number): number {
  let top = start;
  while (top > 1 && slope[from + top - 1]! > slope[from + top]!) top--;
  while (top < wide - 2 && slope[from + top + 1]! > slope[from + top]!) top++;
  return top;
}

/**
 * Heights beside this hill from which on another reaches into it, in its own: what stands there by chance, as grain does, and
 * what stands there all along the edge, another border.
 */
const REACHES_IN = { chance: 1.5, border: 0.3 } as const;
/** Two hills that reach into each other are told apart in so many rounds, each time without the other. */
const PARTED_IN = 3;

/** The top of the hill beside the one at `top` that way; null where none has its top in the row. */
function topBeside(
  slope: Float64Array,
  from: number,
  wide: number,
  top: number,
  step: 1 | -1,
): number | null {
  let next = footOf(slope, from, wide, top, step, 0);
  while (next + step >= 0 && next + step < wide && slope[from + next + step]! >= slope[from + next]!)
    next += step;
  return next > 1 && next < wide - 2 && slope[from + next]! >= REACHES_IN.border * slope[from + top]!
    ? next
    : null;
}

/**
 * A row without the hills beside the one at `top`: another border near by, whose blur reaches into this one's and would pull
 * it. Each hill is the Gaussian nearest to what the others leave of the row.
 *
 * @param borders whether another border runs along before it, and after it
 * @returns null where there is none beside it; else a row that lasts until the next call
 */
function withoutNeighbours(
  slope: Float64Array,
  from: number,
  wide: number,
  top: number,
  borders: readonly [boolean, boolean],
): Float64Array | null {
  const before = topBeside(slope, from, wide, top, -1);
  const after = topBeside(slope, from, wide, top, 1);
  const reaches = (next: number | null, isBorder: boolean): next is number =>
    next !== null &&
    slope[from + next]! >= slope[from + top]! * (isBorder ? REACHES_IN.border : REACHES_IN.chance);
  const tops = [top];
  if (reaches(before, borders[0])) tops.push(before);
  if (reaches(after, borders[1])) tops.push(after);
  if (tops.length === 1) return null;
  const left = rowOf(wide);
  const hills: (Gaussian | null)[] = [null, null, null];
  for (let round = 0; round < PARTED_IN; round++)
    // The neighbours first, so that the hill itself, the last, is looked at without them.
    for (let m = tops.length - 1; m >= 0; m--) {
      for (let k = 0; k < wide; k++) left[k] = slope[from + k]!;
      for (let o = 0; o < tops.length; o++) if (o !== m && hills[o]) takeAway(left, wide, hills[o]!);
      const at = topFrom(left, 0, wide, tops[m]!);
      const least = OF_HILL * left[at]!;
      if (!(least > 0)) return null;
      hills[m] = gaussianThrough(left, at, footOf(left, 0, wide, at, -1, least), footOf(left, 0, wide, at, 1, least)); // prettier-ignore
    }
  return left;
}

/** Room for a row, used again and again. */
let room = new Float64Array(128);
const rowOf = (wide: number): Float64Array => (room.length < wide ? (room = new Float64Array(wide)) : room);

/** A Gaussian so far down from its top is nothing. */
const NOTHING = 1e-9;
/**
 * Takes a Gaussian off a row. From one step to the next it falls by a factor that itself falls evenly: three exponentials in all,
 * since this is done a dozen times for each place of an edge.
 */
function takeAway(row: Float64Array, wide: number, { height, at, variance }: Gaussian): void {
  const sharp = STEP_PX ** 2 / (2 * variance);
  const near = Math.max(0, Math.min(wide - 1, Math.round(at)));
  const off = near - at;
  const fall = Math.exp(-2 * sharp);
  const least = NOTHING * height;
  const top = height * Math.exp(-sharp * off * off);
  for (let k = near, v = top, by = Math.exp(-sharp * (1 + 2 * off)); k < wide && v > least; k++) {
    row[k]! -= v;
    v *= by;
    by *= fall;
  }
  const by = Math.exp(-sharp * (1 - 2 * off));
  for (let k = near - 1, v = top * by, next = by * fall; k >= 0 && v > least; k--) {
    row[k]! -= v;
    v *= next;
    next *= fall;
  }
}

/** The hill of a row that begins at `from` about a step of it. */
function hillAbout(
  slope: Float64Array,
  from: number,
  half: number,
  start: number,
  slopeBlur: number,
): Hill | null {
  const wide = 2 * half + 1;
  const top = topFrom(slope, from, wide, start);
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

interface Gaussian {
  readonly height: number;
  /** Its middle from the step it was told about, pixels, and as a step of the row. */
  readonly middle: number;
  readonly at: number;
  readonly variance: number;
}

/**
 * The Gaussian nearest to a hill's steps: a parabola through their logarithms, what is low being less sure by its square.
 *
 * @returns null where it has none
 */
function gaussianThrough(slope: Float64Array, top: number, from: number, to: number): Gaussian | null {
  // Each by itself: a list would be made for every place of an edge.
  let w0 = 0;
  let w1 = 0;
  let w2 = 0;
  let w3 = 0;
  let w4 = 0;
  let y0 = 0;
  let y1 = 0;
  let y2 = 0;
  for (let k = from; k <= to; k++) {
    const x = (k - top) * STEP_PX;
    const weight = slope[k]! * slope[k]!;
    const y = weight * Math.log(slope[k]! / slope[top]!);
    w0 += weight;
    w1 += weight * x;
    w2 += weight * x * x;
    w3 += weight * x * x * x;
    w4 += weight * x * x * x * x;
    y0 += y;
    y1 += y * x;
    y2 += y * x * x;
  }
  // Cramer's rule, without the determinant they share.
  const b = w0 * (y1 * w4 - w3 * y2) - y0 * (w1 * w4 - w2 * w3) + w2 * (w1 * y2 - y1 * w2);
  const c = w0 * (w2 * y2 - y1 * w3) - w1 * (w1 * y2 - y1 * w2) + y0 * (w1 * w3 - w2 * w2);
  const det = w0 * (w2 * w4 - w3 * w3) - w1 * (w1 * w4 - w2 * w3) + w2 * (w1 * w3 - w2 * w2);
  if (!(c / det < 0)) return null;
  const a = y0 * (w2 * w4 - w3 * w3) - w1 * (y1 * w4 - w3 * y2) + w2 * (y1 * w3 - w2 * y2);
  const middle = -b / (2 * c);
  return {
    height: slope[top]! * Math.exp(a / det - (b * b) / (4 * c * det)),
    middle,
    at: top + middle / STEP_PX,
    variance: -det / (2 * c),
  };
}

/** How far the next hills' tops lie from a hill's, before it and after it, in a row that begins at `from`; NaN where there is none. Pixels. */
export function besideHill(slope: Float64Array, from: number, half: number): readonly [number, number] {
  const wide = 2 * half + 1;
  const top = topFrom(slope, from, wide, half);
  const apart = ([-1, 1] as const).map((step) => {
    const next = topBeside(slope, from, wide, top, step);
    return next === null ? NaN : STEP_PX * Math.abs(next - top);
  });
  return [apart[0]!, apart[1]!];
}
