import { oklabToRgb, oklchToOklab, type Oklch } from './oklab';

/** How far a channel may lie beyond 0 to 1 and still round to a byte of sRGB. */
const ROUNDED = 0.5 / 255;
/** No colour of sRGB has more chroma in OKLCH. */
export const MOST_CHROMA = 0.37;
const HALVINGS = 16;

/** Whether sRGB holds a colour, to the nearest byte. */
export const inGamut = (colour: Oklch): boolean =>
  oklabToRgb(oklchToOklab(colour)).every((v) => v >= -ROUNDED && v <= 1 + ROUNDED);

/** The most chroma that sRGB holds at a lightness and a hue (degrees), within 1e-5; 0 for black, white and beyond. */
export function mostChroma(lightness: number, hue: number): number {
  let [low, high] = [0, MOST_CHROMA];
  if (inGamut([lightness, high, hue])) return high;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (inGamut([lightness, middle, hue])) low = middle;
    else high = middle;
  }
  return low;
}

/** The colour with as much chroma as sRGB holds at its lightness and hue, where it has more. */
export const intoGamut = ([l, c, h]: Oklch): Oklch => {
  const lightness = Math.min(1, Math.max(0, l));
  return inGamut([lightness, c, h])
    ? [lightness, c, h]
    : [lightness, Math.min(c, mostChroma(lightness, h)), h];
};
