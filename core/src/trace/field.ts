import type { Point } from '../geometry/vector';
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

/** Side of a tile in pixels. */
const TILE = 128;
const MAKERS = { edge: edgeField, line: lineField } as const;

/** A picture's field made tile by tile where it is asked for, and kept. */
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
