import { CONES_OF_LINEAR, OKLAB_OF_ROOTS } from '../colour/oklab';
import { LINEAR_OF_BYTE } from '../colour/srgb';
import { normalQuantile, normalShare } from '../geometry/normal';
import type { Point } from '../geometry/vector';
import type { Raster } from '../picture/raster';

/**
 * Where a blurred border counts as being: half way from one colour to the other as they look (in OKLab), or half way in light,
 * where a lens, which blurs light, leaves the border's true place.
 */
export type Light = 'looks' | 'true';

/** A place on an edge, and the unit way across it. */
export interface AcrossEdge {
  readonly at: Point;
  readonly n: Point;
}

/** Places are read across an edge in such steps, so far to either side, pixels. */
const STEP_PX = 0.5;
const REACH_PX = 6;
/** Slopes are told through a Gaussian, pixels; along the edge rows calm each other over so many. */
const SLOPE_BLUR_PX = 0.7;
const CALM_PX = 1;
/** All of that grows with the edge's own blur, in shares of it: what is soft is told from farther about. */
const SOFT_FROM_PX = 1.1;
const REACH_IN_BLURS = 3.2;
const SLOPE_IN_BLURS = 1;
const CALM_IN_BLURS = 1;
/** Middles that scatter by more than this, told by places so far apart, are calmed over farther, so far at most; pixels. */
const FINE_PX = 0.06;
const APART_PX = 5;
const CALMEST_PX = 7;
/** Where grain hides most of a row's hills it is looked at as if it were so soft, pixels; nothing is softer than the other. */
const SOFT_WHEN_HIDDEN_PX = 2.5;
const SOFTEST_PX = 6;
const SEEN_ENOUGH = 0.6;
/** What reading between pixels adds to an edge's variance. */
const VARIANCE_OF_READING = 1 / 6;
/** A pixel's own extent: no picture is sharper. */
const VARIANCE_OF_PIXEL = 1 / 12;
/** Of the hill of slopes what is at least so high beside its top tells of its middle and width. */
const OF_HILL = 0.35;
/** The hill's foot: beyond, the colours are those of the areas. */
const FOOT_OF_HILL = 0.06;
/** What a caller takes for the edge lies no farther from where it is, pixels: beyond, another is meant. */
export const MOST_MOVED_PX = 3;

/**
 * Channels: light of red, green and blue; half the opacity, so that white on clear has an edge too; the values of red, green
 * and blue. The first four tell of light, the last four of values.
 */
const CHANNELS = 7;
const OPACITY = 0.5;
const OF_LIGHT = 0;
const OF_VALUES = 3;
/**
 * Borders sharper than this are mixed by their values, as screens draw them: half way in those is where they look to be; from
 * a pixel's blur on they count as a lens's.
 */
const DRAWN_PX = 0.6;
const LENSED_PX = 1;

export interface EdgePlaces {
  /** How far along its normal each place's edge lies; NaN where no single edge is seen. Pixels. */
  readonly off: Float64Array;
  /** Standard deviation of the picture's blur across the edge, pixels; NaN where `off` is. */
  readonly blur: Float64Array;
  /** How softly they were read, the picture's blur among it: standard deviation, pixels. */
  readonly soft: number;
}

/** Light of a picture between pixels, into `out` from `to` on; the border's pixels stand for what lies beyond. */
function lightBetween(
  { width, height, data }: Raster,
  x: number,
  y: number,
  out: Float64Array,
  to: number,
): void {
  const [u, v] = [x - 0.5, y - 0.5];
  const [i, j] = [Math.floor(u), Math.floor(v)];
  const [a, b] = [u - i, v - j];
  out.fill(0, to, to + CHANNELS);
  for (let k = 0; k < 4; k++) {
    const weight = (k & 1 ? a : 1 - a) * (k & 2 ? b : 1 - b);
    if (weight === 0) continue;
    const px = Math.min(width - 1, Math.max(0, i + (k & 1)));
    const py = Math.min(height - 1, Math.max(0, j + (k >> 1)));
    const p = 4 * (py * width + px);
    // Clear pixels show white paper.
    const o = data[p + 3]! / 255;
    for (let c = 0; c < 3; c++) {
      const byte = data[p + c]!;
      out[to + c]! += weight * (o * LINEAR_OF_BYTE[byte]! + 1 - o);
      out[to + OF_VALUES + 1 + c]! += weight * ((o * byte) / 255 + 1 - o);
    }
    out[to + OF_VALUES]! += weight * OPACITY * o;
  }
}

/**
 * Where edges lie, read from the picture's own pixels across them: the hill of slopes in light, whose middle and width are
 * those of the Gaussian nearest to it (its logarithm is a parabola), so that blur moves nothing. Soft edges are read from
 * farther about. Sources: Elder and Zucker, "Local scale control for edge detection and blur estimation" (1998), for blur
 * from the hill's width; that lenses blur light: common practice, no source.
 *
 * @param places within a pixel or two of an edge, in order along it
 * @param spacing pixels from one to the next
 * @param ring the last is followed by the first
 */
export function placesAcross(
  raster: Raster,
  places: readonly AcrossEdge[],
  light: Light,
  { spacing = 1, ring = false }: { readonly spacing?: number; readonly ring?: boolean } = {},
): EdgePlaces {
  const first = hillsAcross(raster, places, { soft: 0, calm: CALM_PX, spacing, ring });
  const seen = first.flatMap((hill) => (hill ? [hill.blur] : [])).sort((a, b) => a - b);
  const enough = seen.length >= SEEN_ENOUGH * places.length;
  const soft = Math.min(SOFTEST_PX, enough ? seen[seen.length >> 1]! : SOFT_WHEN_HIDDEN_PX);
  const grain = scatterOf(first, Math.max(1, Math.round(APART_PX / spacing)));
  const calm = Math.min(CALMEST_PX, Math.max(CALM_PX, CALM_IN_BLURS * soft) * (1 + (grain / FINE_PX) ** 2));
  const again = soft > SOFT_FROM_PX || grain > FINE_PX;
  const hills = again ? hillsAcross(raster, places, { soft: again && soft > SOFT_FROM_PX ? soft : 0, calm, spacing, ring }) : first; // prettier-ignore
  const off = Float64Array.from(hills, (hill) => hill?.middle ?? NaN);
  const blur = Float64Array.from(hills, (hill) => hill?.blur ?? NaN);
  const own = enough ? seen[seen.length >> 1]! : 0;
  const read = Math.hypot(own, Math.sqrt(VARIANCE_OF_READING), Math.max(SLOPE_BLUR_PX, SLOPE_IN_BLURS * (again ? soft : 0))); // prettier-ignore
  if (light === 'true') return { off, blur, soft: read };
  const even = evened(blur, ring);
  return {
    off: off.map((v, i) => {
      const hill = hills[i];
      if (!hill) return NaN;
      const lensed = v + even[i]! * normalQuantile(looksHalfWay(hill.before, hill.after));
      const share = Math.min(1, Math.max(0, (LENSED_PX - even[i]!) / (LENSED_PX - DRAWN_PX)));
      return share > 0 && !Number.isNaN(hill.drawn) ? share * hill.drawn + (1 - share) * lensed : lensed;
    }),
    blur,
    soft: read,
  };
}

/** How far hills' middles lie from where those that far before and after have them, mostly: what grain does to them, pixels. */
function scatterOf(hills: readonly (Hill | null)[], apart: number): number {
  const off: number[] = [];
  for (let i = apart; i + apart < hills.length; i++) {
    const [a, b, c] = [hills[i - apart], hills[i], hills[i + apart]];
    if (a && b && c) off.push(Math.abs(b.middle - (a.middle + c.middle) / 2));
  }
  off.sort((a, b) => a - b);
  return off[off.length >> 1] ?? 0;
}

/** The hill of slopes at each place, its row calmed by its neighbours' over so many pixels, for edges about so soft. */
function hillsAcross(
  raster: Raster,
  places: readonly AcrossEdge[],
  { soft, calm: over, spacing, ring }: { soft: number; calm: number; spacing: number; ring: boolean },
): (Hill | null)[] {
  const n = places.length;
  const half = Math.ceil(Math.max(REACH_PX, REACH_IN_BLURS * soft) / STEP_PX);
  const size = (2 * half + 1) * CHANNELS;
  const rows = new Float64Array(n * size);
  places.forEach(({ at, n: normal }, i) => {
    for (let k = -half; k <= half; k++)
      lightBetween(raster, at.x + k * STEP_PX * normal.x, at.y + k * STEP_PX * normal.y, rows, i * size + (k + half) * CHANNELS); // prettier-ignore
  });
  const along = kernelOf(over / spacing);
  const slopeBlur = Math.max(SLOPE_BLUR_PX, SLOPE_IN_BLURS * soft);
  const across = kernelOf(slopeBlur / STEP_PX);
  const calm = new Float64Array(size);
  return places.map((_, i) => {
    calm.fill(0);
    let sum = 0;
    along.forEach((weight, w) => {
      const j = ring ? (i + w - (along.length >> 1) + n * along.length) % n : i + w - (along.length >> 1);
      if (j < 0 || j >= n) return;
      sum += weight;
      for (let k = 0, from = j * size; k < size; k++) calm[k]! += weight * rows[from + k]!;
    });
    for (let k = 0; k < size; k++) calm[k]! /= sum;
    const hill = hillOf(calm, half, across, slopeBlur, OF_LIGHT);
    if (!hill || hill.blur > LENSED_PX) return hill;
    return { ...hill, drawn: hillOf(calm, half, across, slopeBlur, OF_VALUES)?.middle ?? NaN };
  });
}

/** A Gaussian's values at whole steps about its middle, to two deviations and a half. */
function kernelOf(sigma: number): Float64Array {
  const r = Math.ceil(2.5 * sigma);
  return Float64Array.from({ length: 2 * r + 1 }, (_, k) => Math.exp(-((k - r) ** 2) / (2 * sigma * sigma)));
}

interface Hill {
  /** From the row's middle, pixels. */
  readonly middle: number;
  /** The same told by values; where that is asked for and there is one. */
  readonly drawn: number;
  /** Standard deviation of the picture's blur. */
  readonly blur: number;
  /** Light on both sides. */
  readonly before: readonly number[];
  readonly after: readonly number[];
}

/** Half the way over which the colour's change about the middle is told, pixels, and in blurs of the slopes. */
const CHANGE_PX = 2;
/** A hill's middle lies so near to its highest step, or it is none. */
const BESIDE_TOP_PX = 1.5;

/** The hill of slopes about a row's middle in the four channels from `channel` on, told through a Gaussian. */
function hillOf(
  row: Float64Array,
  half: number,
  gaussian: Float64Array,
  slopeBlur: number,
  channel: number,
): Hill | null {
  const wide = 2 * half + 1;
  const at = (k: number, c: number): number =>
    row[Math.min(wide - 1, Math.max(0, k)) * CHANNELS + channel + c]!;
  const change = Math.round(Math.max(CHANGE_PX, slopeBlur) / STEP_PX);
  const way = [0, 1, 2, 3].map((c) => at(half + change, c) - at(half - change, c));
  const long = Math.hypot(...way);
  if (!(long > 0)) return null;
  const along = Float64Array.from({ length: wide }, (_, k) => way.reduce((sum, w, c) => sum + w * at(k, c), 0) / long); // prettier-ignore
  const r = gaussian.length >> 1;
  const slope = along.map((_, k) => {
    let sum = 0;
    for (let m = 1; m <= r; m++) sum += m * gaussian[r + m]! * (along[Math.min(wide - 1, k + m)]! - along[Math.max(0, k - m)]!); // prettier-ignore
    return sum;
  });
  let top = half;
  while (top > 1 && slope[top - 1]! > slope[top]!) top--;
  while (top < wide - 2 && slope[top + 1]! > slope[top]!) top++;
  const high = slope[top]!;
  if (!(high > 0) || top <= 1 || top >= wide - 2) return null;
  /** How far the hill goes down that way, until it is so low or goes up again. */
  const foot = (step: 1 | -1, least: number): number => {
    let k = top;
    while (k + step >= 0 && k + step < wide && slope[k + step]! > least * high && slope[k + step]! < slope[k]!) k += step; // prettier-ignore
    return k;
  };
  const found = gaussianThrough(slope, top, foot(-1, OF_HILL), foot(1, OF_HILL));
  if (!found || Math.abs(found.middle) > BESIDE_TOP_PX) return null;
  const variance = Math.max(VARIANCE_OF_PIXEL, found.variance - slopeBlur ** 2 - VARIANCE_OF_READING);
  // At its feet the hill has not quite ended: what is missing is that of the Gaussian beyond.
  const [low, up] = [foot(-1, FOOT_OF_HILL), foot(1, FOOT_OF_HILL)];
  const seen = Math.sqrt(variance + VARIANCE_OF_READING);
  const share = (k: number): number => normalShare(((k - top) * STEP_PX - found.middle) / seen);
  const [p, q] = [share(low), share(up)];
  const whole = way.map((_, c) => (at(up, c) - at(low, c)) / Math.max(0.5, q - p));
  return {
    middle: (top - half) * STEP_PX + found.middle,
    drawn: NaN,
    blur: Math.sqrt(variance),
    before: whole.map((w, c) => at(low, c) - p * w),
    after: whole.map((w, c) => at(up, c) + (1 - q) * w),
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

const [LONG, MIDDLE, SHORT] = CONES_OF_LINEAR;
/** OKLab of light, into `out`. */
function oklab(before: readonly number[], after: readonly number[], share: number): readonly number[] {
  const [r, g, b] = [0, 1, 2].map((c) => Math.max(0, before[c]! + share * (after[c]! - before[c]!))) as [number, number, number]; // prettier-ignore
  const cones = [LONG, MIDDLE, SHORT].map((row) => Math.cbrt(row[0] * r + row[1] * g + row[2] * b));
  return OKLAB_OF_ROOTS.map((row) => row[0] * cones[0]! + row[1] * cones[1]! + row[2] * cones[2]!);
}

/** Halvings that find it to a thousandth. */
const HALVINGS = 10;

/** The share of the second colour's light at which a mixture looks half way from the first to it. */
function looksHalfWay(before: readonly number[], after: readonly number[]): number {
  const [a, b] = [oklab(before, after, 0), oklab(before, after, 1)];
  const way = b.map((v, c) => v - a[c]!);
  const whole = way.reduce((s, v) => s + v * v, 0);
  if (!(whole > 1e-8)) return 0.5;
  let [low, high] = [0, 1];
  for (let k = 0; k < HALVINGS; k++) {
    const share = (low + high) / 2;
    const here = oklab(before, after, share);
    const along = here.reduce((s, v, c) => s + (v - a[c]!) * way[c]!, 0);
    if (along < whole / 2) low = share;
    else high = share;
  }
  return (low + high) / 2;
}

/** Places to either side over whose blurs each one's median is told: blur changes slowly along an edge. */
const EVENED = 12;

function evened(blurs: Float64Array, ring: boolean): Float64Array {
  const n = blurs.length;
  return blurs.map((_, i) => {
    const about: number[] = [];
    for (let k = i - EVENED; k <= i + EVENED; k += 2) {
      const v = blurs[ring ? (k + n * EVENED) % n : Math.min(n - 1, Math.max(0, k))]!;
      if (!Number.isNaN(v)) about.push(v);
    }
    about.sort((a, b) => a - b);
    return about[about.length >> 1] ?? NaN;
  });
}
