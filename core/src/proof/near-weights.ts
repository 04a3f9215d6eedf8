import { styleShapes } from '../art/edits';
import { boxCentre } from '../geometry/bounds';
import { shapeFound, type Check, type Finding } from './finding';

/** Line weights that nearly are one: the one that most lines have is what was meant. */
export const nearWeights: Check = {
  kind: 'near-weights',
  find({ shapes }, { weight }) {
    const counts = new Map<number, number>();
    for (const { shape } of shapes)
      if (shape.stroke) counts.set(shape.stroke.width, (counts.get(shape.stroke.width) ?? 0) + 1);
    const byUse = [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0]);
    return shapes.flatMap(({ shape, box }): Finding[] => {
      const own = shape.stroke?.width;
      if (own === undefined) return [];
      // The weight that more lines have, or of as many the heavier one.
      const meant = byUse.find(
        ([width]) => width === own || Math.abs(width - own) <= weight * Math.max(width, own),
      )!;
      if (meant[0] === own) return [];
      return [{ kind: 'near-weights', key: `near-weights ${shape.id}`, shapes: [shape.id], at: boxCentre(box), amount: meant[0] }]; // prettier-ignore
    });
  },
  fix(art, finding) {
    const stroke = shapeFound(art, finding)?.stroke;
    return stroke
      ? styleShapes([finding.shapes[0]!], { stroke: { ...stroke, width: finding.amount } })
      : null;
  },
};
