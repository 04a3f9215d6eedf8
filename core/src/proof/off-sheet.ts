import { boxCentre, boxesMeet } from '../geometry/bounds';
import type { Check } from './finding';

/** Shapes that lie wholly off the sheet: no file of the sheet shows them. */
export const offSheet: Check = {
  kind: 'off-sheet',
  find({ art, shapes }) {
    const { width, height } = art.sheet;
    const sheet = { x0: 0, y0: 0, x1: width, y1: height };
    return shapes.flatMap(({ shape, box }) => {
      if (!(box.x1 >= box.x0) || boxesMeet(box, sheet)) return [];
      const at = boxCentre(box);
      const amount = Math.max(-box.x1, -box.y1, box.x0 - width, box.y0 - height);
      return [{ kind: 'off-sheet' as const, key: `off-sheet ${shape.id}`, shapes: [shape.id], at, amount }];
    });
  },
};
