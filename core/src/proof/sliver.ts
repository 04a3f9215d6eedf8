import { removeNodes } from '../art/edits';
import { boxCentre } from '../geometry/bounds';
import { pathArea, pathLength } from '../path/path-measure';
import { crossingPlaces } from '../path/weed';
import type { Check } from './finding';

/** Less long for its width it is a crumb, or a shape. */
const LEAST_TIMES_AS_LONG = 8;

/** Filled shapes so thin that they are what combining left over. */
export const sliver: Check = {
  kind: 'sliver',
  find: ({ shapes }, { gap, tiny }) =>
    shapes.flatMap(({ shape, whole, box }) => {
      if (shape.fill === null || shape.stroke !== null || shape.lettering || whole.length !== 1) return [];
      const [path] = whole;
      const half = pathLength(path!) / 2;
      const width = Math.abs(pathArea(path!)) / (half || 1);
      if (!(half > Math.max(2 * tiny, LEAST_TIMES_AS_LONG * width)) || width >= gap) return [];
      // The areas on both sides of a crossing count against each other.
      if (crossingPlaces([path!]).length > 0) return [];
      return [{ kind: 'sliver' as const, key: `sliver ${shape.id}`, shapes: [shape.id], at: boxCentre(box), amount: width }]; // prettier-ignore
    }),
  fix: (_, { shapes }) => removeNodes(shapes),
};
