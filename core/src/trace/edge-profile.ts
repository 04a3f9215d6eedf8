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
/** At every so manieth place it is told first how soft the edge is, and how grainy. */
const FIRST_EVERY = 4;
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

/**
 * A picture read between its pixels along a row of places, from (x, y) on by steps of (dx, dy), into `out` from `to` on: the
 * channels of light and of values. The border's pixels stand for what lies beyond; clear pixels show white paper.
 */
function readRow(
  { width, height, data }: Raster,
  x: number,
  y: number,
  dx: number,
  dy: number,
  count: number,
  out: Float64Array,
  to: number,
): void {
  for (let k = 0, at = to; k < count; k++, at += CHANNELS) {
    const u = x + k * dx - 0.5;
    const v = y + k * dy - 0.5;
    const i = Math.floor(u);
    const j = Math.floor(v);
    const a = u - i;
    const b = v - j;
    const left = i < 0 ? 0 : i >= width ? width - 1 : i;
    const right = i < -1 ? 0 : i + 1 >= width ? width - 1 : i + 1;
    const top = (j < 0 ? 0 : j >= height ? height - 1 : j) * width;
    const bottom = (j < -1 ? 0 : j + 1 >= height ? height - 1 : j + 1) * width;
    const p = 4 * (top + left);
    const q = 4 * (top + right);
    const r = 4 * (bottom + left);
    const s = 4 * (bottom + right);
    const wp = (1 - a) * (1 - b);
    const wq = a * (1 - b);
    const wr = (1 - a) * b;
    const ws = a * b;
    const solid = data[p + 3]! & data[q + 3]! & data[r + 3]! & data[s + 3]!;
    if (solid === 255) {
      for (let c = 0; c < 3; c++) {
        const [bp, bq, br, bs] = [data[p + c]!, data[q + c]!, data[r + c]!, data[s + c]!];
        out[at + c] = wp * LINEAR_OF_BYTE[bp]! + wq * LINEAR_OF_BYTE[bq]! + wr * LINEAR_OF_BYTE[br]! + ws * LINEAR_OF_BYTE[bs]!; // prettier-ignore
        out[at + OF_VALUES + 1 + c] = (wp * bp + wq * bq + wr * br + ws * bs) / 255;
      }
      out[at + OF_VALUES] = OPACITY;
      continue;
    }
    const op = (wp * data[p + 3]!) / 255;
    const oq = (wq * data[q + 3]!) / 255;
    const or = (wr * data[r + 3]!) / 255;
    const os = (ws * data[s + 3]!) / 255;
    const opaque = op + oq + or + os;
    for (let c = 0; c < 3; c++) {
      const [bp, bq, br, bs] = [data[p + c]!, data[q + c]!, data[r + c]!, data[s + c]!];
      out[at + c] = op * LINEAR_OF_BYTE[bp]! + oq * LINEAR_OF_BYTE[bq]! + or * LINEAR_OF_BYTE[br]! + os * LINEAR_OF_BYTE[bs]! + 1 - opaque; // prettier-ignore
      out[at + OF_VALUES + 1 + c] = (op * bp + oq * bq + or * br + os * bs) / 255 + 1 - opaque;
    }
    out[at + OF_VALUES] = OPACITY * opaque;
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
  // First a few places tell how soft it is and how grainy, then all are read as that asks.
  const rough = hillsAcross(raster, places, { soft: 0, calm: CALM_PX, spacing, ring, values: false, every: FIRST_EVERY }); // prettier-ignore
  const seen = rough.hills.flatMap((hill) => (hill ? [hill.blur] : [])).sort((a, b) => a - b);
  const enough = FIRST_EVERY * seen.length >= SEEN_ENOUGH * places.length;
  const own = enough ? seen[seen.length >> 1]! : 0;
  const soft = Math.min(SOFTEST_PX, enough ? own : SOFT_WHEN_HIDDEN_PX);
  const grain = scatterOf(
    rough.hills,
    FIRST_EVERY * Math.max(1, Math.round(APART_PX / spacing / FIRST_EVERY)),
  );
  const calm = Math.min(CALMEST_PX, Math.max(CALM_PX, CALM_IN_BLURS * soft) * (1 + (grain / FINE_PX) ** 2));
  const isSoft = soft > SOFT_FROM_PX;
  const reading = { soft: isSoft ? soft : 0, calm: isSoft || grain > FINE_PX ? calm : CALM_PX, spacing, ring, values: light === 'looks', every: 1 }; // prettier-ignore
  const found = hillsAcross(raster, places, reading, rough.rows);
  const { hills } = found;
  const off = Float64Array.from(hills, (hill) => hill?.middle ?? NaN);
  const blur = Float64Array.from(hills, (hill) => hill?.blur ?? NaN);
  const read = Math.hypot(own, Math.sqrt(VARIANCE_OF_READING), Math.max(SLOPE_BLUR_PX, SLOPE_IN_BLURS * (isSoft ? soft : 0))); // prettier-ignore
  if (light === 'true') return { off, blur, soft: read };
  const even = evened(blur, ring);
  let quantile = 0;
  return {
    off: off.map((v, i) => {
      const hill = hills[i];
      if (!hill) return NaN;
      // Colours change slowly along an edge.
      if (i % COLOURS_EVERY === 0 || Number.isNaN(off[i - 1]!)) quantile = normalQuantile(looksHalfWay(...found.sidesOf(i))); // prettier-ignore
      const lensed = v + even[i]! * quantile;
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

interface Reading {
  readonly soft: number;
  readonly calm: number;
  readonly spacing: number;
  readonly ring: boolean;
  /** What is drawn is told by values too. */
  readonly values: boolean;
  /** At every so manieth place only. */
  readonly every: number;
}

/** The hill of slopes at each place, its row calmed by its neighbours' over so many pixels, for edges about so soft. */
function hillsAcross(
  raster: Raster,
  places: readonly AcrossEdge[],
  { soft, calm: over, spacing, ring, values, every }: Reading,
  before?: Rows,
): Hills {
  const n = places.length;
  const { rows, half } = readRows(raster, places, soft, before);
  const wide = 2 * half + 1;
  const size = wide * CHANNELS;
  const slopeBlur = Math.max(SLOPE_BLUR_PX, SLOPE_IN_BLURS * soft);
  const change = Math.min(half, Math.round(Math.max(CHANGE_PX, slopeBlur) / STEP_PX));
  // Of many neighbours every second, third and so on is as good.
  const stride = Math.max(1, Math.floor(over / spacing / 3));
  const neighbours = { weights: kernelOf(over / spacing / stride), stride, ring };
  const bySlope = kernelOf(slopeBlur / STEP_PX);
  const slopesOf = (channel: number): Float64Array => {
    const changes = new Float64Array(4 * n);
    for (let j = 0; j < n; j++)
      for (let c = 0; c < 4; c++) {
        const middle = j * size + half * CHANNELS + channel + c;
        changes[4 * j + c] = rows[middle + change * CHANNELS]! - rows[middle - change * CHANNELS]!;
      }
    const ways = calmed(changes, 4, neighbours, 1);
    const scalars = new Float64Array(n * wide);
    for (let j = 0; j < n; j++) {
      const w0 = ways[4 * j]!;
      const w1 = ways[4 * j + 1]!;
      const w2 = ways[4 * j + 2]!;
      const w3 = ways[4 * j + 3]!;
      const long = Math.sqrt(w0 * w0 + w1 * w1 + w2 * w2 + w3 * w3) || 1;
      for (let k = 0, p = j * size + channel, to = j * wide; k < wide; k++, p += CHANNELS)
        scalars[to + k] = (w0 * rows[p]! + w1 * rows[p + 1]! + w2 * rows[p + 2]! + w3 * rows[p + 3]!) / long;
    }
    return slopes(calmed(scalars, wide, neighbours, every), wide, bySlope, every);
  };
  const [inLight, inValues] = [slopesOf(OF_LIGHT), values ? slopesOf(OF_VALUES) : null];
  const hills: (Hill | null)[] = [];
  for (let i = 0; i < n; i++) {
    const hill = i % every === 0 ? hillIn(inLight, i * wide, half, slopeBlur) : null;
    // Half way in values is asked for where it is drawn, not lensed.
    if (hill && inValues && hill.blur <= LENSED_PX)
      hill.drawn = hillIn(inValues, i * wide, half, slopeBlur)?.middle ?? NaN;
    hills.push(hill);
  }
  /** Light at a step of a place's row, over its nearest neighbours. */
  const lightAt = (i: number, step: number): number[] =>
    [0, 1, 2].map((c) => {
      let [sum, count] = [0, 0];
      for (let m = Math.max(0, i - SIDES_OVER); m <= Math.min(n - 1, i + SIDES_OVER); m++, count++)
        sum += rows[m * size + step * CHANNELS + c]!;
      return sum / count;
    });
  return {
    hills,
    rows: { rows, half },
    sidesOf(i) {
      const { before, after, low, up } = hills[i]!;
      // At its feet a hill has not quite ended: what is missing is the Gaussian's beyond.
      const [first, second] = [lightAt(i, low), lightAt(i, up)];
      const whole = first.map((v, c) => (second[c]! - v) / Math.max(0.5, after - before));
      return [whole.map((w, c) => first[c]! - before * w), whole.map((w, c) => second[c]! + (1 - after) * w)];
    },
  };
}

interface Rows {
  /** The channels at each step across each place. */
  readonly rows: Float64Array;
  /** Steps to either side. */
  readonly half: number;
}

/** Rows across places, as far as edges so soft ask; those read before where they go as far. */
function readRows(raster: Raster, places: readonly AcrossEdge[], soft: number, before?: Rows): Rows {
  const half = Math.ceil(Math.max(REACH_PX, REACH_IN_BLURS * soft) / STEP_PX);
  if (before?.half === half) return before;
  const wide = 2 * half + 1;
  const rows = new Float64Array(places.length * wide * CHANNELS);
  places.forEach(({ at, n }, i) => {
    const [dx, dy] = [STEP_PX * n.x, STEP_PX * n.y];
    readRow(raster, at.x - half * dx, at.y - half * dy, dx, dy, wide, rows, i * wide * CHANNELS);
  });
  return { rows, half };
}

interface Hills {
  readonly rows: Rows;
  /** The hill of slopes across each place; null where none rises there. */
  readonly hills: readonly (Hill | null)[];
  /** Light on both sides of a place's hill. */
  readonly sidesOf: (place: number) => readonly [before: readonly number[], after: readonly number[]];
}

/** Neighbours to either side over which light beside an edge is told. */
const SIDES_OVER = 2;

/** Rows of so many values each, every one (or every so manieth, the others left empty) calmed by its neighbours. */
function calmed(
  rows: Float64Array,
  wide: number,
  {
    weights,
    stride,
    ring,
  }: { readonly weights: Float64Array; readonly stride: number; readonly ring: boolean },
  every: number,
): Float64Array {
  const n = rows.length / wide;
  const reach = weights.length >> 1;
  const out = new Float64Array(rows.length);
  for (let i = 0; i < n; i += every) {
    const to = i * wide;
    let sum = 0;
    for (let w = -reach; w <= reach; w++) {
      const at = i + w * stride;
      const j = ring ? ((at % n) + n) % n : at;
      if (j < 0 || j >= n) continue;
      const weight = weights[w + reach]!;
      sum += weight;
      for (let k = 0, from = j * wide; k < wide; k++) out[to + k]! += weight * rows[from + k]!;
    }
    for (let k = 0; k < wide; k++) out[to + k]! /= sum;
  }
  return out;
}

/** Slopes along each row of so many values (or every so manieth), told through a Gaussian. */
function slopes(rows: Float64Array, wide: number, gaussian: Float64Array, every: number): Float64Array {
  const out = new Float64Array(rows.length);
  const r = gaussian.length >> 1;
  for (let from = 0; from < rows.length; from += every * wide)
    for (let k = 0; k < wide; k++) {
      let sum = 0;
      for (let m = 1; m <= r; m++) {
        const before = k - m < 0 ? 0 : k - m;
        const after = k + m >= wide ? wide - 1 : k + m;
        sum += m * gaussian[r + m]! * (rows[from + after]! - rows[from + before]!);
      }
      out[from + k] = sum;
    }
  return out;
}

/** A Gaussian's values at whole steps about its middle, to two deviations and a half. */
function kernelOf(sigma: number): Float64Array {
  const r = Math.ceil(2.5 * sigma);
  return Float64Array.from({ length: 2 * r + 1 }, (_, k) => Math.exp(-((k - r) ** 2) / (2 * sigma * sigma)));
}

/** A hill of slopes along a row. */
interface Hill {
  /** From the row's middle, pixels. */
  readonly middle: number;
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

/** Half the way over which the colour's change about the middle is told, pixels. */
const CHANGE_PX = 2;
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
function hillIn(slope: Float64Array, from: number, half: number, slopeBlur: number): Hill | null {
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
  return {
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

const [LONG, MIDDLE, SHORT] = CONES_OF_LINEAR;
/** OKLab of light, into `out`. */
function oklab(before: readonly number[], after: readonly number[], share: number): readonly number[] {
  const [r, g, b] = [0, 1, 2].map((c) => Math.max(0, before[c]! + share * (after[c]! - before[c]!))) as [number, number, number]; // prettier-ignore
  const cones = [LONG, MIDDLE, SHORT].map((row) => Math.cbrt(row[0] * r + row[1] * g + row[2] * b));
  return OKLAB_OF_ROOTS.map((row) => row[0] * cones[0]! + row[1] * cones[1]! + row[2] * cones[2]!);
}

/** At every so manieth place it is told anew what the colours on both sides are. */
const COLOURS_EVERY = 4;
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
