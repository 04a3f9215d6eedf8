import { fromLinear, LINEAR_OF_BYTE, toLinear, type Rgb } from './srgb';

/** L from 0 (black) to 1 (white); a towards red, b towards yellow, about ±0.4 at most within sRGB. */
export type Oklab = readonly [l: number, a: number, b: number];

/** L and C as in `Oklab`; h in degrees from 0 to 360, 0 for greys. */
export type Oklch = readonly [l: number, c: number, h: number];

type Row = readonly [number, number, number];

/**
 * Cone responses of linear sRGB: a row each for the long, middle and short ones.
 * Source: Björn Ottosson, "A perceptual color space for image processing" (2020), matrices of 2021.
 */
export const CONES_OF_LINEAR: readonly [Row, Row, Row] = [
  [0.4122214708, 0.5363325363, 0.0514459929],
  [0.2119034982, 0.6806995451, 0.1073969566],
  [0.0883024619, 0.2817188376, 0.6299787005],
];

/** L, a and b of the cube roots of the cone responses. Source: as above. */
export const OKLAB_OF_ROOTS: readonly [Row, Row, Row] = [
  [0.2104542553, 0.793617785, -0.0040720468],
  [1.9779984951, -2.428592205, 0.4505937099],
  [0.0259040371, 0.7827717662, -0.808675766],
];

const [LONG, MIDDLE, SHORT] = CONES_OF_LINEAR;
const [L, A, B] = OKLAB_OF_ROOTS;
const product = ([a, b, c]: Row, x: number, y: number, z: number): number => a * x + b * y + c * z;

/** Linear sRGB to OKLab. */
export function oklabOfLinear(r: number, g: number, b: number): Oklab {
  const l = Math.cbrt(product(LONG, r, g, b));
  const m = Math.cbrt(product(MIDDLE, r, g, b));
  const s = Math.cbrt(product(SHORT, r, g, b));
  return [product(L, l, m, s), product(A, l, m, s), product(B, l, m, s)];
}

/** The three bytes of an sRGB colour that begin at an index, as OKLab. */
export const oklabOfBytes = (data: ArrayLike<number>, i: number): Oklab =>
  oklabOfLinear(LINEAR_OF_BYTE[data[i]!]!, LINEAR_OF_BYTE[data[i + 1]!]!, LINEAR_OF_BYTE[data[i + 2]!]!);

/** sRGB (0 to 1) to OKLab. */
export const rgbToOklab = ([r, g, b]: Rgb): Oklab => oklabOfLinear(toLinear(r), toLinear(g), toLinear(b));

/** OKLab to sRGB; channels may fall outside 0 to 1 for colours sRGB does not hold. */
export function oklabToRgb([L, a, b]: Oklab): Rgb {
  const l = (L + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (L - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (L - 0.0894841775 * a - 1.291485548 * b) ** 3;
  return [
    fromLinear(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
    fromLinear(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
    fromLinear(-0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s),
  ];
}

/** OKLab in lightness, chroma and hue. */
export function oklabToOklch([l, a, b]: Oklab): Oklch {
  const c = Math.hypot(a, b);
  const h = c < 4e-6 ? 0 : ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360;
  return [l, c, h];
}

/** Lightness, chroma and hue in degrees to OKLab. */
export function oklchToOklab([l, c, h]: Oklch): Oklab {
  const angle = (h * Math.PI) / 180;
  return [l, c * Math.cos(angle), c * Math.sin(angle)];
}
