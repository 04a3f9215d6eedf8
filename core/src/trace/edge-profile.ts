import { normalQuantile } from '../geometry/normal';
import type { Raster } from '../picture/raster';
import {
  calmedAlong,
  CHANNELS,
  gaussianSteps,
  OF_LIGHT,
  OF_VALUES,
  readRows,
  slopesAlong,
  STEP_PX,
  type AcrossEdge,
  type Rows,
} from './across-rows';
import { looksHalfWay } from './looks-half-way';
import { besideHill, hillIn, VARIANCE_OF_READING, type Hill } from './slope-hill';

/**
 * Where a blurred border counts as being: half way from one colour to the other as they look (in OKLab), or half way in light,
 * where a lens, which blurs light, leaves the border's true place.
 */
export type Light = 'looks' | 'true';

/** Places are read across so far to either side, pixels. */
const REACH_PX = 6;
/** Half the way over which the colour's change about the middle is told, pixels. */
const CHANGE_PX = 2;
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
const CALMEST_PX = 16;
/** How soft the edge is, and how grainy, is told first by places so far apart, pixels. */
const FIRST_APART_PX = 4;
/** One place in so many is asked what the colours on both sides are. */
const COLOURS_EVERY = 4;
/** Where grain hides most of a row's hills it is looked at as if it were so soft, pixels; nothing is softer than the other. */
const SOFT_WHEN_HIDDEN_PX = 2.5;
const SOFTEST_PX = 6;
const SEEN_ENOUGH = 0.6;
/** What a caller takes for the edge lies no farther from where it is, pixels: beyond, another is meant. */
export const MOST_MOVED_PX = 3;

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
  /** Over how much of the edge its rows calmed each other: standard deviation, pixels. */
  readonly calm: number;
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
  const first = Math.max(1, Math.round(FIRST_APART_PX / spacing));
  const rough = hillsAcross(raster, places, { soft: 0, calm: CALM_PX, spacing, ring, values: false, every: first, borders: [false, false] }); // prettier-ignore
  const seen = rough.hills.flatMap((hill) => (hill ? [hill.blur] : [])).sort((a, b) => a - b);
  const enough = first * seen.length >= SEEN_ENOUGH * places.length;
  const own = enough ? (seen[seen.length >> 1] ?? 0) : 0;
  const soft = Math.min(SOFTEST_PX, enough ? own : SOFT_WHEN_HIDDEN_PX);
  const grain = scatterOf(rough.hills, first * Math.max(1, Math.round(APART_PX / spacing / first)));
  const apart = bordersBeside(rough.beside);
  const ofSoft = soft > SOFT_FROM_PX ? Math.min(soft, Math.min(...apart) / BORDERS_APART_IN_BLURS) : 0;
  const ofGrain = grain > FINE_PX ? 1 + (grain / FINE_PX) ** 2 : 1;
  const calm = Math.min(CALMEST_PX, Math.max(CALM_PX, CALM_IN_BLURS * ofSoft) * ofGrain);
  const borders = [apart[0] < Infinity, apart[1] < Infinity] as const;
  const reading = { soft: ofSoft, calm, spacing, ring, values: light === 'looks', every: 1, borders };
  const found = hillsAcross(raster, places, reading, rough.rows);
  const { hills } = found;
  const off = Float64Array.from(hills, (hill) => hill?.middle ?? NaN);
  const blur = Float64Array.from(hills, (hill) => hill?.blur ?? NaN);
  const read = Math.hypot(
    own,
    Math.sqrt(VARIANCE_OF_READING),
    Math.max(SLOPE_BLUR_PX, SLOPE_IN_BLURS * ofSoft),
  );
  if (light === 'true') return { off, blur, soft: read, calm };
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
    calm,
  };
}

/** Hills beside an edge that lie this evenly far off along most of it, pixels, are another border; grain lies anywhere. */
const EVENLY_PX = 0.75;
/** Slopes are told through so little of what lies between two borders that both stay hills of their own. */
const BORDERS_APART_IN_BLURS = 4;

/** How far another border runs along before an edge, and after it, pixels; Infinity where none does. */
function bordersBeside(beside: readonly (readonly [number, number])[]): readonly [number, number] {
  const apart = ([0, 1] as const).map((side) => {
    const known = beside.map((b) => b[side]).filter((d) => !Number.isNaN(d)).sort((a, b) => a - b); // prettier-ignore
    const middle = known[known.length >> 1] ?? Infinity;
    const even = known.filter((d) => Math.abs(d - middle) <= EVENLY_PX).length;
    return even >= SEEN_ENOUGH * beside.length ? middle : Infinity;
  });
  return [apart[0]!, apart[1]!];
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
  /** At one place in so many only. */
  readonly every: number;
  /** Whether another border runs along before it, and after it. */
  readonly borders: readonly [boolean, boolean];
}

/** The hill of slopes at each place, its row calmed by its neighbours' over so many pixels, for edges about so soft. */
function hillsAcross(
  raster: Raster,
  places: readonly AcrossEdge[],
  { soft, calm: over, spacing, ring, values, every, borders }: Reading,
  before?: Rows,
): Hills {
  const n = places.length;
  const half = Math.ceil(Math.max(REACH_PX, REACH_IN_BLURS * soft) / STEP_PX);
  // Those read before where they go as far.
  const { rows } = before?.half === half ? before : readRows(raster, places, half);
  const wide = 2 * half + 1;
  const size = wide * CHANNELS;
  const slopeBlur = Math.max(SLOPE_BLUR_PX, SLOPE_IN_BLURS * soft);
  const change = Math.min(half, Math.round(Math.max(CHANGE_PX, slopeBlur) / STEP_PX));
  // Of many neighbours every second, third and so on is as good.
  const stride = Math.max(1, Math.floor(over / spacing / 3));
  const neighbours = { weights: gaussianSteps(over / spacing / stride), stride, ring };
  const bySlope = gaussianSteps(slopeBlur / STEP_PX);
  const slopesOf = (channel: number): Float64Array => {
    const changes = new Float64Array(4 * n);
    for (let j = 0; j < n; j++)
      for (let c = 0; c < 4; c++) {
        const middle = j * size + half * CHANNELS + channel + c;
        changes[4 * j + c] = rows[middle + change * CHANNELS]! - rows[middle - change * CHANNELS]!;
      }
    const ways = calmedAlong(changes, 4, neighbours, 1);
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
    return slopesAlong(calmedAlong(scalars, wide, neighbours, every), wide, bySlope, every);
  };
  const [inLight, inValues] = [slopesOf(OF_LIGHT), values ? slopesOf(OF_VALUES) : null];
  const hills: (Hill | null)[] = [];
  for (let i = 0; i < n; i++) {
    const hill = i % every === 0 ? hillIn(inLight, i * wide, half, slopeBlur, borders) : null;
    // Half way in values is asked for where it is drawn, not lensed.
    if (hill && inValues && hill.blur <= LENSED_PX)
      hill.drawn = hillIn(inValues, i * wide, half, slopeBlur, borders)?.centroid ?? NaN;
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
    get beside() {
      return hills.flatMap((hill, i) => (hill ? [besideHill(inLight, i * wide, half)] : []));
    },
    sidesOf(i) {
      const { before, after, low, up } = hills[i]!;
      // At its feet a hill has not quite ended: what is missing is the Gaussian's beyond.
      const [first, second] = [lightAt(i, low), lightAt(i, up)];
      const whole = first.map((v, c) => (second[c]! - v) / Math.max(0.5, after - before));
      return [whole.map((w, c) => first[c]! - before * w), whole.map((w, c) => second[c]! + (1 - after) * w)];
    },
  };
}

interface Hills {
  readonly rows: Rows;
  /** The hill of slopes across each place; null where none rises there. */
  readonly hills: readonly (Hill | null)[];
  /** How far the next hills lie from each, before it and after it, pixels; NaN where there is none. */
  readonly beside: readonly (readonly [number, number])[];
  /** Light on both sides of a place's hill. */
  readonly sidesOf: (place: number) => readonly [before: readonly number[], after: readonly number[]];
}

/** Neighbours to either side over which light beside an edge is told. */
const SIDES_OVER = 2;

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
