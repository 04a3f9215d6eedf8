import { distance, length } from '../geometry/vector';
import { segmentCount, segmentCubic, segmentIsLine } from '../path/path';
import type { Check } from './finding';

/** A handle so many times as long as its segment outruns it: half round a circle takes 1.33 of the diameter's half. */
const MOST_SHARE = 1.35;
/** Segments shorter than this are told as crumbs, not by their handles; sheet pixels. */
const SHORTEST_PX = 0.5;

/** A handle that is longer than its segment: the line swings out or turns back there. */
export const longHandle: Check = {
  kind: 'long-handle',
  find: ({ shapes }) =>
    shapes.flatMap(({ shape }) =>
      shape.lettering
        ? []
        : shape.paths.flatMap((path) =>
            Array.from({ length: segmentCount(path) }, (_, index) => index).flatMap((index) => {
              if (segmentIsLine(path, index)) return [];
              const [a, b, c, d] = segmentCubic(path, index);
              const chord = distance(a, d);
              const longest = Math.max(
                length({ x: b.x - a.x, y: b.y - a.y }),
                length({ x: c.x - d.x, y: c.y - d.y }),
              );
              if (chord < SHORTEST_PX || longest <= MOST_SHARE * chord) return [];
              const at = { x: (a.x + d.x) / 2, y: (a.y + d.y) / 2 };
              return [{ kind: 'long-handle' as const, key: `long-handle ${path.id} ${index}`, shapes: [shape.id], at, amount: longest / chord, path: path.id, index }]; // prettier-ignore
            }),
          ),
    ),
};
