import { boxesMeet, growBox } from '../geometry/bounds';
import type { Point } from '../geometry/vector';
import { flattenPath } from '../path/path-measure';
import { shapeBounds } from './bounds';
import type { Shape } from './schema';
import { wholePaths } from './tree';

/** Points that an outline is looked at in. */
const PLACES = 96;
/** So many places of one outline have to lie on the other: two that touch in one corner are no neighbours. */
const FEWEST_TOUCHING = 3;

/** Points evenly along outlines, as many in all as `PLACES`. */
function placesAlong(lines: readonly (readonly Point[])[]): Point[] {
  const pieces = lines.flatMap((line) => line.map((p, i) => [line.at(i - 1)!, p] as const));
  const long = pieces.map(([a, b]) => Math.hypot(b.x - a.x, b.y - a.y));
  const step = long.reduce((sum, d) => sum + d, 0) / PLACES;
  if (!(step > 0)) return [];
  const out: Point[] = [];
  let next = step / 2;
  pieces.forEach(([a, b], i) => {
    for (; next <= long[i]!; next += step) {
      const t = next / long[i]!;
      out.push({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) });
    }
    next -= long[i]!;
  });
  return out;
}

function farFrom({ x, y }: Point, lines: readonly (readonly Point[])[]): number {
  let least = Infinity;
  for (const line of lines)
    for (let i = 0, j = line.length - 1; i < line.length; j = i++) {
      const [a, b] = [line[j]!, line[i]!];
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const long2 = dx * dx + dy * dy;
      const t = long2 > 0 ? Math.min(1, Math.max(0, ((x - a.x) * dx + (y - a.y) * dy) / long2)) : 0;
      least = Math.min(least, Math.hypot(a.x + t * dx - x, a.y + t * dy - y));
    }
  return least;
}

/**
 * Which shapes lie along each other: their outlines run together, or nearer than `within`, over a stretch.
 *
 * @param within sheet pixels
 * @returns for each shape the places of its neighbours in the list
 */
export function neighboursOf(shapes: readonly Shape[], within: number): number[][] {
  const lines = shapes.map((shape) => wholePaths(shape).map((path) => flattenPath(path, within / 4)));
  const boxes = shapes.map((shape) => growBox(shapeBounds(shape), within));
  const places = lines.map(placesAlong);
  const out: number[][] = shapes.map(() => []);
  const touches = (one: number, other: number): boolean => {
    let near = 0;
    return places[one]!.some((p) => {
      const box = boxes[other]!;
      const inBox = p.x >= box.x0 && p.x <= box.x1 && p.y >= box.y0 && p.y <= box.y1;
      return inBox && farFrom(p, lines[other]!) <= within && ++near >= FEWEST_TOUCHING;
    });
  };
  for (let one = 0; one < shapes.length; one++)
    for (let other = one + 1; other < shapes.length; other++)
      if (boxesMeet(boxes[one]!, boxes[other]!) && (touches(one, other) || touches(other, one))) {
        out[one]!.push(other);
        out[other]!.push(one);
      }
  return out;
}
