import { flatHex, paletteOf } from '../art/paint';
import { removeNodes, setPaths, together } from '../art/edits';
import type { Art } from '../art/schema';
import { findShape, parentOf } from '../art/tree';
import { boxCentre, boxesMeet } from '../geometry/bounds';
import { rgbToCielab } from '../colour/cielab';
import { deltaE2000 } from '../colour/difference';
import { parseHex } from '../colour/srgb';
import { subjectOf, type Check, type ProofShape, type Subject } from './finding';
import { liesWithin } from './within';

/** Paper, where the sheet has no ground of its own. */
const PAPER = '#ffffff';

/** The shape right beneath that a shape lies wholly within; null where something else lies between or there is none. */
function rightBeneath({ shapes }: Subject, upper: ProofShape): ProofShape | null {
  const beneath = shapes.filter((other) => other.level < upper.level && boxesMeet(other.box, upper.box));
  const lower = beneath.at(-1);
  return lower && lower.shape.fill !== null && liesWithin(upper, lower) ? lower : null;
}

/**
 * A shape in the ground's colour on another: a hole that was painted, not cut. On any other ground it shows. Told only where
 * nothing but the one shape lies beneath, so that cutting it open looks the same.
 */
export const groundPatch: Check = {
  kind: 'ground-patch',
  find(subject, { colour }) {
    const { art, shapes } = subject;
    const palette = paletteOf(art.chips);
    const ground = rgbToCielab(parseHex(art.sheet.ground ?? PAPER));
    return shapes.flatMap((upper) => {
      const { shape, box } = upper;
      const hex = flatHex(shape.fill, palette);
      if (hex === null || shape.stroke || shape.lettering || shape.axis || shape.opacity < 1) return [];
      if (deltaE2000(rgbToCielab(parseHex(hex)), ground) >= colour) return [];
      const lower = rightBeneath(subject, upper);
      if (!lower || lower.shape.lettering || lower.shape.axis) return [];
      if (shapes.some((other) => other !== lower && other.level < upper.level && boxesMeet(other.box, box))) return []; // prettier-ignore
      return [{ kind: 'ground-patch' as const, key: `ground-patch ${shape.id}`, shapes: [shape.id, lower.shape.id], at: boxCentre(box), amount: 1 }]; // prettier-ignore
    });
  },
  // What lies wholly within the other is bitten out of it by standing among its outlines (even-odd).
  fix(art: Art, { shapes: [upperId = '', lowerId = ''] }) {
    const [upper, lower] = [findShape(art, upperId), findShape(art, lowerId)];
    if (!upper || !lower || parentOf(art, upperId) === null) return null;
    const subject = subjectOf(art);
    const [a, b] = [upperId, lowerId].map((id) => subject.shapes.find(({ shape }) => shape.id === id));
    if (!a || !b || !liesWithin(a, b)) return null;
    return together(removeNodes([upperId]), setPaths(lowerId, [...lower.paths, ...upper.paths]));
  },
};
