import { findNode, inPaintOrder, moveLayers, moveNodes, parentOf, type Group } from '@mirrot/core';
import { chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';

// What is chosen moved between groups and layers, by a drag in the stack or by keys.

/** Where nodes would stand: before the parent's child of this index, counted from the bottom; layers have no parent. */
export interface StackPlace {
  readonly parent: string | null;
  readonly index: number;
}

/** Moves nodes to a place in the stack. */
export function moveTo(desk: Desk, ids: readonly string[], { parent, index }: StackPlace): void {
  const name = ids.length === 1 ? findNode(desk.art, ids[0]!)?.node.name : undefined;
  const recipe = parent === null ? moveLayers(ids, index) : moveNodes(ids, parent, index);
  desk.change(name === undefined ? 'Move in the stack' : `Move ${name} in the stack`, recipe);
}

/** The group beside what is chosen, below it if there is one, else above; null where it has none. */
export function groupBeside(desk: Desk): Group | null {
  const ids = inPaintOrder(desk.art, chosenNodes(desk.choice, desk.art));
  const parent = ids[0] === undefined ? null : parentOf(desk.art, ids[0]);
  if (!parent) return null;
  const places = parent.children.flatMap((child, i) => (ids.includes(child.id) ? [i] : []));
  const beside = [
    ...parent.children.slice(0, places[0]).reverse(),
    ...parent.children.slice(places.at(-1)! + 1),
  ];
  return beside.find((node) => node.type === 'group') ?? null;
}

/** Moves what is chosen into the group beside it, on top. */
export function moveIntoGroup(desk: Desk): void {
  const group = groupBeside(desk);
  if (!group) return;
  moveTo(desk, chosenNodes(desk.choice, desk.art), { parent: group.id, index: group.children.length });
}

/** The group that what is chosen stands in; null in none. */
export function groupAround(desk: Desk): Group | null {
  const [id] = chosenNodes(desk.choice, desk.art);
  const parent = id === undefined ? null : parentOf(desk.art, id);
  return parent?.type === 'group' ? parent : null;
}

/** Moves what is chosen out of the group it stands in, above it. */
export function moveOutOfGroup(desk: Desk): void {
  const group = groupAround(desk);
  const found = group && findNode(desk.art, group.id);
  if (!found?.parent) return;
  moveTo(desk, chosenNodes(desk.choice, desk.art), { parent: found.parent.id, index: found.index + 1 });
}
