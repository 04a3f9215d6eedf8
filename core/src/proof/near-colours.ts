import { replaceChips } from '../art/edits';
import { chipUses } from '../art/chip-uses';
import { nearPairs } from '../colour/palette';
import type { Check } from './finding';

/** Chips that cannot be told apart: one of them is enough. */
export const nearColours: Check = {
  kind: 'near-colours',
  find({ art: { chips } }, { colour }) {
    const pairs = nearPairs(
      chips.map(({ hex }) => hex),
      colour,
    );
    return pairs.map(({ one, other, deltaE }) => ({
      kind: 'near-colours' as const,
      key: `near-colours ${chips[one]!.id} ${chips[other]!.id}`,
      shapes: [],
      at: null,
      amount: deltaE,
    }));
  },
  fix(art, { key }) {
    const [, one, other] = key.split(' ');
    const known = new Set(art.chips.map(({ id }) => id));
    if (!one || !other || !known.has(one) || !known.has(other)) return null;
    const uses = chipUses(art);
    const [stays, goes] = (uses.get(one) ?? 0) >= (uses.get(other) ?? 0) ? [one, other] : [other, one];
    return replaceChips([goes], stays);
  },
};
