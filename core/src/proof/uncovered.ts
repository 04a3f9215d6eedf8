import { coveringOutlines, pictureOutline } from '../art/covering';
import { polygonOf } from '../art/inside';
import { tracedPicture } from '../art/tree';
import { boxHeight, boxWidth } from '../geometry/bounds';
import { markInside, type PlaceGrid } from '../geometry/scanline';
import { transformPath } from '../path/path-map';
import { pathBounds } from '../path/path-measure';
import type { Check, Finding } from './finding';

/** Places that are looked at along the picture's longer side. */
const PLACES_ALONG = 400;
/** Only where so much of the picture is covered was all of it meant to be. */
const LEAST_COVERED_SHARE = 0.9;
/** Patches of fewer places than this lie between the places. */
const FEWEST_PLACES = 6;

/** What of the picture no shape covers, where nearly all of it is covered. */
export const uncovered: Check = {
  kind: 'uncovered',
  find({ art }): Finding[] {
    const picture = tracedPicture(art);
    if (!picture) return [];
    const outline = transformPath(pictureOutline(picture), picture.placement);
    const box = pathBounds(outline);
    const step = Math.max(boxWidth(box), boxHeight(box)) / PLACES_ALONG;
    if (!(step > 0)) return [];
    const grid: PlaceGrid = { x0: box.x0, y0: box.y0, step, width: Math.ceil(boxWidth(box) / step), height: Math.ceil(boxHeight(box) / step) }; // prettier-ignore
    // 1: the picture, bare.
    const bare = new Uint8Array(grid.width * grid.height);
    let all = 0;
    markInside([polygonOf(outline)], grid, (at) => {
      bare[at] = 1;
      all++;
    });
    let left = all;
    for (const paths of coveringOutlines(art))
      markInside(paths.map(polygonOf), grid, (at) => {
        if (bare[at] === 1) left--;
        bare[at] = 0;
      });
    if (left === 0 || all - left < LEAST_COVERED_SHARE * all) return [];
    return patches(bare, grid).flatMap((places): Finding[] => {
      if (places.length < FEWEST_PLACES) return [];
      const middle = places[places.length >> 1]!;
      const at = { x: grid.x0 + ((middle % grid.width) + 0.5) * step, y: grid.y0 + (Math.floor(middle / grid.width) + 0.5) * step }; // prettier-ignore
      return [{ kind: 'uncovered', key: `uncovered ${Math.round(at.x)} ${Math.round(at.y)}`, shapes: [], at, amount: places.length / all }]; // prettier-ignore
    });
  },
};

/** Places that hang together side by side; the places of each patch row by row. */
function patches(bare: Uint8Array, { width, height }: PlaceGrid): number[][] {
  const seen = new Uint8Array(bare.length);
  const out: number[][] = [];
  for (let start = 0; start < bare.length; start++) {
    if (bare[start] === 0 || seen[start] === 1) continue;
    const patch: number[] = [];
    const next = [start];
    seen[start] = 1;
    for (let at = next.pop(); at !== undefined; at = next.pop()) {
      patch.push(at);
      const [column, row] = [at % width, Math.floor(at / width)];
      for (const [dx, dy] of [
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ] as const) {
        // prettier-ignore
        const [x, y] = [column + dx, row + dy];
        const beside = y * width + x;
        if (x < 0 || y < 0 || x >= width || y >= height || bare[beside] === 0 || seen[beside] === 1) continue;
        seen[beside] = 1;
        next.push(beside);
      }
    }
    out.push(patch.sort((a, b) => a - b));
  }
  return out;
}
