import { cross, mix, subtract } from '../geometry/vector';
import { curvedSegments } from './curved-segments';
import type { Check } from './finding';

/** The two handles of a segment lie across each other: it bulges to a point, or loops. */
export const crossedHandles: Check = {
  kind: 'crossed-handles',
  find: ({ shapes }) =>
    curvedSegments(shapes).flatMap(({ shape, path, index, cubic: [a, b, c, d] }) => {
      const [first, second] = [subtract(b, a), subtract(c, d)];
      const across = cross(first, second);
      if (across === 0) return [];
      // Where the lines of both meet, as shares of the handles.
      const between = subtract(d, a);
      const [s, t] = [cross(between, second) / across, cross(between, first) / across];
      if (!(s > 0 && s < 1 && t > 0 && t < 1)) return [];
      return [{ kind: 'crossed-handles' as const, key: `crossed-handles ${path.id} ${index}`, shapes: [shape.id], at: mix(a, d, 0.5), amount: 1 / Math.max(s, t), path: path.id, index }]; // prettier-ignore
    }),
};
