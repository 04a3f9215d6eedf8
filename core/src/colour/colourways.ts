import { intoGamut } from './gamut';
import { oklabToOklch, oklabToRgb, oklchToOklab, rgbToOklab, type Oklch } from './oklab';
import { formatHex, parseHex } from './srgb';

// Other colours for a palette, place by place. Each keeps which of two is the lighter, so that the drawing still reads.

const lchOf = (hex: string): Oklch => oklabToOklch(rgbToOklab(parseHex(hex)));
const hexOf = (colour: Oklch): string => formatHex(oklabToRgb(oklchToOklab(intoGamut(colour))));

/** Colours with less chroma than this are greys: no hue is turned or handed on. */
const GREY = 0.02;

/** The palette with its hues turned by so many degrees; lightness stays, and chroma as far as sRGB holds it. */
export const turnHues = (hexes: readonly string[], degrees: number): string[] =>
  hexes.map((hex) => {
    const [l, c, h] = lchOf(hex);
    return c < GREY ? hex : hexOf([l, c, (h + degrees + 360) % 360]);
  });

/**
 * The palette with its hues handed on among its colours that are no greys: each takes hue and chroma of the one `by` places
 * after it, and keeps its own lightness.
 */
export function swapHues(hexes: readonly string[], by = 1): string[] {
  const colours = hexes.map(lchOf);
  const places = colours.flatMap(([, c], i) => (c < GREY ? [] : [i]));
  return hexes.map((hex, i) => {
    const at = places.indexOf(i);
    if (at < 0) return hex;
    const [, c, h] = colours[places[(at + by) % places.length]!]!;
    return hexOf([colours[i]![0], c, h]);
  });
}

/** Places of colours from the darkest to the lightest. */
const byLightness = (hexes: readonly string[]): number[] =>
  hexes.map((_, i) => i).sort((a, b) => lchOf(hexes[a]!)[0] - lchOf(hexes[b]!)[0]);

/**
 * The palette in the colours of another: the darkest takes the darkest, the lightest the lightest, those between by their
 * rank. An empty one leaves it as it is.
 */
export function takeHexes(hexes: readonly string[], from: readonly string[]): string[] {
  if (from.length === 0) return [...hexes];
  const theirs = byLightness(from);
  const out = [...hexes];
  byLightness(hexes).forEach((place, rank) => {
    const at = hexes.length < 2 ? 0 : Math.round((rank * (from.length - 1)) / (hexes.length - 1));
    out[place] = from[theirs[at]!]!;
  });
  return out;
}

/** The palette by night: lightness turned over between its darkest and its lightest; hues stay. */
export function turnLightness(hexes: readonly string[]): string[] {
  const colours = hexes.map(lchOf);
  const [low, high] = [Math.min(...colours.map(([l]) => l)), Math.max(...colours.map(([l]) => l))];
  return colours.map(([l, c, h]) => hexOf([low + high - l, c, h]));
}

/** A recolouring that is offered, with what it is in words. */
export interface Recolouring {
  readonly name: string;
  readonly hexes: readonly string[];
}

const TURNS: readonly (readonly [string, number])[] = [
  ['Hue 60°', 60],
  ['Hue 120°', 120],
  ['Hue 180°', 180],
  ['Hue 240°', 240],
  ['Hue 300°', 300],
];
const MOST_SWAPS = 3;

/** Recolourings of a palette to choose from: hues turned, hues handed on, lightness turned over. Alike ones come once. */
export function suggestColourways(hexes: readonly string[]): Recolouring[] {
  const all: Recolouring[] = [
    ...TURNS.map(([name, degrees]) => ({ name, hexes: turnHues(hexes, degrees) })),
    ...Array.from({ length: MOST_SWAPS }, (_, i) => ({
      name: `Swap ${i + 1}`,
      hexes: swapHues(hexes, i + 1),
    })),
    { name: 'By night', hexes: turnLightness(hexes) },
  ];
  const seen = new Set([hexes.join()]);
  return all.filter(({ hexes: own }) => {
    const key = own.join();
    return !seen.has(key) && seen.add(key);
  });
}
