import type { Raster } from '../picture/raster';
import { placesAcross } from './edge-profile';
import type { Field } from './field';
import { leastOfTile } from './tile-noise';

/** A tile is looked at in cells so wide, pixels; of so many with the strongest edges the blur is told. */
const CELL_PX = 16;
const MOST_CELLS = 10;
/** An edge's blur is told from so many places along it. */
const PLACES = 5;
/** An edge counts that is so many times as strong as the least. */
const CLEAR = 1.5;
/** Fewer edges than this tell nothing. */
const FEWEST = 3;
/** Blur of the field beside the picture's own, where that is soft, and the steps in which it grows; pixels. */
const FIELD_IN_BLURS = 1.5;
const SOFT_BLURS = [2.4, 3.6, 5] as const;

/**
 * The blur with which a tile's edges are best looked for: what is soft carries nothing at a finer scale but grain and the
 * pixels of what was enlarged. The sharper quarter of its edges decides. Sources: Elder and Zucker, "Local scale control for
 * edge detection and blur estimation" (1998); Lindeberg, "Edge detection and ridge detection with automatic scale selection"
 * (1998).
 *
 * @param tile of an edge field, made with `blur`
 * @returns `fit`: `blur` itself, or one of a few larger ones; `seen`: the picture's own there, 0 where no edge tells it
 */
export function blurForTile(
  raster: Raster,
  tile: Field,
  blur: number,
): { readonly fit: number; readonly seen: number; readonly clear: number } {
  const { x0, y0, width, height, xx, xy, yy } = tile;
  const cells: { k: number; strength: number }[] = [];
  for (let top = 0; top < height; top += CELL_PX)
    for (let left = 0; left < width; left += CELL_PX) {
      let best = { k: -1, strength: 0 };
      for (let y = top; y < Math.min(height, top + CELL_PX); y++)
        for (let x = left; x < Math.min(width, left + CELL_PX); x++) {
          const k = y * width + x;
          const strength = xx[k]! + yy[k]!;
          if (strength > best.strength) best = { k, strength };
        }
      if (best.k >= 0) cells.push(best);
    }
  const least = leastOfTile(tile, 'edge') ** 2;
  const edges = cells
    .filter((c) => c.strength > least)
    .sort((a, b) => b.strength - a.strength)
    .slice(0, MOST_CELLS);
  const clear = edges.length < FEWEST ? 0 : Math.sqrt(edges[edges.length >> 1]!.strength / least);
  const strongest = edges.filter((c) => c.strength > CLEAR ** 2 * least);
  const blurs = strongest.flatMap(({ k }) => {
    const turn = Math.atan2(2 * xy[k]!, xx[k]! - yy[k]!) / 2;
    const n = { x: Math.cos(turn), y: Math.sin(turn) };
    const at = { x: x0 + (k % width) + 0.5, y: y0 + Math.floor(k / width) + 0.5 };
    const places = Array.from({ length: PLACES }, (_, i) => {
      const s = i - (PLACES >> 1);
      return { at: { x: at.x - s * n.y, y: at.y + s * n.x }, n };
    });
    const told = [...placesAcross(raster, places, 'true').blur]
      .filter((v) => !Number.isNaN(v))
      .sort((a, b) => a - b);
    return told.length > 0 ? [told[told.length >> 1]!] : [];
  });
  if (blurs.length < FEWEST) return { fit: blur, seen: 0, clear };
  blurs.sort((a, b) => a - b);
  const seen = blurs[blurs.length >> 2]!;
  const wanted = FIELD_IN_BLURS * seen;
  return { fit: SOFT_BLURS.findLast((b) => b <= wanted && b > blur) ?? blur, seen, clear };
}
