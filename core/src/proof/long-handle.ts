import { length, mix, subtract } from '../geometry/vector';
import { curvedSegments } from './curved-segments';
import type { Check } from './finding';

/** A handle so many times as long as its segment outruns it: half round a circle takes 1.33 of the diameter's half. */
const MOST_SHARE = 1.35;

/** A handle that is longer than its segment: the line swings out or turns back there. */
export const longHandle: Check = {
  kind: 'long-handle',
  find: ({ shapes }) =>
    curvedSegments(shapes).flatMap(({ shape, path, index, chord, cubic: [a, b, c, d] }) => {
      const longest = Math.max(length(subtract(b, a)), length(subtract(c, d)));
      if (longest <= MOST_SHARE * chord) return [];
      return [{ kind: 'long-handle' as const, key: `long-handle ${path.id} ${index}`, shapes: [shape.id], at: mix(a, d, 0.5), amount: longest / chord, path: path.id, index }]; // prettier-ignore
    }),
};
