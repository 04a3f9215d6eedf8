/** Gaussian of unit sum, sampled for offsets −r … r. */
export function gaussian(sigma: number): { g: Float64Array; r: number } {
  const r = Math.max(2, Math.ceil(3.2 * sigma));
  const g = Float64Array.from({ length: 2 * r + 1 }, (_, i) =>
    Math.exp(-((i - r) ** 2) / (2 * sigma * sigma)),
  );
  const sum = g.reduce((a, b) => a + b, 0);
  return { g: g.map((v) => v / sum), r };
}
/** The Gaussian that with a variance of a third more makes a blur: differences of neighbours bring that third. */
export const gaussianForBlur = (blur: number): { g: Float64Array; r: number } =>
  gaussian(Math.sqrt(Math.max(0.1, blur ** 2 - 1 / 3)));

/**
 * A plane's rows through the binomial 1 8 28 56 70 56 28 8 1 / 256, whose variance is 2. The rows come out as columns, four
 * pixels shorter at either end.
 */
export function binomialRows(from: Float32Array, w: number, h: number, out: Float32Array): void {
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
export const BINOMIAL_MARGIN = 4;

/** One plane through a Gaussian both ways, the margin of `r` on all sides used up. */
export const blurPlane = (
  from: Float32Array,
  w: number,
  h: number,
  g: Float64Array,
  r: number,
): Float32Array => convolveColumns(convolveRows(from, w, h, g, r, false), w - 2 * r, h, g, r, false);

/** One plane through a kernel along its rows, the margin of `r` on either side used up. */
export function convolveRows(
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
export function convolveColumns(
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
