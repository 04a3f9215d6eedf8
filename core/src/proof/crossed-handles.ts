import { cross, distance, subtract } from '../geometry/vector';
import { segmentCount, segmentCubic, segmentIsLine } from '../path/path';
import type { Check } from './finding';

/** Segments shorter than this are told as crumbs, not by their handles; sheet pixels. */
const SHORTEST_PX = 0.5;

/** The two handles of a segment lie across each other: it bulges to a point, or loops. */
export const crossedHandles: Check = {
  kind: 'crossed-handles',
  find: ({ shapes }) =>
    shapes.flatMap(({ shape }) =>
      shape.lettering
        ? []
        : shape.paths.flatMap((path) =>
            Array.from({ length: segmentCount(path) }, (_, index) => index).flatMap((index) => {
              if (segmentIsLine(path, index)) return [];
              const [a, b, c, d] = segmentCubic(path, index);
              const [first, second] = [subtract(b, a), subtract(c, d)];
              const chord = subtract(d, a);
              const across = cross(first, second);
              if (across === 0 || distance(a, d) < SHORTEST_PX) return [];
              // Where the lines of both meet, as shares of the handles.
              const [s, t] = [cross(chord, second) / across, cross(chord, first) / across];
              if (!(s > 0 && s < 1 && t > 0 && t < 1)) return [];
              const at = { x: (a.x + d.x) / 2, y: (a.y + d.y) / 2 };
              return [{ kind: 'crossed-handles' as const, key: `crossed-handles ${path.id} ${index}`, shapes: [shape.id], at, amount: 1 / Math.max(s, t), path: path.id, index }]; // prettier-ignore
            }),
          ),
    ),
};
