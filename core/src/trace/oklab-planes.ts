import { CONES_OF_LINEAR, OKLAB_OF_ROOTS, type Oklab } from '../colour/oklab';
import { LINEAR_OF_BYTE } from '../colour/srgb';
import type { Raster } from '../picture/raster';

/** Clear pixels show white paper; opacity counts besides, so that white on clear has an edge too. */
const OPACITY = 0.5;

/**
 * Cube roots in even steps from 0 to 1, read at the nearest: a step is a fifth of the darkest one that 8 bits of sRGB can
 * tell, so that a slope between two colours is off by a tenth of that at most.
 */
const ROOTS = 16_384;
const ROOT = Float32Array.from({ length: ROOTS }, (_, i) => Math.cbrt(i / (ROOTS - 1)));
// The matrices' numbers by themselves, the cones' in steps of that table: this runs for every pixel of a picture.
type Rows = [[number, number, number], [number, number, number], [number, number, number]];
const [[LR, LG, LB], [MR, MG, MB], [SR, SG, SB]] = CONES_OF_LINEAR.map((row) =>
  row.map((v) => v * (ROOTS - 1)),
) as Rows;
const [[L_L, L_M, L_S], [A_L, A_M, A_S], [B_L, B_M, B_S]] = OKLAB_OF_ROOTS;

/**
 * How far one pixel's colour is from a given one, as the planes have it: a and b weighted.
 *
 * @param pixel its index, row by row
 */
export function pixelUnlike({ data }: Raster, pixel: number, colour: Oklab, abWeight: number): number {
  const i = 4 * pixel;
  const red = LINEAR_OF_BYTE[data[i]!]!;
  const green = LINEAR_OF_BYTE[data[i + 1]!]!;
  const blue = LINEAR_OF_BYTE[data[i + 2]!]!;
  const long = ROOT[(LR * red + LG * green + LB * blue + 0.5) & (ROOTS - 1)]!;
  const middle = ROOT[(MR * red + MG * green + MB * blue + 0.5) & (ROOTS - 1)]!;
  const short = ROOT[(SR * red + SG * green + SB * blue + 0.5) & (ROOTS - 1)]!;
  const solid = data[i + 3]! / 255;
  const dl = solid * (L_L * long + L_M * middle + L_S * short) + 1 - solid - colour[0];
  const da = abWeight * (solid * (A_L * long + A_M * middle + A_S * short) - colour[1]);
  const db = abWeight * (solid * (B_L * long + B_M * middle + B_S * short) - colour[2]);
  return Math.sqrt(dl * dl + da * da + db * db);
}

/** Room for the planes of a tile and a spare one, used again and again: a field is made of hundreds of tiles. */
const ROOM = 160 * 160;
const rooms: Float32Array[] = [];
export const scratchPlane = (i: number, size: number): Float32Array =>
  size > ROOM ? new Float32Array(size) : (rooms[i] ??= new Float32Array(ROOM));
export const SPARE = 4;

/**
 * L, a and b of a box of pixels, what lies outside the picture as its border, and opacity where it is not full everywhere.
 * They last until the next call.
 */
export function oklabPlanes(raster: Raster, x0: number, y0: number, w: number, h: number): Float32Array[] {
  const { width, height, data } = raster;
  const [L, A, B] = [scratchPlane(0, w * h), scratchPlane(1, w * h), scratchPlane(2, w * h)];
  // A pixel as one number, red lowest: typed arrays have the lower byte first wherever this runs.
  const aligned = data.byteOffset % 4 === 0 ? data : data.slice();
  const pixels = new Uint32Array(aligned.buffer, aligned.byteOffset, width * height);
  // Columns of the picture, those beside it told once.
  const column = Int32Array.from({ length: w }, (_, x) => Math.min(width - 1, Math.max(0, x0 + x)));
  let solid = 255;
  for (let y = 0, k = 0; y < h; y++) {
    const row = Math.min(height - 1, Math.max(0, y0 + y)) * width;
    for (let x = 0; x < w; x++, k++) {
      const pixel = pixels[row + column[x]!]!;
      solid &= pixel >>> 24;
      const r = LINEAR_OF_BYTE[pixel & 255]!;
      const g = LINEAR_OF_BYTE[(pixel >>> 8) & 255]!;
      const b = LINEAR_OF_BYTE[(pixel >>> 16) & 255]!;
      const l = ROOT[(LR * r + LG * g + LB * b + 0.5) & (ROOTS - 1)]!;
      const m = ROOT[(MR * r + MG * g + MB * b + 0.5) & (ROOTS - 1)]!;
      const s = ROOT[(SR * r + SG * g + SB * b + 0.5) & (ROOTS - 1)]!;
      L[k] = L_L * l + L_M * m + L_S * s;
      A[k] = A_L * l + A_M * m + A_S * s;
      B[k] = B_L * l + B_M * m + B_S * s;
    }
  }
  if (solid === 255) return [L, A, B];
  const O = scratchPlane(3, w * h);
  for (let y = 0, k = 0; y < h; y++) {
    const row = Math.min(height - 1, Math.max(0, y0 + y)) * width;
    for (let x = 0; x < w; x++, k++) {
      const v = (pixels[row + column[x]!]! >>> 24) / 255;
      L[k] = v * L[k]! + (1 - v);
      A[k] = v * A[k]!;
      B[k] = v * B[k]!;
      O[k] = OPACITY * v;
    }
  }
  return [L, A, B, O];
}
