import type { Point } from '../geometry/vector';
import type { FieldTiles } from './field-tiles';
import { TILE, tileAt } from './field-tiles';
import { leastOfTile } from './tile-noise';

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
  return leastOfTile(tileAt(field, column, row), field.kind);
}
