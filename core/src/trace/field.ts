import type { Point } from '../geometry/vector';
import type { Raster } from '../picture/raster';
import { edgeField, lineField, type Field, type FieldKind } from './tensor';

/** Side of a tile in pixels, and how many are kept: about a hundred megabytes. */
const TILE = 128;
const KEPT = 512;
const MAKERS = { edge: edgeField, line: lineField } as const;

/** A picture's field made tile by tile where it is asked for, and kept; of very many the oldest go. */
export interface FieldTiles {
  readonly raster: Raster;
  readonly kind: FieldKind;
  readonly blur: number;
  readonly tiles: Map<number, Field>;
  /** The tile asked for last. */
  last: Field | null;
}

export const fieldTiles = (raster: Raster, kind: FieldKind, blur: number): FieldTiles => ({
  raster,
  kind,
  blur,
  tiles: new Map(),
  last: null,
});

const keyOf = (i: number, j: number): number => j * 65_536 + i;

/** The tile in column i, row j; made when it is not there. */
export function tileAt(field: FieldTiles, i: number, j: number): Field {
  const { raster, kind, blur, tiles } = field;
  const key = keyOf(i, j);
  let tile = tiles.get(key);
  if (!tile) {
    const box = {
      x0: i * TILE,
      y0: j * TILE,
      width: Math.min(TILE, raster.width - i * TILE),
      height: Math.min(TILE, raster.height - j * TILE),
    };
    if (tiles.size >= KEPT) tiles.delete(tiles.keys().next().value!);
    tiles.set(key, (tile = MAKERS[kind](raster, { blur, box })));
  }
  return tile;
}

/**
 * Makes one tile about a place that is not there yet, the nearest first.
 *
 * @param far how far from the place tiles are made, pixels
 * @returns false when there was none left to make
 */
export function warmTile(field: FieldTiles, p: Point, far: number): boolean {
  const { width, height } = field.raster;
  const first = (v: number): number => Math.max(0, Math.floor((v - far) / TILE));
  const last = (v: number, size: number): number => Math.floor(Math.min(size - 1, v + far) / TILE);
  let [least, ti, tj] = [far, -1, -1];
  for (let j = first(p.y); j <= last(p.y, height); j++)
    for (let i = first(p.x); i <= last(p.x, width); i++) {
      if (field.tiles.has(keyOf(i, j))) continue;
      const dx = Math.max(0, i * TILE - p.x, p.x - (i + 1) * TILE);
      const dy = Math.max(0, j * TILE - p.y, p.y - (j + 1) * TILE);
      const d = Math.hypot(dx, dy);
      if (d <= least) [least, ti, tj] = [d, i, j];
    }
  if (ti < 0) return false;
  tileAt(field, ti, tj);
  return true;
}

/** All tiles of a picture: their columns and rows. */
export const tilesOf = ({ width, height }: Raster): { i: number; j: number }[] => {
  const out: { i: number; j: number }[] = [];
  for (let j = 0; j * TILE < height; j++) for (let i = 0; i * TILE < width; i++) out.push({ i, j });
  return out;
};

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
export function formAt(field: FieldTiles, x: number, y: number, nx: number, ny: number): number {
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

/**
 * Where a hill's top lies beside its middle value, in steps, from values two steps (a pixel) either side: a parabola
 * through their logarithms, which is exact for the Gaussian that a blurred edge's slope is.
 */
export function hillTop(before: number, here: number, after: number): number {
  const a = Math.log(Math.max(before, 1e-9));
  const b = Math.log(Math.max(here, 1e-9));
  const c = Math.log(Math.max(after, 1e-9));
  const bend = a - 2 * b + c;
  return bend < 0 ? Math.max(-2, Math.min(2, (a - c) / bend)) : 0;
}
