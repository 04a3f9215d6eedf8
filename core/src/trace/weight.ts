import { add, scale } from '../geometry/vector';
import type { Path } from '../path/path';
import { CHANNELS, OF_LIGHT, OF_VALUES, readRows, STEP_PX as ACROSS_STEP_PX } from './across-rows';
import { fitBar } from './bar-fit';
import { formsAlong } from './field-form';
import type { FieldTiles } from './field-tiles';
import { chainsOf, type Station } from './stations';

/** A drawn stroke's width, and on how much of the path it could be read. */
export interface StrokeWeight {
  /** Picture pixels; null where it is too thin for the picture's blur to tell. */
  readonly width: number | null;
  /** Share of the path's length, 0 to 1. */
  readonly share: number;
}

const STEP_PX = 0.25;
/** Slopes below which there is no border, OKLab units per pixel. */
const LEAST_SLOPE = 0.012;
/** A border is at least this strong beside the strongest one on its side. */
const LEAST_SHARE_OF_STRONGEST = 0.5;
/** Fewer places than this say nothing. */
const FEWEST = 6;
/** Rows across are brought together over so many places along the stroke, a pixel apart, at most so many times. */
const TOGETHER = 24;
const MOST_TOGETHERS = 24;
/** So much of the ground beside the borders counts, pixels. */
const GROUND_PX = 6;
/**
 * Sharper than this, pixels, is no lens: it was drawn by a program, which mixes values at borders and not light (common
 * practice, no source).
 */
const SHARPER_THAN_LENSES = 0.65;
/**
 * A bar narrower than so many blurs looks as any other one of as much ink: its width is off by one in twenty from there on
 * (measured on made bars).
 */
const FEWEST_BLURS = 2.7;

/**
 * Half the width of a bar whose blurred borders peak at `p` from its middle: thin bars' borders push each other apart. From
 * where the derivative of a box through a Gaussian is steepest, (p − h) / (p + h) = exp(−2 p h / σ²).
 */
export function barHalfWidth(p: number, variance: number): number {
  let [low, high] = [0, p];
  const off = (h: number): number => (p - h) / (p + h) - Math.exp((-2 * p * h) / variance);
  // At h = 0 the two sides are equal for any p; the bar is the other root, nearer p.
  low = Math.min(p * 0.999, variance / (2 * p));
  if (!(off(low) > 0)) return low;
  for (let k = 0; k < 50; k++) {
    const h = (low + high) / 2;
    if (off(h) > 0) low = h;
    else high = h;
  }
  return (low + high) / 2;
}

/**
 * The weight of the picture's stroke under a path: along the normal to either side the first border that stands out says
 * where the stroke is; its width and the picture's blur are told together from the rows across it (`fitBar`), in light, as
 * lenses blur it; the median over the path.
 *
 * @param path in picture pixels, running in the stroke
 * @param field an edge field
 * @param reach how far to either side borders are looked for, picture pixels
 * @returns null where no stroke is found under most of the path
 */
export function measureWeight(path: Path, field: FieldTiles, reach: number): StrokeWeight | null {
  if (!(reach > 0)) throw new RangeError(`A weight needs a reach above 0; it was ${reach}.`);
  const stations = chainsOf(path, false, 1).chains.flat();
  const count = Math.ceil(reach / STEP_PX);
  /** Distance of the first border that way, or null. */
  const border = ({ at, n }: Station, way: 1 | -1): number | null => {
    const form = new Float64Array(count + 1);
    formsAlong(field, at, { x: way * n.x, y: way * n.y }, 0, STEP_PX, count + 1, form);
    const s = form.map((v) => Math.sqrt(Math.max(0, v)));
    const strongest = s.reduce((a, b) => Math.max(a, b), 0);
    const wide = Math.round(1 / STEP_PX);
    for (let k = 1; k + wide <= count; k++) {
      const here = s[k]!;
      if (
        here < Math.max(LEAST_SLOPE, LEAST_SHARE_OF_STRONGEST * strongest) ||
        here < s[k - 1]! ||
        here < s[k + 1]!
      )
        continue;
      const [a, b, c] = [s[Math.max(0, k - wide)]!, here, s[k + wide]!].map((v) => Math.log(Math.max(v, 1e-9))) as [number, number, number]; // prettier-ignore
      const bend = a - 2 * b + c;
      return k * STEP_PX + (k >= wide && bend < 0 ? Math.max(-0.5, Math.min(0.5, (a - c) / (2 * bend))) : 0);
    }
    return null;
  };
  const found: { at: number; width: number; middle: number; station: Station }[] = [];
  let long = 0;
  for (const station of stations) {
    long += station.weight;
    const [left, right] = [border(station, 1), border(station, -1)];
    if (left !== null && right !== null)
      found.push({
        at: long - station.weight / 2,
        width: left + right,
        middle: (left - right) / 2,
        station,
      });
  }
  if (found.length < Math.max(FEWEST, 0.4 * stations.length)) return null;
  const middleOf = (values: readonly number[]): number => values.toSorted((a, b) => a - b)[values.length >> 1]!; // prettier-ignore
  const rough = middleOf(found.map((f) => f.width));
  // Near its ends a stroke is round, or has corners: there its borders are told less surely.
  const inner = path.closed ? found : found.filter((f) => f.at > rough / 2 && f.at < long - rough / 2);
  const told = inner.length >= FEWEST ? inner : found;
  const half = Math.ceil((rough / 2 + GROUND_PX) / ACROSS_STEP_PX);
  const groups = Math.max(1, Math.min(MOST_TOGETHERS, Math.floor(told.length / TOGETHER)));
  const fits = Array.from({ length: groups }, (_, g) => {
    const from = Math.floor((g * told.length) / groups);
    const some = told.slice(from, Math.min(told.length, from + TOGETHER));
    const middle = middleOf(some.map((f) => f.middle));
    const places = some.map(({ station: { at, n } }) => ({ at: add(at, scale(n, middle)), n }));
    const { rows } = readRows(field.raster, places, half);
    const [light, values] = [OF_LIGHT, OF_VALUES + 1].map((channel) =>
      fitBar(together(rows, some.length, 2 * half + 1, channel), ACROSS_STEP_PX, rough),
    );
    return light && values ? [{ light, values }] : [];
  }).flat();
  if (fits.length === 0) return null;
  const isDrawn = middleOf(fits.map((f) => f.light.blur)) < SHARPER_THAN_LENSES;
  const bars = fits.map((f) => (isDrawn ? f.values : f.light));
  const width = middleOf(bars.map((b) => b.width));
  const isTold = width >= FEWEST_BLURS * middleOf(bars.map((b) => b.blur));
  return { width: isTold ? width : null, share: found.length / stations.length };
}

/** Rows brought together: the mean of three channels at each step. */
function together(rows: Float64Array, count: number, wide: number, channel: number): Float64Array {
  const out = new Float64Array(wide);
  for (let i = 0; i < count; i++)
    for (let k = 0, at = i * wide * CHANNELS + channel; k < wide; k++, at += CHANNELS)
      out[k]! += (rows[at]! + rows[at + 1]! + rows[at + 2]!) / (3 * count);
  return out;
}
