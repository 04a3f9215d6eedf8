import {
  addNodes,
  findNode,
  freeGroups,
  groupNodes,
  inPaintOrder,
  moveNodes,
  nodeNames,
  numberedName,
  previewArt,
  putOn,
  removeNodes,
  setClip,
  takeOff,
  together,
  type Group,
  type PictureNode,
  type Recipe,
  type Shape,
} from '@mirrot/core';
import { chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { newId } from '$lib/ids';
import { chooseIds } from './copying';
import { groupsChosen } from './grouping';
import { FIRST_WEIGHT } from './painting';
import { pourFill } from './pouring';

// The traced picture, or other things in the stack, clipped by a shape: a group whose lowest shape is the edge. It stays live.

/** What is chosen, the lowest first. */
const chosenInOrder = (desk: Desk): readonly string[] =>
  inPaintOrder(desk.drawing.kept, chosenNodes(desk.choice, desk.drawing.kept));

/** The shape that cuts: the topmost of what is chosen, closed; null where there is none. */
export function shapeToCut(desk: Desk): Shape | null {
  const ids = chosenInOrder(desk);
  const top = ids.at(-1);
  const node = top === undefined ? null : findNode(desk.drawing.kept, top)?.node;
  if (node?.type !== 'shape' || !node.paths.every((path) => path.closed)) return null;
  return ids.length > 1 || desk.picture.traced ? node : null;
}

/** Its paint would lie beneath the picture and show at its edge: it is taken off, and kept. */
const bare = (id: string): Recipe => together(takeOff([id], 'fill'), takeOff([id], 'stroke'));

/** Cuts the traced picture out by the one chosen shape, or all else that is chosen by the topmost of it. */
export function cutOut(desk: Desk): void {
  const shape = shapeToCut(desk);
  if (!shape) return;
  const ids = chosenInOrder(desk);
  const { traced } = desk.picture;
  const group: Omit<Group, 'children'> = {
    id: newId(),
    type: 'group',
    name: numberedName('Cutout', nodeNames(desk.art)),
    shown: true,
    locked: false,
    opacity: 1,
  };
  const stands = { shown: true, locked: false, opacity: 1 };
  const picture: PictureNode[] =
    ids.length === 1 && traced ? [{ id: newId(), type: 'picture', name: traced.name, picture: traced.id, ...stands }] : []; // prettier-ignore
  const recipe = together(
    groupNodes(ids, group),
    moveNodes([shape.id], group.id, 0),
    (draft) => addNodes(group.id, picture.map((node) => ({ ...node })))(draft), // prettier-ignore
    setClip(group.id, shape.id),
    bare(shape.id),
  );
  desk.change('Cut out', recipe, { choice: chooseIds(previewArt(desk.art, recipe), [group.id]) });
}

/** As `cutOut`; says so where nothing can be cut. */
export function cutOutOrSay(desk: Desk): void {
  if (shapeToCut(desk)) cutOut(desk);
  else
    desk.say('Choose a closed shape over the picture, or one above what it is to cut. Nothing was changed.');
}

/** Chosen groups that a shape clips. */
export const cutoutsChosen = (desk: Desk): readonly Group[] =>
  groupsChosen(desk).filter((group) => group.clip !== undefined);

/** Gives back what was cut out: the shape with its paint, and what it cut; a picture that came only for it goes. */
export function releaseCutouts(desk: Desk): void {
  const groups = cutoutsChosen(desk);
  const left: string[] = [];
  const recipes = groups.map((group): Recipe => {
    const others = group.children.filter(({ id }) => id !== group.clip);
    const [only, ...more] = others;
    const onlyPicture = only?.type === 'picture' && more.length === 0;
    left.push(group.clip!, ...(onlyPicture ? [] : others.map(({ id }) => id)));
    const shape = group.children.find(({ id }) => id === group.clip) as Shape;
    const paints = (['fill', 'stroke'] as const).flatMap((target) =>
      shape.aside?.[target] ? [putOn([shape.id], target, pourFill(desk), FIRST_WEIGHT)] : [],
    );
    // It stood on top of what it cut.
    const back = onlyPicture ? removeNodes([only.id]) : moveNodes([shape.id], group.id);
    return together(back, freeGroups([group.id]), ...paints);
  });
  const recipe = together(...recipes);
  desk.change('Release the cutout', recipe, { choice: chooseIds(previewArt(desk.art, recipe), left) });
}
