import { fromLinear, toLinear, type Rgb } from './srgb';

/** L from 0 (black) to 1 (white); a towards red, b towards yellow, about ±0.4 at most within sRGB. */
export type Oklab = readonly [l: number, a: number, b: number];

/** L and C as in `Oklab`; h in degrees from 0 to 360, 0 for greys. */
export type Oklch = readonly [l: number, c: number, h: number];

/** Linear sRGB to OKLab. Source: Björn Ottosson, "A perceptual color space for image processing" (2020), 2021 matrices. */
export function oklabOfLinear(r: number, g: number, b: number): Oklab {
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

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
