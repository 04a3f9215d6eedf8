import { oklabOfLinear, type Oklab } from '../colour/oklab';
import { LINEAR_OF_BYTE } from '../colour/srgb';
import { tileAbout, type FieldTiles } from './field-tiles';
import { smoothRows } from './drift-track';
import type { Station } from './stations';

/** Colours beside a place are those so far to either side of it, pixels, and in blurs of the picture: nearer they are mixed. */
const BESIDE_PX = 1.5;
const BESIDE_IN_BLURS = 1.6;
/** So much of the whole change across is blur's, beside an edge. */
const MIXED = 0.05;
/** Colours apart by so much more, OKLab, are another area's: eight ΔE. */
const ANOTHER = 0.08;
/** Where not even the nearest is within so much, OKLab, the colour is not the picture's. */
const FOREIGN = 0.16;
/** Edges no farther apart than this, pixels, are told from each other: what stands alone is taken whatever its colours. */
const NEAR_PX = 8;
/** Differences of a and b count so many times, as in edge fields. */
const COLOUR = 2;

/**
 * What it costs to take each place across a path for the shape's border, by the colours on both sides of it: nothing where the
 * inner side is as near to the shape's own colour as it is at any edge close by, and nearer than the outer side is; 1 where it
 * is another area's.
 * Source of the thought: what an edge looks like is learnt from what has been followed (Mortensen and Barrett 1995, 1998).
 *
 * @param rows strength of the field, as `profiles` gives it
 * @param thresholds what makes an edge, a value a station
 * @param own the shape's colour in the picture
 * @returns as many values as `rows`
 */
export function strangeness(
  stations: readonly Station[],
  rows: Float32Array,
  field: FieldTiles,
  half: number,
  step: number,
  thresholds: Float64Array,
  own: Oklab,
  ring: boolean,
): Float32Array {
  const wide = 2 * half + 1;
  const { raster } = field;
  const { width, height, data } = raster;
  const asides = stations.map(({ at }) =>
    Math.max(1, Math.round(Math.max(BESIDE_PX, BESIDE_IN_BLURS * tileAbout(field, at).seen) / step)),
  );
  const near = Math.round(NEAR_PX / step);
  const most = asides.reduce((a, b) => Math.max(a, b), 0);
  const wider = wide + 2 * most;
  const off = new Float32Array(stations.length * wider);
  stations.forEach(({ at, n }, i) => {
    for (let k = 0; k < wider; k++) {
      const o = (k - half - most) * step;
      const x = Math.max(0, Math.min(width - 1, Math.floor(at.x + o * n.x)));
      const y = Math.max(0, Math.min(height - 1, Math.floor(at.y + o * n.y)));
      const p = 4 * (y * width + x);
      // Clear pixels show white paper.
      const solid = data[p + 3]! / 255;
      const light = (c: number): number => solid * LINEAR_OF_BYTE[data[p + c]!]! + 1 - solid;
      const [l, a, b] = oklabOfLinear(light(0), light(1), light(2));
      off[i * wider + k] = Math.hypot(l - own[0], COLOUR * (a - own[1]), COLOUR * (b - own[2]));
    }
  });
  const even = smoothRows(off, stations.length, wider, ring);
  const out = new Float32Array(rows.length);
  const leasts: number[] = [];
  for (let i = 0; i < stations.length; i++) {
    // The inner side lies where offsets are less.
    const inner = i * wider + most - asides[i]!;
    const outer = i * wider + most + asides[i]!;
    const from = i * wide;
    const edges: number[] = [];
    let [least, greatest] = [Infinity, 0];
    for (let k = 0; k < wide; k++) {
      greatest = Math.max(greatest, even[inner + k]!, even[outer + k]!);
      if (rows[from + k]! < thresholds[i]!) continue;
      edges.push(k);
      least = Math.min(least, even[inner + k]!);
    }
    if (edges.length === 0) continue;
    leasts.push(least);
    const change = greatest - least;
    for (const k of edges) {
      const [a, b] = [even[inner + k]!, even[outer + k]!];
      let beside = a;
      for (const other of edges)
        if (Math.abs(other - k) <= near) beside = Math.min(beside, even[inner + other]!);
      const unlike = a - beside + Math.max(0, a - b) - MIXED * change;
      out[from + k] = Math.min(1, Math.max(0, unlike / ANOTHER));
    }
  }
  leasts.sort((a, b) => a - b);
  // A drawing in colours of its own says nothing of the picture's.
  return (leasts[leasts.length >> 1] ?? 0) > FOREIGN ? out.fill(0) : out;
}
