import type { Raster } from '../picture/raster';
import { gaussianForBlur, binomialRows, BINOMIAL_BLUR, BINOMIAL_MARGIN, blurPlane } from './blur-planes';
import type { Field, FieldOptions } from './field';
import { boxOf } from './field';
import { oklabPlanes, scratchPlane, SPARE } from './oklab-planes';

/**
 * Where areas meet: the colour structure tensor of a picture, from Gaussian derivatives in OKLab. Its quadratic form along
 * a direction is the squared slope of the colour that way; the larger eigenvalue is the squared slope across the edge.
 * Source: Di Zenzo, "A note on the gradient of a multi-image" (1986).
 *
 * @returns per pixel, in (OKLab units per pixel) squared; a pixel's middle lies at halves
 * @throws RangeError for a blur of 0 or less
 */
export function edgeField(raster: Raster, options: FieldOptions): Field {
  const { x0, y0, width, height } = boxOf(raster, options);
  const quick = Math.abs(options.blur - BINOMIAL_BLUR) < 1e-3;
  const { g, r: margin } = gaussianForBlur(options.blur);
  const r = quick ? BINOMIAL_MARGIN : margin;
  const [w, h] = [width + 2 * r + 2, height + 2 * r + 2];
  const wide = width + 2;
  const soft = oklabPlanes(raster, x0 - r - 1, y0 - r - 1, w, h).map((plane) => {
    if (!quick) return blurPlane(plane, w, h, g, r);
    const turned = scratchPlane(SPARE, w * h);
    binomialRows(plane, w, h, turned);
    binomialRows(turned, h, wide, plane);
    return plane;
  });
  const field = { seen: 0, clear: 0, x0, y0, width, height, xx: new Float32Array(width * height), xy: new Float32Array(width * height), yy: new Float32Array(width * height) }; // prettier-ignore
  const [L, A, B, O] = soft as [Float32Array, Float32Array, Float32Array, Float32Array?];
  slopes(L, A, B, field);
  if (O) addSlopes(O, field);
  return field;
}

/**
 * A step of a or b counts as twice one of L, squared here: at middling chroma a ΔE2000 of 10 is 0.1 in L, 0.03 in hue and
 * 0.07 in chroma (worked out by our own `deltaE2000`).
 */
const COLOUR = 2 ** 2;

/** A field's products of the slopes of three planes, which are a pixel larger than it on all sides. */
function slopes(L: Float32Array, A: Float32Array, B: Float32Array, field: Field): void {
  const { width, height, xx, xy, yy } = field;
  const wide = width + 2;
  for (let y = 0; y < height; y++) {
    let at = (y + 1) * wide + 1;
    const end = (y + 1) * width;
    for (let i = y * width; i < end; i++, at++) {
      const lx = L[at + 1]! - L[at - 1]!;
      const ly = L[at + wide]! - L[at - wide]!;
      const ax = A[at + 1]! - A[at - 1]!;
      const ay = A[at + wide]! - A[at - wide]!;
      const bx = B[at + 1]! - B[at - 1]!;
      const by = B[at + wide]! - B[at - wide]!;
      // Differences over two pixels.
      xx[i] = (lx * lx + COLOUR * (ax * ax + bx * bx)) / 4;
      xy[i] = (lx * ly + COLOUR * (ax * ay + bx * by)) / 4;
      yy[i] = (ly * ly + COLOUR * (ay * ay + by * by)) / 4;
    }
  }
}

/** Adds a further plane's slopes to a field. */
function addSlopes(plane: Float32Array, { width, height, xx, xy, yy }: Field): void {
  const wide = width + 2;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = (y + 1) * wide + x + 1;
      const i = y * width + x;
      const u = (plane[at + 1]! - plane[at - 1]!) / 2;
      const v = (plane[at + wide]! - plane[at - wide]!) / 2;
      xx[i] = xx[i]! + u * u;
      xy[i] = xy[i]! + u * v;
      yy[i] = yy[i]! + v * v;
    }
}
