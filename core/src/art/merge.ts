import { checkChange } from './check';
import { countNode, holdingsOf, noTurnover } from './holdings';
import { mergeFields, type Fields } from './merge-fields';
import { mergeTree } from './merge-tree';
import { mergeOrder } from './order';
import { same } from './same';
import type { Art } from './schema';

// Two drawings that grew from one are brought together over the whole tree by id: parent, order, field by field. Paths
// are parts of the tree as well, since a hole may be freed from one shape and made of another.

/** A drawing that holds what both sides did, and the names of what both changed in one field. */
export interface Merged {
  readonly art: Art;
  /** Names of shapes, layers, pictures where the later hand was taken over the other's, each once. */
  readonly conflicts: readonly string[];
}

/**
 * Merges a list of things with ids outside the tree: pictures, chips, guides.
 *
 * @param used ids that the merged tree names: what one side took away and the other put to use stays
 */
function mergeItems<T extends { readonly id: string }>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  used: ReadonlyMap<string, unknown>,
  conflict: (item: T) => void,
): readonly T[] {
  const whole = (list: readonly T[]): boolean =>
    base.every((item) => !used.has(item.id) || list.some((other) => other.id === item.id));
  if ((same(mine, theirs) || same(base, theirs)) && whole(mine)) return mine;
  if (same(base, mine) && whole(theirs)) return theirs;
  const [b, m, t] = [base, mine, theirs].map((list) => new Map(list.map((item) => [item.id, item])));
  const order = mergeOrder(
    base.map(({ id }) => id),
    mine.map(({ id }) => id),
    theirs.map(({ id }) => id),
  );
  const there = new Set(order);
  const takenAwayByBoth = base.flatMap(({ id }) => (used.has(id) && !there.has(id) ? [id] : []));
  return [...order, ...takenAwayByBoth].flatMap((id): T[] => {
    const [was, my, their] = [b!.get(id), m!.get(id), t!.get(id)];
    if (my && their)
      return [
        mergeFields(was as Fields | undefined, my as Fields, their as Fields, () =>
          conflict(my),
        ) as unknown as T,
      ];
    const only = (my ?? their ?? was)!;
    return was && same(was, only) && !used.has(id) ? [] : [only];
  });
}

/** How two drawings that grew from one are brought together. */
export type Merge = (base: Art, mine: Art, theirs: Art) => Merged;

/**
 * Brings two drawings together that both grew from `base`, so that nothing either did is lost: what each side added,
 * took away, moved in the stack and changed, field by field. Where both changed one field, `mine` is the later hand and
 * has it. Anchors that neighbours share end on one spot.
 *
 * @throws MirrotError `art` should the result be no drawing
 */
export function mergeArt(base: Art, mine: Art, theirs: Art): Merged {
  if (mine === theirs || base === theirs) return { art: mine, conflicts: [] };
  if (base === mine) return { art: theirs, conflicts: [] };
  const names = new Set<string>();
  const conflictOf = (item: { readonly name?: unknown }): void =>
    void names.add(typeof item.name === 'string' && item.name !== '' ? item.name : 'a colour');
  const plainFields = (what: string, b: object, m: object, t: object): Fields =>
    mergeFields(b as Fields, m as Fields, t as Fields, () => names.add(what));
  const layers = mergeTree(base, mine, theirs, names);
  const named = noTurnover();
  for (const layer of layers) countNode(layer, 1, named);
  const { uses } = named;
  const pictures = mergeItems(base.pictures, mine.pictures, theirs.pictures, uses, conflictOf);
  const { traced } = plainFields(
    'the traced picture',
    { traced: base.traced },
    { traced: mine.traced },
    { traced: theirs.traced },
  );
  const { locked } = plainFields(
    'the guides',
    { locked: base.guides.locked },
    { locked: mine.guides.locked },
    { locked: theirs.guides.locked },
  );
  const { axis } = plainFields('the axis', { axis: base.axis }, { axis: mine.axis }, { axis: theirs.axis });
  const art = {
    version: mine.version,
    sheet: plainFields('the sheet', base.sheet, mine.sheet, theirs.sheet),
    pictures,
    traced: pictures.some((p) => p.id === traced) ? traced : (pictures[0]?.id ?? null),
    layers,
    chips: mergeItems(base.chips, mine.chips, theirs.chips, uses, conflictOf),
    colourways: mergeItems(base.colourways, mine.colourways, theirs.colourways, uses, conflictOf),
    guides: {
      locked,
      lines: mergeItems(base.guides.lines, mine.guides.lines, theirs.guides.lines, uses, () =>
        names.add('the guides'),
      ),
    },
    grid: plainFields('the grid', base.grid, mine.grid, theirs.grid),
    axis,
    aside: mergeItems(base.aside, mine.aside, theirs.aside, uses, () => names.add('the findings put aside')),
  };
  checkChange(mine, art, holdingsOf(mine));
  return { art: art as Art, conflicts: [...names] };
}
