import { MirrotError } from '../error';
import type { Raster } from './raster';

/** Pixels on either side of a cut that may be mixed with what lies beyond it: a lens and a scanner blur over about two. */
const MIXED_PX = 2;

/** How much of each pixel an outline covers, 0 to 255, row by row. */
export type Coverage = Uint8Array | Uint8ClampedArray;

/** Unlike 8-neighbours: how far in x and y, and how much they count. */
const NEIGHBOURS = [-1, 0, 1].flatMap((dy) =>
  [-1, 0, 1].flatMap((dx) => (dx === 0 && dy === 0 ? [] : [[dx, dy, dx === 0 || dy === 0 ? 1 : Math.SQRT1_2] as const])),
); // prettier-ignore

/** The pixels that lie wholly inside, and so far from the outline that nothing from beyond it is mixed into them. */
function unmixed(inside: Coverage, width: number, height: number): Uint8Array {
  // A square of the mixed pixels about each, row by row and then column by column.
  const rows = new Uint8Array(inside.length);
  const both = new Uint8Array(inside.length);
  const least = (from: Coverage, to: Uint8Array, length: number, step: number, lines: number, next: number): void => {
    for (let line = 0; line < lines; line++)
      for (let i = 0; i < length; i++) {
        let whole = 1;
        for (let k = Math.max(0, i - MIXED_PX); whole && k <= Math.min(length - 1, i + MIXED_PX); k++)
          if (from[line * next + k * step]! < (from === inside ? 255 : 1)) whole = 0;
        to[line * next + i * step] = whole;
      }
  }; // prettier-ignore
  least(inside, rows, width, 1, height, width);
  least(rows, both, height, width, width, 1);
  return both;
}

/**
 * A cutout's own pixels: as opaque as the cut leaves them, the colour of those near the cut taken from further inside, since
 * the picture has mixed the old background into them. A cutout laid on another ground then has no rim of the old one.
 * (Over, Porter and Duff 1984, gives back the mixture when the colours are those of the thing alone.)
 *
 * @param raster what is cut, not cut yet
 * @param inside how much of each pixel lies within the sharp outline; where that is nowhere wider than four pixels the
 *   colours stay as they are
 * @param seen how much of each pixel the cut leaves, softness counted
 * @throws MirrotError when the sizes differ
 */
export function cleanEdge(raster: Raster, inside: Coverage, seen: Coverage): Raster {
  const { width, height, data } = raster;
  const count = width * height;
  if (data.length !== 4 * count || inside.length !== count || seen.length !== count)
    throw new MirrotError(
      'picture',
      `A cut of ${width} × ${height} pixels needs as many values of each kind.`,
    );
  const known = unmixed(inside, width, height);
  const out = new Uint8ClampedArray(data);
  // Ring after ring outward, each pixel from those next to it that are known already.
  let ring: number[] = [];
  const wanted = (i: number): boolean => known[i] === 0 && seen[i]! > 0;
  const beside = (i: number, each: (j: number, weight: number) => void): void => {
    const [x, y] = [i % width, Math.floor(i / width)];
    for (const [dx, dy, weight] of NEIGHBOURS)
      if (x + dx >= 0 && x + dx < width && y + dy >= 0 && y + dy < height) each(i + dy * width + dx, weight);
  };
  const queued = new Uint8Array(count);
  const queue = (i: number, to: number[]): void => {
    if (!wanted(i) || queued[i]) return;
    queued[i] = 1;
    to.push(i);
  };
  for (let i = 0; i < count; i++) if (known[i]) beside(i, (j) => queue(j, ring));
  while (ring.length > 0) {
    const next: number[] = [];
    for (const i of ring) {
      let [r, g, b, total] = [0, 0, 0, 0];
      beside(i, (j, weight) => {
        if (known[j] !== 1 || data[4 * j + 3] === 0) return;
        r += weight * out[4 * j]!;
        g += weight * out[4 * j + 1]!;
        b += weight * out[4 * j + 2]!;
        total += weight;
      });
      if (total > 0) {
        out[4 * i] = r / total;
        out[4 * i + 1] = g / total;
        out[4 * i + 2] = b / total;
      }
    }
    // Only now: pixels of one ring do not colour each other.
    for (const i of ring) known[i] = 1;
    for (const i of ring) beside(i, (j) => queue(j, next));
    ring = next;
  }
  for (let i = 0; i < count; i++) out[4 * i + 3] = (data[4 * i + 3]! * seen[i]!) / 255;
  return { width, height, data: out };
}
