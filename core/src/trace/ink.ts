import { rgbToCielab, type Cielab } from '../colour/cielab';
import { deltaE2000 } from '../colour/difference';
import { parseHex, type Rgb } from '../colour/srgb';
import { apply, invert, type Affine } from '../geometry/affine';
import { cubicPoint } from '../geometry/cubic';
import type { Point } from '../geometry/vector';
import { pathCubics, type Path } from '../path/path';
import { pixelAt, type Raster } from '../picture/raster';

/** Colours a tracing line can have on screen. */
export const INKS = [
  { name: 'Ultramarine', hex: '#2340c7' },
  { name: 'Magenta', hex: '#b0127b' },
  { name: 'Deep leaf', hex: '#0f6b3c' },
  { name: 'Graphite', hex: '#22252b' },
  { name: 'Paper', hex: '#fffdf6' },
] as const;

/** The halo that parts a line in this ink from the picture: graphite for light inks, paper for dark ones. */
export const haloOf = (ink: string): string => (ink === '#fffdf6' ? '#22252b' : '#fffdf6');

/** The least gain in ΔE2000 for which a path's ink is changed once it has one. */
export const INK_GAIN = 10;

const LABS: readonly Cielab[] = INKS.map((ink) => rgbToCielab(parseHex(ink.hex)));
const SAMPLES = 24;

/** A colour as Wash shows it: drained of `wash` percent of its chroma and mixed half as far with white. Per channel of sRGB. */
export function washed([r, g, b]: Rgb, wash: number): Rgb {
  const k = wash / 100;
  const grey = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  const mix = (v: number): number => {
    const drained = v + (grey - v) * k;
    return drained + (1 - drained) * k * 0.6;
  };
  return [mix(r), mix(g), mix(b)];
}

function along(path: Path): Point[] {
  const cubics = pathCubics(path);
  if (cubics.length === 0) return path.anchors.map(({ x, y }) => ({ x, y }));
  const each = Math.max(1, Math.ceil(SAMPLES / cubics.length));
  return cubics.flatMap((c) => Array.from({ length: each }, (_, i) => cubicPoint(c, (i + 0.5) / each)));
}

/**
 * The ink that stands out most from the picture along the paths: the one whose ΔE2000 to the washed pixels, taken
 * as the mean of the lower half (the places where it is hardest to see), is largest.
 *
 * @param placement picture pixels of the raster to sheet pixels
 * @param current ink in use, kept unless another gains more than ΔE 10; null for none
 * @returns "#rrggbb" of one of `INKS`; `current`, or the first, where there is no picture under the line
 */
export function chooseInk(
  paths: readonly Path[],
  raster: Raster,
  placement: Affine,
  wash: number,
  current: string | null,
): string {
  const fallback = current ?? INKS[0].hex;
  const back = invert(placement);
  if (!back) return fallback;
  const seen: Cielab[] = [];
  for (const p of paths.flatMap(along)) {
    const q = apply(back, p);
    const colour = pixelAt(raster, Math.floor(q.x), Math.floor(q.y));
    if (colour) seen.push(rgbToCielab(washed(colour, wash)));
  }
  if (seen.length === 0) return fallback;
  const strength = LABS.map((lab) => {
    const differences = seen.map((s) => deltaE2000(lab, s)).sort((a, b) => a - b);
    const lower = differences.slice(0, Math.ceil(differences.length / 2));
    return lower.reduce((sum, d) => sum + d, 0) / lower.length;
  });
  const best = strength.indexOf(Math.max(...strength));
  const now = INKS.findIndex((ink) => ink.hex === current);
  return now >= 0 && strength[best]! <= strength[now]! + INK_GAIN ? INKS[now]!.hex : INKS[best]!.hex;
}
