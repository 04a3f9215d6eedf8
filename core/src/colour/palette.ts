import { rgbToCielab } from './cielab';
import { deltaE2000 } from './difference';
import { intoGamut } from './gamut';
import { oklabToOklch, oklabToRgb, oklchToOklab, rgbToOklab } from './oklab';
import { formatHex, parseHex } from './srgb';

/** Chips nearer to each other than this are hardly told apart, ΔE (CIEDE2000). */
export const NEAR_CHIPS = 2;

const labOf = (hex: string) => rgbToCielab(parseHex(hex));

/** How far two hex colours lie apart, ΔE (CIEDE2000). */
export const hexesApart = (one: string, other: string): number => deltaE2000(labOf(one), labOf(other));

/** The colour of a list that is nearest to a hex colour, by its place in it, and how far it is (ΔE); null for an empty list. */
export function nearestOf(hex: string, hexes: readonly string[]): { at: number; deltaE: number } | null {
  const lab = labOf(hex);
  let best: { at: number; deltaE: number } | null = null;
  hexes.forEach((other, at) => {
    const deltaE = deltaE2000(lab, labOf(other));
    if (!best || deltaE < best.deltaE) best = { at, deltaE };
  });
  return best;
}

/** Two colours of a list that lie near each other, by their places in it. */
export interface NearPair {
  readonly one: number;
  readonly other: number;
  readonly deltaE: number;
}

/** Pairs of a list of hex colours that lie nearer than `within` (ΔE), the nearest first. */
export function nearPairs(hexes: readonly string[], within = NEAR_CHIPS): NearPair[] {
  const labs = hexes.map(labOf);
  const pairs: NearPair[] = [];
  for (let one = 0; one < labs.length; one++)
    for (let other = one + 1; other < labs.length; other++) {
      // Lightness alone weighs at most 1.75 in the formula: what lies that far apart in it need not be worked out.
      if (Math.abs(labs[one]![0] - labs[other]![0]) > 2 * within) continue;
      const deltaE = deltaE2000(labs[one]!, labs[other]!);
      if (deltaE < within) pairs.push({ one, other, deltaE });
    }
  return pairs.sort((a, b) => a.deltaE - b.deltaE);
}

/** OKLab lightness between which a range runs. */
const LIGHTEST = 0.95;
const DARKEST = 0.25;

/**
 * A range of a colour from light to dark in even steps of OKLab lightness. Its hue stays; its chroma is as much as sRGB
 * holds there, at most its own.
 *
 * @param count of steps, two at least
 */
export function rangeOf(hex: string, count: number): string[] {
  const [, chroma, hue] = oklabToOklch(rgbToOklab(parseHex(hex)));
  return Array.from({ length: count }, (_, i) => {
    const lightness = LIGHTEST + ((DARKEST - LIGHTEST) * i) / (count - 1);
    return formatHex(oklabToRgb(oklchToOklab(intoGamut([lightness, chroma, hue]))));
  });
}
