import { boxOfPoints } from '../geometry/bounds';
import { insideEvenOdd } from '../geometry/flatten';
import Flatbush from 'flatbush';
import type { PenStroke } from '../path/pen-stroke';

/**
 * Strokes by how deep they lie within closed ones of the same pen, the deepest first: what lies inside is cut while what it lies
 * in is still held. Common practice, no source.
 *
 * @returns groups that may each be put into any order; one after another they hold all strokes
 */
export function byDepth(strokes: readonly PenStroke[]): PenStroke[][] {
  if (strokes.length === 0) return [];
  const boxes = strokes.map(({ points }) => boxOfPoints(points));
  const tree = new Flatbush(strokes.length);
  for (const { x0, y0, x1, y1 } of boxes) tree.add(x0, y0, x1, y1);
  tree.finish();
  const depths = strokes.map(({ points, pen }, i) => {
    const p = points[0]!;
    const box = boxes[i]!;
    return tree.search(p.x, p.y, p.x, p.y, (k) => {
      const other = strokes[k]!;
      const around = boxes[k]!;
      if (k === i || !other.closed || other.pen !== pen) return false;
      if (around.x0 > box.x0 || around.y0 > box.y0 || around.x1 < box.x1 || around.y1 < box.y1) return false;
      return insideEvenOdd([other.points], p);
    }).length;
  });
  const levels = [...new Set(depths)].sort((a, b) => b - a);
  return levels.map((level) => strokes.filter((_, i) => depths[i] === level));
}
