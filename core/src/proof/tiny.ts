import { removeNodes } from '../art/edits';
import { boxCentre, boxHeight, boxWidth } from '../geometry/bounds';
import type { Check } from './finding';

/** Shapes too small to be seen, or cut: crumbs of some earlier step. */
export const tiny: Check = {
  kind: 'tiny',
  find: ({ shapes }, { tiny: most }) =>
    shapes.flatMap(({ shape, box }) => {
      const size =
        Math.max(boxWidth(box), boxHeight(box)) + (shape.fill === null ? (shape.stroke?.width ?? 0) : 0);
      if (!(size <= most)) return [];
      return [{ kind: 'tiny' as const, key: `tiny ${shape.id}`, shapes: [shape.id], at: boxCentre(box), amount: size }]; // prettier-ignore
    }),
  fix: (_, { shapes }) => removeNodes(shapes),
};
