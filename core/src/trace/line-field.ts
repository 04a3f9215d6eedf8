import type { Raster } from '../picture/raster';
import { convolveRows, gaussianForBlur, blurPlane, convolveColumns } from './blur-planes';
import type { Field, FieldOptions } from './field';
import { boxOf } from './field';
import { oklabPlanes } from './oklab-planes';

/**
 * Where strokes run: the second derivatives of a picture's lightness (OKLab L) by a Gaussian. Across a bright stroke the
 * quadratic form is least, across a dark one greatest, in its middle. Source: Steger, "An unbiased detector of curvilinear
 * structures" (1998), who asks for a blur of at least a stroke's width / (2 √3).
 *
 * @returns per pixel, in OKLab units per pixel squared
 * @throws RangeError for a blur of 0 or less
 */
export function lineField(raster: Raster, options: FieldOptions): Field {
  const { x0, y0, width, height } = boxOf(raster, options);
  const { g, r } = gaussianForBlur(options.blur);
  const margin = r + SECOND.r;
  const [w, h] = [width + 2 * margin, height + 2 * margin];
  const [plane] = oklabPlanes(raster, x0 - margin, y0 - margin, w, h) as [Float32Array];
  const soft = blurPlane(plane, w, h, g, r);
  const [wide, high] = [w - 2 * r, h - 2 * r];
  const { bend, calm, slope, r: m } = SECOND;
  const made = (alongX: Float64Array, alongY: Float64Array, odd = false): Float32Array =>
    convolveColumns(convolveRows(soft, wide, high, alongX, m, odd), width, high, alongY, m, odd);
  return {
    seen: 0,
    clear: 0,
    x0,
    y0,
    width,
    height,
    xx: made(bend, calm),
    xy: made(slope, slope, true),
    yy: made(calm, bend),
  };
}

/** Differences of neighbours for the second derivatives, all with a variance of a third along both axes. */
const SECOND = {
  r: 2,
  bend: Float64Array.of(1, 8, -18, 8, 1).map((v) => v / 12),
  calm: Float64Array.of(0, 1, 4, 1, 0).map((v) => v / 6),
  slope: Float64Array.of(0, 1, 0, -1, 0).map((v) => v / 2),
} as const;
