import { toLinear, type Rgb } from './srgb';

/** L from 0 to 100, a and b about ±128, for white D65. */
export type Cielab = readonly [l: number, a: number, b: number];

// White point D65 of IEC 61966-2-1 (x 0.3127, y 0.3290), as W3C CSS Color 4 gives it.
const WHITE = [0.3127 / 0.329, 1, (1 - 0.3127 - 0.329) / 0.329] as const;
const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;

/** sRGB (0 to 1) to CIELAB under D65. Source: CIE 15:2004; matrix from W3C CSS Color 4. */
export function rgbToCielab([red, green, blue]: Rgb): Cielab {
  const r = toLinear(red);
  const g = toLinear(green);
  const b = toLinear(blue);
  const f = (t: number): number => (t > EPSILON ? Math.cbrt(t) : (KAPPA * t + 16) / 116);
  const x = f((0.41239079926595934 * r + 0.357584339383878 * g + 0.1804807884018343 * b) / WHITE[0]);
  const y = f(0.21263900587151027 * r + 0.715168678767756 * g + 0.07219231536073371 * b);
  const z = f((0.01933081871559182 * r + 0.11919477979462598 * g + 0.9505321522496607 * b) / WHITE[2]);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}
