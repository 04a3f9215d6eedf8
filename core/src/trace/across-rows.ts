import { LINEAR_OF_BYTE } from '../colour/srgb';
import type { Point } from '../geometry/vector';
import type { Raster } from '../picture/raster';

// A picture's pixels read in rows across an edge, a row for each place along it.

/** A place on an edge, and the unit way across it. */
export interface AcrossEdge {
  readonly at: Point;
  readonly n: Point;
}

/** Places are read across an edge in such steps, pixels. */
export const STEP_PX = 0.5;

/**
 * Channels: light of red, green and blue; half the opacity, so that white on clear has an edge too; the values of red, green
 * and blue. The first four tell of light, the last four of values.
 */
export const CHANNELS = 7;
const OPACITY = 0.5;
export const OF_LIGHT = 0;
export const OF_VALUES = 3;
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

export interface Rows {
  /** The channels at each step across each place. */
  readonly rows: Float64Array;
  /** Steps to either side. */
  readonly half: number;
}

/** Room for rows, used again: making it anew for each of a hundred readings a second has the machine stop to clear up. */
let room = new Float64Array(0);

/** Rows across places, to so many steps either side. They hold until the next are read. */
export function readRows(raster: Raster, places: readonly AcrossEdge[], half: number): Rows {
  const wide = 2 * half + 1;
  const size = places.length * wide * CHANNELS;
  if (room.length < size) room = new Float64Array(2 * size);
  const rows = room.subarray(0, size);
  places.forEach(({ at, n }, i) => {
    const [dx, dy] = [STEP_PX * n.x, STEP_PX * n.y];
    readRow(raster, at.x - half * dx, at.y - half * dy, dx, dy, wide, rows, i * wide * CHANNELS);
  });
  return { rows, half };
}

/** Rows of so many values each, every one (or every few, the others left empty) calmed by its neighbours. */
export function calmedAlong(
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

/** Slopes along each row of so many values (or every few), told through a Gaussian. */
export function slopesAlong(
  rows: Float64Array,
  wide: number,
  gaussian: Float64Array,
  every: number,
): Float64Array {
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
export function gaussianSteps(sigma: number): Float64Array {
  const r = Math.ceil(2.5 * sigma);
  return Float64Array.from({ length: 2 * r + 1 }, (_, k) => Math.exp(-((k - r) ** 2) / (2 * sigma * sigma)));
}
