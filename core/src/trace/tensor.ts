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

const LINEAR = Float64Array.from({ length: 256 }, (_, v) => {
  const c = v / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
});
/** Clear pixels show white paper; opacity counts besides, so that white on clear has an edge too. */
const OPACITY = 0.5;

/** Gaussian of unit sum, sampled for offsets −r … r. */
function gaussian(sigma: number): { g: Float64Array; r: number } {
  const r = Math.max(2, Math.ceil(3.2 * sigma));
  const g = Float64Array.from({ length: 2 * r + 1 }, (_, i) =>
    Math.exp(-((i - r) ** 2) / (2 * sigma * sigma)),
  );
  const sum = g.reduce((a, b) => a + b, 0);
  return { g: g.map((v) => v / sum), r };
}
/** The Gaussian that with a variance of a third more makes a blur: differences of neighbours bring that third. */
const before = (blur: number): { g: Float64Array; r: number } =>
  gaussian(Math.sqrt(Math.max(0.1, blur ** 2 - 1 / 3)));

/**
 * Cube roots in even steps from 0 to 1, read at the nearest: a step is a fifth of the darkest one that 8 bits of sRGB can
 * tell, so that a slope between two colours is off by a tenth of that at most.
 */
const ROOTS = 16_384;
const ROOT = Float32Array.from({ length: ROOTS }, (_, i) => Math.cbrt(i / (ROOTS - 1)));
/** OKLab's cone responses of linear sRGB, in steps of that table. Source: Ottosson (2020), matrices of 2021. */
const cone = (r: number, g: number, b: number): readonly [number, number, number] => [r * (ROOTS - 1), g * (ROOTS - 1), b * (ROOTS - 1)]; // prettier-ignore
const [LR, LG, LB] = cone(0.4122214708, 0.5363325363, 0.0514459929);
const [MR, MG, MB] = cone(0.2119034982, 0.6806995451, 0.1073969566);
const [SR, SG, SB] = cone(0.0883024619, 0.2817188376, 0.6299787005);

/** Room for the planes of a tile and a spare one, used again and again: a field is made of hundreds of tiles. */
const ROOM = 160 * 160;
const rooms: Float32Array[] = [];
const room = (i: number, size: number): Float32Array =>
  size > ROOM ? new Float32Array(size) : (rooms[i] ??= new Float32Array(ROOM));
const SPARE = 4;

/**
 * L, a and b of a box of pixels, what lies outside the picture as its border, and opacity where it is not full everywhere.
 * They last until the next call.
 */
function planes(raster: Raster, x0: number, y0: number, w: number, h: number): Float32Array[] {
  const { width, height, data } = raster;
  const [L, A, B] = [room(0, w * h), room(1, w * h), room(2, w * h)];
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
      const r = LINEAR[pixel & 255]!;
      const g = LINEAR[(pixel >>> 8) & 255]!;
      const b = LINEAR[(pixel >>> 16) & 255]!;
      const l = ROOT[(LR * r + LG * g + LB * b + 0.5) & (ROOTS - 1)]!;
      const m = ROOT[(MR * r + MG * g + MB * b + 0.5) & (ROOTS - 1)]!;
      const s = ROOT[(SR * r + SG * g + SB * b + 0.5) & (ROOTS - 1)]!;
      L[k] = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
      A[k] = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
      B[k] = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
    }
  }
  if (solid === 255) return [L, A, B];
  const O = room(3, w * h);
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

/**
 * A plane's rows through the binomial 1 8 28 56 70 56 28 8 1 / 256, whose variance is 2. The rows come out as columns, four
 * pixels shorter at either end.
 */
function binomial(from: Float32Array, w: number, h: number, out: Float32Array): void {
  for (let y = 0; y < h; y++) {
    let at = y * w;
    let p0 = from[at]!;
    let p1 = from[at + 1]!;
    let p2 = from[at + 2]!;
    let p3 = from[at + 3]!;
    let p4 = from[at + 4]!;
    let p5 = from[at + 5]!;
    let p6 = from[at + 6]!;
    let p7 = from[at + 7]!;
    const end = at + w;
    let to = y;
    for (at += 8; at < end; at++) {
      const p8 = from[at]!;
      out[to] = (p0 + p8 + 8 * (p1 + p7) + 28 * (p2 + p6) + 56 * (p3 + p5) + 70 * p4) * (1 / 256);
      to += h;
      p0 = p1;
      p1 = p2;
      p2 = p3;
      p3 = p4;
      p4 = p5;
      p5 = p6;
      p6 = p7;
      p7 = p8;
    }
  }
}

/** The blur that `binomial` and a central difference make together: the field of that blur costs least. */
export const BINOMIAL_BLUR = Math.sqrt(2 + 1 / 3);
/** The margin it uses up on all sides. */
const BINOMIAL_MARGIN = 4;

/** One plane through a Gaussian both ways, the margin of `r` on all sides used up. */
const blurred = (from: Float32Array, w: number, h: number, g: Float64Array, r: number): Float32Array =>
  down(across(from, w, h, g, r, false), w - 2 * r, h, g, r, false);

/** One plane through a kernel along its rows, the margin of `r` on either side used up. */
function across(
  from: Float32Array,
  w: number,
  h: number,
  kernel: Float64Array,
  r: number,
  odd: boolean,
): Float32Array {
  const wide = w - 2 * r;
  const out = new Float32Array(wide * h);
  const middle = kernel[r]!;
  for (let y = 0; y < h; y++) {
    const row = y * w + r;
    const to = y * wide;
    for (let x = 0; x < wide; x++) {
      const at = row + x;
      let sum = odd ? 0 : middle * from[at]!;
      if (odd) for (let k = 1; k <= r; k++) sum += kernel[r + k]! * (from[at - k]! - from[at + k]!);
      else for (let k = 1; k <= r; k++) sum += kernel[r + k]! * (from[at - k]! + from[at + k]!);
      out[to + x] = sum;
    }
  }
  return out;
}

/** The same along the columns. */
function down(
  from: Float32Array,
  w: number,
  h: number,
  kernel: Float64Array,
  r: number,
  odd: boolean,
): Float32Array {
  const high = h - 2 * r;
  const out = new Float32Array(w * high);
  for (let y = 0; y < high; y++) {
    const to = y * w;
    const row = (y + r) * w;
    if (!odd) {
      const middle = kernel[r]!;
      for (let x = 0; x < w; x++) out[to + x] = middle * from[row + x]!;
    }
    for (let k = 1; k <= r; k++) {
      const v = kernel[r + k]!;
      const [up, below] = [row - k * w, row + k * w];
      if (odd) for (let x = 0; x < w; x++) out[to + x]! += v * (from[up + x]! - from[below + x]!);
      else for (let x = 0; x < w; x++) out[to + x]! += v * (from[up + x]! + from[below + x]!);
    }
  }
  return out;
}

function boxOf(raster: Raster, { blur, box }: FieldOptions) {
  if (!(blur > 0)) throw new RangeError(`A field needs a blur above 0; it was ${blur}.`);
  return box ?? { x0: 0, y0: 0, width: raster.width, height: raster.height };
}

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
  const { g, r: margin } = before(options.blur);
  const r = quick ? BINOMIAL_MARGIN : margin;
  const [w, h] = [width + 2 * r + 2, height + 2 * r + 2];
  const wide = width + 2;
  const soft = planes(raster, x0 - r - 1, y0 - r - 1, w, h).map((plane) => {
    if (!quick) return blurred(plane, w, h, g, r);
    const turned = room(SPARE, w * h);
    binomial(plane, w, h, turned);
    binomial(turned, h, wide, plane);
    return plane;
  });
  const field = { x0, y0, width, height, xx: new Float32Array(width * height), xy: new Float32Array(width * height), yy: new Float32Array(width * height) }; // prettier-ignore
  const [L, A, B, O] = soft as [Float32Array, Float32Array, Float32Array, Float32Array?];
  slopes(L, A, B, field);
  if (O) addSlopes(O, field);
  return field;
}

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
      xx[i] = (lx * lx + ax * ax + bx * bx) / 4;
      xy[i] = (lx * ly + ax * ay + bx * by) / 4;
      yy[i] = (ly * ly + ay * ay + by * by) / 4;
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
  const { g, r } = before(options.blur);
  const margin = r + SECOND.r;
  const [w, h] = [width + 2 * margin, height + 2 * margin];
  const [plane] = planes(raster, x0 - margin, y0 - margin, w, h) as [Float32Array];
  const soft = blurred(plane, w, h, g, r);
  const [wide, high] = [w - 2 * r, h - 2 * r];
  const { bend, calm, slope, r: m } = SECOND;
  const made = (alongX: Float64Array, alongY: Float64Array, odd = false): Float32Array =>
    down(across(soft, wide, high, alongX, m, odd), width, high, alongY, m, odd);
  return { x0, y0, width, height, xx: made(bend, calm), xy: made(slope, slope, true), yy: made(calm, bend) };
}

/** Differences of neighbours for the second derivatives, all with a variance of a third along both axes. */
const SECOND = {
  r: 2,
  bend: Float64Array.of(1, 8, -18, 8, 1).map((v) => v / 12),
  calm: Float64Array.of(0, 1, 4, 1, 0).map((v) => v / 6),
  slope: Float64Array.of(0, 1, 0, -1, 0).map((v) => v / 2),
} as const;
