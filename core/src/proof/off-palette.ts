import { styleShapes } from '../art/edits';
import { isGradient } from '../art/paint';
import { boxCentre } from '../geometry/bounds';
import { shapeFound, type Check } from './finding';

/** Fills of a colour that is none of the palette's, though there is one: usually a sample that was taken twice. */
export const offPalette: Check = {
  kind: 'off-palette',
  find: ({ art, shapes }) =>
    art.chips.length === 0
      ? []
      : shapes.flatMap(({ shape, box }) => {
          const { fill } = shape;
          if (!fill || isGradient(fill) || 'chip' in fill) return [];
          return [{ kind: 'off-palette' as const, key: `off-palette ${shape.id}`, shapes: [shape.id], at: boxCentre(box), amount: 1 }]; // prettier-ignore
        }),
  // A fill that has just a chip's colour is that chip's; which one another colour belongs to is for the eye.
  fix(art, finding) {
    const shape = shapeFound(art, finding);
    const fill = shape?.fill;
    if (!shape || !fill || isGradient(fill) || !('hex' in fill)) return null;
    const chip = art.chips.find(({ hex }) => hex === fill.hex);
    return chip ? styleShapes([shape.id], { fill: { chip: chip.id } }) : null;
  },
};
