import {
  boxWidth,
  boxHeight,
  copiesOf,
  mirrorMap,
  findNode,
  groupNodes,
  inPaintOrder,
  isWholeRing,
  nodeNames,
  nodesBox,
  numberedName,
  partCopies,
  previewArt,
  setRepeat,
  together,
  WHOLE_TURN,
  type Group,
  type Point,
  type Recipe,
  type Repeat,
} from '@mirrot/core';
import { chooseNodes, chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { newId } from '$lib/ids';
import { chooseIds } from './copying';
import { groupsChosen, lonelyGroup } from './grouping';

// Copies in a row or round a centre, that stay numbers until they are parted.

/** Copies that are made at first; their number is changed in the panel. */
const FIRST_ROW = 3;
const FIRST_RING = 6;
/** Room between the copies of a row, as a share of what leads. */
const ROW_GAP = 0.1;

/** Lets what is chosen stand several times: the group that is chosen alone, or a new one of all. */
function repeatChosen(desk: Desk, what: 'Row' | 'Ring', repeatOf: (ids: readonly string[]) => Repeat): void {
  const { art } = desk;
  const ids = chosenNodes(desk.choice, art).filter((id) => findNode(art, id)?.node.type !== 'layer');
  if (ids.length === 0) return desk.say('Layers do not stand several times. Choose shapes or groups.');
  const alone = lonelyGroup(desk);
  const named = ids.length === 1 ? findNode(art, ids[0]!)!.node.name : 'several';
  const name = `${what} of ${named}`;
  const group: Omit<Group, 'children'> = {
    id: alone && !alone.repeat ? alone.id : newId(),
    type: 'group',
    name: nodeNames(art).has(name) ? numberedName(name, nodeNames(art), 2) : name,
    shown: true,
    locked: false,
    opacity: 1,
  };
  const gathered: Recipe = alone?.id === group.id ? () => {} : groupNodes(inPaintOrder(art, ids), group);
  const recipe = together(gathered, setRepeat(group.id, repeatOf(ids)));
  const label = what === 'Row' ? 'Repeat in a row' : 'Repeat round a centre';
  desk.change(label, recipe, { choice: chooseIds(previewArt(art, recipe), [group.id]) });
}

/** Copies of what is chosen beside it, with a little room between them. */
export function rowOfChosen(desk: Desk): void {
  repeatChosen(desk, 'Row', (ids) => {
    const box = nodesBox(desk.art, ids);
    const wide = boxWidth(box) || boxHeight(box) || 10;
    return { kind: 'row', count: FIRST_ROW, x: wide * (1 + ROW_GAP), y: 0 };
  });
}

/** Copies of what is chosen, evenly round a centre. */
export function ringAbout(desk: Desk, { x, y }: Point): void {
  repeatChosen(desk, 'Ring', () => ({
    kind: 'ring',
    count: FIRST_RING,
    x,
    y,
    angle: WHOLE_TURN / FIRST_RING,
  }));
}

/** The group that stands several times and is chosen alone; null for none. */
export const repeatedGroup = (desk: Desk): (Group & { readonly repeat: Repeat }) | null => {
  const group = lonelyGroup(desk);
  return group?.repeat ? { ...group, repeat: group.repeat } : null;
};

/** Gives the chosen group other numbers; changes of one number in a row are one step. */
export function changeRepeat(desk: Desk, change: Partial<Record<string, unknown>>, what: string): void {
  const group = repeatedGroup(desk);
  if (!group) return;
  const repeat = { ...group.repeat, ...change } as Repeat;
  const plain = Object.fromEntries(Object.entries(repeat).filter(([, value]) => value !== undefined)) as unknown as Repeat; // prettier-ignore
  desk.change(
    'Change the copies',
    setRepeat(group.id, plain),
    { choice: desk.choice },
    `copies ${group.id} ${what}`,
  );
}

/** Another number of copies; a ring that goes all the way round goes on doing so. */
export function changeCount(desk: Desk, count: number): void {
  const repeat = repeatedGroup(desk)?.repeat;
  if (!repeat) return;
  const whole = repeat.kind === 'ring' && isWholeRing(repeat);
  changeRepeat(
    desk,
    whole ? { count, angle: (Math.sign(repeat.angle) * WHOLE_TURN) / count } : { count },
    'count',
  );
}

/** Makes the copies of the chosen groups shapes and groups of their own. */
export function partChosen(desk: Desk): void {
  const { art, choice } = desk;
  const groups = groupsChosen(desk).filter(({ repeat }) => repeat);
  const recipe = partCopies(art, groups.map(({ id }) => id), newId); // prettier-ignore
  desk.change('Part the copies', recipe, {
    choice: chooseIds(previewArt(art, recipe), chosenNodes(choice, art)),
  });
}

/**
 * A mirrored copy of what is chosen: across the axis that is drawn about when it is a mirror, else across the right side of
 * its box, so that both meet there.
 */
export function mirroredCopy(desk: Desk): void {
  const { art, choice } = desk;
  const ids = chosenNodes(choice, art);
  const { axis } = art;
  const box = nodesBox(art, ids);
  const across = axis?.kind === 'mirror' ? axis : { kind: 'mirror' as const, x: box.x1, y: box.y0, angle: Math.PI / 2 }; // prettier-ignore
  const copies = copiesOf(art, ids, newId);
  if (copies.ids.length === 0) return desk.say('Layers are not copied. Choose shapes or groups.');
  const recipe = copies.recipe(mirrorMap(across));
  desk.change('Mirrored copy', recipe, { choice: chooseNodes(copies.nodes) });
}
