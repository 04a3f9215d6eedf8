import {
  findNode,
  freeGroups,
  groupNodes,
  nodeNames,
  numberedName,
  previewArt,
  type Group,
} from '@mirrot/core';
import { chosenNodes, NOTHING_CHOSEN } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { newId } from '$lib/ids';
import { chooseIds } from './copying';

/** Groups that are chosen as wholes. */
export const groupsChosen = (desk: Desk): Group[] =>
  chosenNodes(desk.choice, desk.art).flatMap((id) => {
    const node = findNode(desk.art, id)?.node;
    return node?.type === 'group' ? [node] : [];
  });

/** Makes a group of what is chosen, where the topmost of it stood. */
export function groupChosen(desk: Desk): void {
  const ids = chosenNodes(desk.choice, desk.art).filter(
    (id) => findNode(desk.art, id)?.node.type !== 'layer',
  );
  if (ids.length === 0) return desk.say('Layers are not grouped. Choose shapes or groups.');
  const group = {
    id: newId(),
    type: 'group' as const,
    name: numberedName('Group', nodeNames(desk.art)),
    shown: true,
    locked: false,
    opacity: 1,
  };
  const recipe = groupNodes(ids, group);
  desk.change('Group', recipe, { choice: chooseIds(previewArt(desk.art, recipe), [group.id]) });
}

/** Frees the chosen groups: what stands in them stands in their place, and is chosen. */
export function freeChosenGroups(desk: Desk): void {
  const groups = groupsChosen(desk);
  const inside = groups.flatMap((group) => group.children.map(({ id }) => id));
  const others = chosenNodes(desk.choice, desk.art).filter((id) => !groups.some((g) => g.id === id));
  const recipe = freeGroups(groups.map(({ id }) => id));
  const choice = chooseIds(previewArt(desk.art, recipe), [...others, ...inside]);
  desk.change(groups.length === 1 ? `Free ${groups[0]!.name}` : 'Free the groups', recipe, { choice });
}

/** The one group that is chosen, as a whole and alone; null where there is none. */
export function lonelyGroup(desk: Desk): Group | null {
  const [group, ...others] = groupsChosen(desk);
  return group && others.length === 0 && chosenNodes(desk.choice, desk.art).length === 1 ? group : null;
}

/**
 * Works in a group from now on.
 *
 * @param at the shape of it that is chosen there, as a whole with the group around it; left out, the topmost
 */
export function goInto(desk: Desk, group: string, at?: string): void {
  desk.choosing.focusOn(group);
  const { focus, inReach } = desk.choosing;
  if (!focus) return desk.say('This group is hidden or locked. Show or unlock it to work in it.');
  const shape = at ?? inReach.at(-1)?.id;
  desk.choose(NOTHING_CHOSEN);
  if (shape) desk.choose(chooseIds(desk.art, [desk.choosing.wholeOf(shape)]));
}
