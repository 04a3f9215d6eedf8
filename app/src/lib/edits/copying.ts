import {
  boxCentre,
  copiesOf,
  findNode,
  nodesOf,
  nodesBox,
  subtract,
  translation,
  type Art,
  type Copies,
  type Point,
  type Recipe,
} from '@mirrot/core';
import { chooseNodes, chosenNodes, type Choice } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { newId } from '$lib/ids';

/** Nodes of a drawing chosen as wholes. */
export const chooseIds = (art: Art, ids: readonly string[]): Choice => chooseNodes(nodesOf(art, ids));

/** Copies of what is chosen, and a recipe that makes them, moved by a way. */
export function copiesOfChosen(desk: Desk): { readonly copies: Copies; recipe(by: Point): Recipe } {
  const copies = copiesOf(desk.art, chosenNodes(desk.choice, desk.art), newId);
  return {
    copies,
    recipe: (by) => copies.recipe(translation(by.x, by.y)),
  };
}

const same = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((id) => b.includes(id));

/** How far the copies made last were moved from what they are of; null unless just they are chosen. */
function lastStep(desk: Desk): Point | null {
  const last = desk.choosing.copied;
  if (!last || !same(last.ids, chosenNodes(desk.choice, desk.art))) return null;
  if (last.of.some((id) => !findNode(desk.art, id))) return null;
  return subtract(boxCentre(nodesBox(desk.art, last.ids)), boxCentre(nodesBox(desk.art, last.of)));
}

/** Copies what is chosen, in place; the copies made last, once more by the step they were moved. */
export function duplicateChosen(desk: Desk): void {
  const by = lastStep(desk) ?? { x: 0, y: 0 };
  const { copies, recipe } = copiesOfChosen(desk);
  if (copies.ids.length === 0) return desk.say('Layers are not copied. Choose shapes or groups.');
  desk.change('Duplicate', recipe(by), { choice: chooseNodes(copies.nodes) });
  desk.choosing.copied = copies;
}
