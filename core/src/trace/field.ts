import type { Raster } from '../picture/raster';

/** What a field tells of a picture: where areas meet, or where drawn strokes run. */
export type FieldKind = 'edge' | 'line';

/**
 * A symmetric 2 × 2 matrix for each pixel of a box: xx, xy, yy. Of an edge field the colour structure tensor, the sum over
 * L, a, b of the products of their slopes; of a line field the second derivatives of L.
 */
export interface Field {
  /** How soft the picture's edges are in it: standard deviation, pixels; 0 where that was not looked for. */
  readonly seen: number;
  /** How many times as strong as the least there is to speak of its stronger edges are; 0 where that was not looked for. */
  readonly clear: number;
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

/** Strengths of a tile's pixels, one in so many both ways, in no order. */
export function strengthsOf(
  { width, height, xx, xy, yy }: Field,
  kind: FieldKind,
  every: number,
): Float32Array {
  const out = new Float32Array(Math.ceil(width / every) * Math.ceil(height / every));
  let n = 0;
  for (let y = 0; y < height; y += every)
    for (let x = 0; x < width; x += every) {
      const k = y * width + x;
      const middle = (xx[k]! + yy[k]!) / 2;
      const half = (xx[k]! - yy[k]!) / 2;
      const off = Math.sqrt(half * half + xy[k]! * xy[k]!);
      out[n++] = kind === 'edge' ? Math.sqrt(Math.max(0, middle + off)) : Math.abs(middle) + off;
    }
  return out;
}
