import type { Point } from '../geometry/vector';
import type { PenStroke } from '../path/pen-stroke';

/** Where a stroke can be begun or ended. */
const placesOf = ({ points, closed }: PenStroke): readonly Point[] =>
  closed ? points : [points[0]!, points.at(-1)!];

/**
 * The least travel there can be: a minimum spanning tree over the strokes and the start, as far from each other as their
 * nearest places (Prim 1957). For tests and the bench.
 */
export function leastTravel(strokes: readonly PenStroke[], start: Point): number {
  const nodes: (readonly Point[])[] = [[start], ...strokes.map(placesOf)];
  const far = nodes.map(() => Infinity);
  const inTree = nodes.map(() => false);
  far[0] = 0;
  let total = 0;
  for (let k = 0; k < nodes.length; k++) {
    let next = -1;
    for (let i = 0; i < nodes.length; i++) if (!inTree[i] && (next < 0 || far[i]! < far[next]!)) next = i;
    inTree[next] = true;
    total += far[next]!;
    for (let i = 0; i < nodes.length; i++) {
      if (inTree[i]) continue;
      for (const p of nodes[next]!) for (const q of nodes[i]!) far[i] = Math.min(far[i]!, Math.hypot(p.x - q.x, p.y - q.y)); // prettier-ignore
    }
  }
  return total;
}
