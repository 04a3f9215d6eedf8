import type { Point } from '../geometry/vector';
import type { FieldTiles } from './field-tiles';
import { keyOf, TILE, tileAt } from './field-tiles';

/**
 * How much a field says of an edge (or stroke) at a pixel, at least 0, in the field's unit, and the unit way across it.
 * Whole numbers inside the picture. Of a line field the larger bend by size counts, whichever its sign.
 */
export function acrossAt(
  field: FieldTiles,
  x: number,
  y: number,
): { strength: number; nx: number; ny: number } {
  const i = (x / TILE) | 0;
  const j = (y / TILE) | 0;
  let tile = field.last;
  if (tile?.x0 !== i * TILE || tile.y0 !== j * TILE) field.last = tile = tileAt(field, i, j);
  const k = (y - tile.y0) * tile.width + x - tile.x0;
  const xx = tile.xx[k]!;
  const xy = tile.xy[k]!;
  const yy = tile.yy[k]!;
  const middle = (xx + yy) / 2;
  const half = (xx - yy) / 2;
  const off = Math.sqrt(half * half + xy * xy);
  const edge = field.kind === 'edge';
  const up = edge || middle >= 0;
  // Of the two ways of writing the eigenvector the one that does not cancel.
  const value = up ? middle + off : middle - off;
  let nx = up === half >= 0 ? value - yy : xy;
  let ny = up === half >= 0 ? xy : value - xx;
  const size = Math.sqrt(nx * nx + ny * ny);
  if (size > 0) {
    nx /= size;
    ny /= size;
  } else nx = 1;
  return { strength: edge ? Math.sqrt(value > 0 ? value : 0) : Math.abs(value), nx, ny };
}

/** Strength of the field at a pixel, whole numbers. */
export const strengthAt = (field: FieldTiles, x: number, y: number): number => acrossAt(field, x, y).strength;

/**
 * The field's quadratic form along (nx, ny) at pixel (x, y), whole numbers: squared slope of an edge field, bend of a line
 * field. The border's pixels stand for what lies beyond.
 */
function formAt(field: FieldTiles, x: number, y: number, nx: number, ny: number): number {
  const { width, height } = field.raster;
  const px = x < 0 ? 0 : x >= width ? width - 1 : x;
  const py = y < 0 ? 0 : y >= height ? height - 1 : y;
  const i = (px / TILE) | 0;
  const j = (py / TILE) | 0;
  const tile = field.tiles.get(keyOf(i, j)) ?? tileAt(field, i, j);
  const k = (py - tile.y0) * tile.width + (px - tile.x0);
  return nx * nx * tile.xx[k]! + 2 * nx * ny * tile.xy[k]! + ny * ny * tile.yy[k]!;
}

/** The same between pixels, by the four about (x, y); a pixel's middle lies at halves. */
export function formBetween(field: FieldTiles, x: number, y: number, nx: number, ny: number): number {
  const [u, v] = [x - 0.5, y - 0.5];
  const i = Math.floor(u);
  const j = Math.floor(v);
  const a = u - i;
  const b = v - j;
  const { width, height } = field.raster;
  if (i >= 0 && j >= 0 && i + 1 < width && j + 1 < height) {
    const ti = (i / TILE) | 0;
    const tj = (j / TILE) | 0;
    // Nearly always all four lie in one tile, and in the one asked for last.
    if ((((i + 1) / TILE) | 0) === ti && (((j + 1) / TILE) | 0) === tj) {
      const x0 = ti * TILE;
      const y0 = tj * TILE;
      let tile = field.last;
      if (tile?.x0 !== x0 || tile.y0 !== y0) field.last = tile = tileAt(field, ti, tj);
      const { width: w, xx, xy, yy } = tile;
      const k = (j - y0) * w + i - x0;
      const w00 = (1 - a) * (1 - b);
      const w10 = a * (1 - b);
      const w01 = (1 - a) * b;
      const w11 = a * b;
      return (
        nx * nx * (w00 * xx[k]! + w10 * xx[k + 1]! + w01 * xx[k + w]! + w11 * xx[k + w + 1]!) +
        2 * nx * ny * (w00 * xy[k]! + w10 * xy[k + 1]! + w01 * xy[k + w]! + w11 * xy[k + w + 1]!) +
        ny * ny * (w00 * yy[k]! + w10 * yy[k + 1]! + w01 * yy[k + w]! + w11 * yy[k + w + 1]!)
      );
    }
  }
  return (
    formAt(field, i, j, nx, ny) * (1 - a) * (1 - b) +
    formAt(field, i + 1, j, nx, ny) * a * (1 - b) +
    formAt(field, i, j + 1, nx, ny) * (1 - a) * b +
    formAt(field, i + 1, j + 1, nx, ny) * a * b
  );
}

/**
 * The field's quadratic form along (nx, ny) at places in a row that way: at (x, y) + (first + k step) (nx, ny) for `count`
 * whole k from 0, into `out` from `at` on. The same as `formBetween` at each, told in one go.
 */
export function formsAlong(
  field: FieldTiles,
  { x, y }: Point,
  { x: nx, y: ny }: Point,
  first: number,
  step: number,
  count: number,
  out: Float32Array | Float64Array,
  at = 0,
): void {
  const { width, height } = field.raster;
  const u0 = x - 0.5 + first * nx;
  const v0 = y - 0.5 + first * ny;
  const du = step * nx;
  const dv = step * ny;
  const u1 = u0 + (count - 1) * du;
  const v1 = v0 + (count - 1) * dv;
  const left = Math.min(u0, u1);
  const top = Math.min(v0, v1);
  const right = Math.max(u0, u1) + 1;
  const bottom = Math.max(v0, v1) + 1;
  const ti = (left / TILE) | 0;
  const tj = (top / TILE) | 0;
  const within = left >= 0 && top >= 0 && right < width && bottom < height;
  if (!within || ((right / TILE) | 0) !== ti || ((bottom / TILE) | 0) !== tj) {
    // Halved until each piece lies in one tile; what lies off the picture, or between tiles, one by one.
    const half = within ? count >> 1 : 0;
    if (half > 0) {
      formsAlong(field, { x, y }, { x: nx, y: ny }, first, step, half, out, at);
      formsAlong(field, { x, y }, { x: nx, y: ny }, first + half * step, step, count - half, out, at + half);
    } else
      for (let k = 0; k < count; k++)
        out[at + k] = formBetween(field, u0 + k * du + 0.5, v0 + k * dv + 0.5, nx, ny);
    return;
  }
  let tile = field.last;
  if (tile?.x0 !== ti * TILE || tile.y0 !== tj * TILE) field.last = tile = tileAt(field, ti, tj);
  const { width: w, xx, xy, yy, x0, y0 } = tile;
  const nxx = nx * nx;
  const nxy = 2 * nx * ny;
  const nyy = ny * ny;
  for (let k = 0; k < count; k++) {
    const u = u0 + k * du;
    const v = v0 + k * dv;
    const i = u | 0;
    const j = v | 0;
    const a = u - i;
    const b = v - j;
    const p = (j - y0) * w + i - x0;
    const q = p + w;
    const above = nxx * xx[p]! + nxy * xy[p]! + nyy * yy[p]!;
    const aboveNext = nxx * xx[p + 1]! + nxy * xy[p + 1]! + nyy * yy[p + 1]!;
    const below = nxx * xx[q]! + nxy * xy[q]! + nyy * yy[q]!;
    const belowNext = nxx * xx[q + 1]! + nxy * xy[q + 1]! + nyy * yy[q + 1]!;
    const upper = above + a * (aboveNext - above);
    out[at + k] = upper + b * (below + a * (belowNext - below) - upper);
  }
}
