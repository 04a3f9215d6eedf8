import { firstMiddles, settleMiddles } from '../colour/middles';
import { oklabOfBytes, oklabToRgb, type Oklab } from '../colour/oklab';
import { formatHex } from '../colour/srgb';
import type { Raster } from './raster';

/** One colour of a picture, and the share of it that is nearest to that. */
export interface PictureColour {
  readonly hex: string;
  readonly share: number;
}

/** Pixels that a palette is chosen by, at most. */
const PALETTE_PIXELS = 12_000;

/** OKLab of pixels evenly over a picture, clear ones left out. */
function coloursOf({ width, height, data }: Raster): Oklab[] {
  const every = Math.max(1, Math.floor(Math.sqrt((width * height) / PALETTE_PIXELS)));
  const out: Oklab[] = [];
  for (let y = every >> 1; y < height; y += every)
    for (let x = every >> 1; x < width; x += every) {
      const i = 4 * (y * width + x);
      if (data[i + 3]! > 0) out.push(oklabOfBytes(data, i));
    }
  return out;
}

/** Tries from other first middles: the closest fit is taken. */
const TRIES = 3;

/**
 * The colours that stand best for a picture, by k-means in OKLab: the same each time for the same seed. Ordered by their share,
 * the largest first; fewer than asked for where the picture has no more.
 *
 * @param count of colours, 1 to 64
 */
export function choosePalette(raster: Raster, count: number, seed = 1): PictureColour[] {
  const colours = coloursOf(raster);
  if (colours.length === 0) return [];
  let best: { readonly settled: ReturnType<typeof settleMiddles>; readonly spread: number } | null = null;
  for (let k = 0; k < TRIES; k++) {
    const settled = settleMiddles(colours, firstMiddles(colours, count, seed + k));
    const spread = colours.reduce((sum, [l, a, b], i) => {
      const m = settled.middles[settled.owners[i]!]!;
      return sum + (l - m[0]) ** 2 + (a - m[1]) ** 2 + (b - m[2]) ** 2;
    }, 0);
    if (!best || spread < best.spread) best = { settled, spread };
  }
  const { middles, owners } = best!.settled;
  const counts = new Array<number>(middles.length).fill(0);
  for (const owner of owners) counts[owner]!++;
  const shares = new Map<string, number>();
  middles.forEach((middle, k) => {
    const hex = formatHex(oklabToRgb(middle));
    if (counts[k]! > 0) shares.set(hex, (shares.get(hex) ?? 0) + counts[k]! / colours.length);
  });
  return [...shares].map(([hex, share]) => ({ hex, share })).sort((a, b) => b.share - a.share);
}
