import Flatbush from 'flatbush';
import { removeNodes } from '../art/edits';
import { isGradient } from '../art/paint';
import { polygonOf } from '../art/inside';
import type { Shape } from '../art/schema';
import { ancestorsOf } from '../art/tree';
import { boxCentre } from '../geometry/bounds';
import { insideEvenOdd } from '../geometry/flatten';
import { flattenPath } from '../path/path-measure';
import type { Check, ProofShape } from './finding';

/** Whether nothing shows through a shape's fill. */
const isOpaque = ({ fill, opacity, blend, blur }: Shape): boolean =>
  fill !== null &&
  opacity === 1 &&
  (blend ?? 'normal') === 'normal' &&
  (blur ?? 0) === 0 &&
  (!isGradient(fill) || fill.stops.every((stop) => stop.opacity === 1));

/** How finely a shape's outline is looked at, sheet pixels. */
const STEP_PX = 0.5;

/** Whether all of a shape, its line's weight too, lies within the area of another, and none of that one's outline within it. */
function covers(upper: ProofShape, lower: ProofShape): boolean {
  const area = upper.whole.map(polygonOf);
  const weight = (lower.shape.stroke?.width ?? 0) / 2;
  const outline = lower.whole.flatMap((path) => flattenPath(path, STEP_PX));
  const around = weight === 0 ? [[0, 0]] : [[weight, 0], [-weight, 0], [0, weight], [0, -weight]]; // prettier-ignore
  if (!outline.every(({ x, y }) => around.every(([dx, dy]) => insideEvenOdd(area, { x: x + dx!, y: y + dy! })))) return false; // prettier-ignore
  // A hole of the upper one within the lower one would show it.
  const below = lower.whole.map(polygonOf);
  return upper.whole.flatMap((path) => flattenPath(path, STEP_PX)).every((p) => !insideEvenOdd(below, p));
}

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
      const by = clips ? undefined : above.find((i) => covers(opaque[i]!, lower));
      if (by === undefined) return [];
      return [{ kind: 'hidden' as const, key: `hidden ${shape.id}`, shapes: [shape.id, opaque[by]!.shape.id], at: boxCentre(box), amount: 1 }]; // prettier-ignore
    });
  },
  fix: (_, { shapes: [id] }) => (id === undefined ? null : removeNodes([id])),
};
