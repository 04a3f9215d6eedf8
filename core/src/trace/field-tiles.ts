import type { Point } from '../geometry/vector';
import type { Raster } from '../picture/raster';
import { BINOMIAL_BLUR } from './blur-planes';
import { edgeField } from './edge-field';
import type { Field, FieldKind } from './field';
import { lineField } from './line-field';
import { blurForTile } from './tile-scale';

/** Side of a tile in pixels, and how many are kept: about a hundred megabytes. */
export const TILE = 128;
const KEPT = 512;
const MAKERS = { edge: edgeField, line: lineField } as const;

/** A picture's field made tile by tile where it is asked for, and kept; of very many the oldest go. */
export interface FieldTiles {
  readonly raster: Raster;
  readonly kind: FieldKind;
  readonly blur: number;
  /** Tiles whose edges are soft are made with a blur that fits them. */
  readonly adapts: boolean;
  readonly tiles: Map<number, Field>;
  /** The tile asked for last. */
  last: Field | null;
}

/** All tiles with one blur, pixels. */
export const fieldTiles = (raster: Raster, kind: FieldKind, blur: number): FieldTiles => ({
  raster,
  kind,
  blur,
  adapts: false,
  tiles: new Map(),
  last: null,
});

/**
 * Blur with which edges are looked for, about a pixel and a half: enough to calm grain and JPEG blocks, little enough to keep
 * two edges apart.
 */
export const EDGE_BLUR = BINOMIAL_BLUR;

/** The least blur with which edges are looked for, pixels: where two run so close by that more makes one hill of them. */
export const FINEST_BLUR = 0.8;

/** The field by which edges are followed, with more blur where the picture is soft. */
export const edgeTiles = (raster: Raster): FieldTiles => ({
  ...fieldTiles(raster, 'edge', EDGE_BLUR),
  adapts: true,
});

export const keyOf = (i: number, j: number): number => j * 65_536 + i;

/** The tile in column i, row j; made when it is not there. */
export function tileAt(field: FieldTiles, i: number, j: number): Field {
  const { raster, kind, blur, adapts, tiles } = field;
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
    tile = MAKERS[kind](raster, { blur, box });
    const { fit, seen, clear } = adapts ? blurForTile(raster, tile, blur) : { fit: blur, seen: 0, clear: 0 };
    if (fit > blur) tile = MAKERS[kind](raster, { blur: fit, box });
    tile = { ...tile, seen, clear };
    tiles.set(key, tile);
  }
  return tile;
}

/** The tile that a place of the picture lies in; of one beside the picture the nearest. */
export function tileAbout(field: FieldTiles, { x, y }: Point): Field {
  const { width, height } = field.raster;
  const column = Math.floor(Math.min(width - 1, Math.max(0, x)) / TILE);
  const row = Math.floor(Math.min(height - 1, Math.max(0, y)) / TILE);
  return tileAt(field, column, row);
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
