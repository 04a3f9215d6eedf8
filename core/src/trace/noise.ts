import type { Point } from '../geometry/vector';
import type { Field, FieldKind } from './field';
import { strengthsOf } from './field-form';
import type { FieldTiles } from './field-tiles';
import { TILE, tileAt } from './field-tiles';

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

/**
 * How strong a field must be at a place for an edge (or stroke) to be there: well above the grain and texture of the ground
 * about it.
 *
 * @returns in the field's unit
 */
export function leastStrength(field: FieldTiles, { x, y }: Point): number {
  const { width, height } = field.raster;
  const column = Math.floor(Math.min(width - 1, Math.max(0, x)) / TILE);
  const row = Math.floor(Math.min(height - 1, Math.max(0, y)) / TILE);
  return Math.max(LEAST[field.kind], ABOVE_MEDIAN * medianStrength(tileAt(field, column, row), field.kind));
}
