import { hillTop } from '../geometry/hill-top';
import type { Point } from '../geometry/vector';
import { acrossAt, formsAlong } from './field-form';
import type { FieldTiles } from './field-tiles';

/** Strength by the field's form across an edge: slope of an edge field, bend of a line field, whichever sign it has. */
export const strengthOf = (field: FieldTiles, form: number): number =>
  field.kind === 'edge' ? Math.sqrt(Math.max(0, form)) : Math.abs(form);

/** Unit direction of the edge (or stroke) at a place; null outside the picture or where there is none at all. */
export function edgeWay(field: FieldTiles, { x, y }: Point): Point | null {
  const { width, height } = field.raster;
  if (!(x >= 0 && y >= 0 && x < width && y < height)) return null;
  const { strength, nx, ny } = acrossAt(field, Math.floor(x), Math.floor(y));
  return strength > 0 ? { x: -ny, y: nx } : null;
}

const ROW_STEP_PX = 0.5;
/** The top of a hill within reach is meant, where it is so high beside the slope of one that lies farther off. */
const TOP_IN_SLOPE = 0.6;

/** The row of strengths looked at last: this is asked for hundreds of times in a move of the pointer. */
let row = new Float64Array(64);

/** Where along the normal the edge is strongest, the nearer of two as good, and how strong; between the steps by a parabola. */
export function peakAcross(
  field: FieldTiles,
  p: Point,
  n: Point,
  reach: number,
): { off: number; strength: number } {
  const half = Math.ceil(reach / ROW_STEP_PX);
  // Two steps more to either side, for the top of the hill.
  const count = 2 * half + 5;
  if (row.length < count) row = new Float64Array(count);
  formsAlong(field, p, n, -(half + 2) * ROW_STEP_PX, ROW_STEP_PX, count, row);
  for (let i = 0; i < count; i++) row[i] = strengthOf(field, row[i]!);
  let best = half + 2;
  let most = -1;
  // The top of a hill, and the strongest place, which may lie on the slope of one beyond reach.
  let top = -1;
  let highest = 0;
  for (let i = 2; i <= 2 * half + 2; i++) {
    const here = row[i]!;
    const liked = here * (1 - (0.4 * Math.abs(i - half - 2)) / (half + 1));
    if (liked > most) {
      most = liked;
      best = i;
    }
    if (liked > highest && here >= row[i - 1]! && here >= row[i + 1]!) {
      highest = liked;
      top = i;
    }
  }
  if (highest > TOP_IN_SLOPE * most) best = top;
  // Up to the hill's top, which nearness may have kept it from.
  while (best > 2 && row[best - 1]! > row[best]!) best--;
  while (best < count - 3 && row[best + 1]! > row[best]!) best++;
  const off = hillTop(row[best - 2]!, row[best]!, row[best + 2]!);
  return { off: (best - half - 2 + off) * ROW_STEP_PX, strength: row[best]! };
}
