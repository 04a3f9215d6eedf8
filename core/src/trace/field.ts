import type { Raster } from '../picture/raster';

/** What a field tells of a picture: where areas meet, or where drawn strokes run. */
export type FieldKind = 'edge' | 'line';

/**
 * A symmetric 2 × 2 matrix for each pixel of a box: xx, xy, yy. Of an edge field the colour structure tensor, the sum over
 * L, a, b of the products of their slopes; of a line field the second derivatives of L.
 */
export interface Field {
  readonly x0: number;
  readonly y0: number;
  readonly width: number;
  readonly height: number;
  readonly xx: Float32Array;
  readonly xy: Float32Array;
  readonly yy: Float32Array;
}

export interface FieldOptions {
  /** Standard deviation of the Gaussian, in pixels. */
  readonly blur: number;
  /** The pixels wanted; all when left out. */
  readonly box?: {
    readonly x0: number;
    readonly y0: number;
    readonly width: number;
    readonly height: number;
  };
}

export function boxOf(raster: Raster, { blur, box }: FieldOptions) {
  if (!(blur > 0)) throw new RangeError(`A field needs a blur above 0; it was ${blur}.`);
  return box ?? { x0: 0, y0: 0, width: raster.width, height: raster.height };
}
