import Flatbush from 'flatbush';
import { removeNodes } from '../art/edits';
import { isGradient } from '../art/paint';
import type { Shape } from '../art/schema';
import { ancestorsOf } from '../art/tree';
import { boxCentre } from '../geometry/bounds';
import type { Check } from './finding';
import { liesWithin } from './within';

/** Whether nothing shows through a shape's fill. */
export const isOpaque = ({ fill, opacity, blend, blur }: Shape): boolean =>
  fill !== null &&
  opacity === 1 &&
  (blend ?? 'normal') === 'normal' &&
  (blur ?? 0) === 0 &&
  (!isGradient(fill) || fill.stops.every((stop) => stop.opacity === 1));

/** Shapes wholly beneath one other. */
export const hidden: Check = {
  kind: 'hidden',
  find({ art, shapes }) {
    const opaque = shapes.filter(
      ({ shape }) =>
        isOpaque(shape) && ancestorsOf(art, shape.id).every((node) => node.opacity === 1 && (!('clip' in node) || node.clip === undefined) && (node.blend ?? 'normal') === 'normal'), // prettier-ignore
    );
    if (opaque.length === 0) return [];
    const tree = new Flatbush(opaque.length);
    for (const { box } of opaque) tree.add(box.x0, box.y0, box.x1, box.y1);
    tree.finish();
    return shapes.flatMap((lower) => {
      const { box, shape } = lower;
      if (!(box.x1 >= box.x0) || (shape.fill === null && shape.stroke === null) || shape.shadow) return [];
      const clips = ancestorsOf(art, shape.id).some((node) => 'clip' in node && node.clip === shape.id);
      const above = tree.search(box.x0, box.y0, box.x1, box.y1).filter((i) => {
        const upper = opaque[i]!;
        return upper.level > lower.level && upper.box.x0 <= box.x0 && upper.box.y0 <= box.y0 && upper.box.x1 >= box.x1 && upper.box.y1 >= box.y1; // prettier-ignore
      });
      const by = clips ? undefined : above.find((i) => liesWithin(lower, opaque[i]!));
      if (by === undefined) return [];
      return [{ kind: 'hidden' as const, key: `hidden ${shape.id}`, shapes: [shape.id, opaque[by]!.shape.id], at: boxCentre(box), amount: 1 }]; // prettier-ignore
    });
  },
  fix: (_, { shapes: [id] }) => (id === undefined ? null : removeNodes([id])),
};
