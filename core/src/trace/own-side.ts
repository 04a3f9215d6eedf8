import { tileAbout, type FieldTiles } from './field-tiles';
import { smoothRows } from './drift-track';
import type { Station } from './stations';
import type { Unlikeness } from './unlikeness';

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
/** Colours are read at places so far apart along the path, pixels: they change slowly there. */
const READ_APART_PX = 2;

/**
 * What it costs to take each place across a path for the shape's border, by the colours on both sides of it: nothing where the
 * inner side is as near to the shape's own colour as it is at any edge close by, and nearer than the outer side is; 1 where it
 * is another area's.
 * Source of the thought: what an edge looks like is learnt from what has been followed (Mortensen and Barrett 1995, 1998).
 *
 * @param rows strength of the field, as `profiles` gives it
 * @param thresholds what makes an edge, a value a station
 * @param unlikeAt how far the picture is from the shape's own colour
 * @returns `cost`, as many values as `rows`; `reversed`, 1 where the outer side is as the shape and the inner side another area's:
 *   such an edge bounds what lies outside of the shape, or a hole in it
 */
export function strangeness(
  stations: readonly Station[],
  rows: Float32Array,
  field: FieldTiles,
  half: number,
  step: number,
  thresholds: Float64Array,
  unlikeAt: Unlikeness,
  ring: boolean,
): { readonly cost: Float32Array; readonly reversed: Uint8Array } {
  const wide = 2 * half + 1;
  if (stations.length === 0) return { cost: new Float32Array(0), reversed: new Uint8Array(0) };
  const stride = Math.max(1, Math.round(READ_APART_PX / stations[0]!.weight));
  const read = stations.filter((_, i) => i % stride === 0);
  const asides = read.map(({ at }) =>
    Math.max(1, Math.round(Math.max(BESIDE_PX, BESIDE_IN_BLURS * tileAbout(field, at).seen) / step)),
  );
  const near = Math.round(NEAR_PX / step);
  const most = asides.reduce((a, b) => Math.max(a, b), 0);
  const wider = wide + 2 * most;
  const off = new Float32Array(read.length * wider);
  read.forEach(({ at, n }, i) => {
    for (let k = 0; k < wider; k++) {
      const o = (k - half - most) * step;
      off[i * wider + k] = unlikeAt(at.x + o * n.x, at.y + o * n.y);
    }
  });
  const even = smoothRows(off, read.length, wider, ring);
  const cost = new Float32Array(rows.length);
  const reversed = new Uint8Array(rows.length);
  const leasts: number[] = [];
  const edges: number[] = [];
  for (let i = 0; i < read.length; i++) {
    // The inner side lies where offsets are less.
    const inner = i * wider + most - asides[i]!;
    const outer = i * wider + most + asides[i]!;
    const from = i * stride * wide;
    edges.length = 0;
    let [least, greatest] = [Infinity, 0];
    for (let k = 0; k < wide; k++) {
      greatest = Math.max(greatest, even[inner + k]!, even[outer + k]!);
      if (rows[from + k]! < thresholds[i * stride]!) continue;
      edges.push(k);
      least = Math.min(least, even[inner + k]!);
    }
    if (edges.length === 0) continue;
    leasts.push(least);
    const blurs = MIXED * (greatest - least);
    for (let e = 0, first = 0; e < edges.length; e++) {
      const k = edges[e]!;
      while (edges[first]! < k - near) first++;
      const a = even[inner + k]!;
      const b = even[outer + k]!;
      let beside = a;
      for (let o = first; o < edges.length && edges[o]! <= k + near; o++)
        beside = Math.min(beside, even[inner + edges[o]!]!);
      cost[from + k] = Math.min(1, Math.max(0, (a - beside + Math.max(0, a - b) - blurs) / ANOTHER));
      reversed[from + k] = b - blurs < ANOTHER && a - b - blurs > ANOTHER ? 1 : 0;
    }
    // Those between are as the one before them.
    for (let s = 1; s < stride && i * stride + s < stations.length; s++)
      for (const list of [cost, reversed]) list.copyWithin(from + s * wide, from, from + wide);
  }
  leasts.sort((a, b) => a - b);
  // A drawing in colours of its own says nothing of the picture's.
  const foreign = (leasts[leasts.length >> 1] ?? 0) > FOREIGN;
  return foreign ? { cost: cost.fill(0), reversed: reversed.fill(0) } : { cost, reversed };
}
