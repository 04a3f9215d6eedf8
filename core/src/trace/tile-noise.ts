import { strengthsOf, type Field, type FieldKind } from './field';

/**
 * What stands out is at least so many times as strong as the ground's median. Grain's slopes are Rayleigh's: one in a
 * thousand is 3.2 medians, of wood and JPEG's blocks 4 to 5 (measured on made grounds).
 */
const ABOVE_MEDIAN = 3.5;
/**
 * The least there is to speak of on ground without any grain: a colour step of one ΔE, 0.01 in OKLab, over six pixels; of a
 * stroke, bent as much over a stroke's width.
 */
const LEAST: Readonly<Record<FieldKind, number>> = { edge: 0.0018, line: 0.001 };

/** Medians of tiles that have been told already. */
const medians = new WeakMap<Field, number>();

/** Every so many pixels of a tile are looked at, both ways. */
const EVERY = 3;

/** The median strength of a tile: of grain and texture, since edges are few. */
function medianStrength(tile: Field, kind: FieldKind): number {
  let median = medians.get(tile);
  if (median === undefined) {
    const all = strengthsOf(tile, kind, EVERY).sort();
    medians.set(tile, (median = all[all.length >> 1] ?? 0));
  }
  return median;
}

/** How strong a tile's field must be for an edge (or stroke) to be there: well above its own grain and texture. */
export const leastOfTile = (tile: Field, kind: FieldKind): number =>
  Math.max(LEAST[kind], ABOVE_MEDIAN * medianStrength(tile, kind));
