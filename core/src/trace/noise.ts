import type { Point } from '../geometry/vector';
import { tileAbout, type FieldTiles } from './field-tiles';
import { leastOfTile } from './tile-noise';

/**
 * How strong a field must be at a place for an edge (or stroke) to be there: well above the grain and texture of the ground
 * about it.
 *
 * @returns in the field's unit
 */
export const leastStrength = (field: FieldTiles, p: Point): number =>
  leastOfTile(tileAbout(field, p), field.kind);
