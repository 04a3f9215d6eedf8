import { beforeEach, expect, it } from 'vitest';
import { findNode, type Recipe } from '@mirrot/core';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { chooseShapes, chosenNodes } from '$lib/desk/choice';
import { freeChosenGroups, groupChosen, groupsChosen } from './grouping';

let b: Bench;
beforeEach(() => {
  b = benchWith(
    ['a', 'b', 'c'].map((id, i) => shapeWith(id, [square(`p${id}`, 100 * i, 10, 40)])),
    'refine',
  );
  b.desk.choose(chooseShapes(['a', 'c']));
});
const order = (): string[] => b.desk.art.layers[0]!.children.map((n) => n.name);

it('groups what is chosen where its topmost stood, and chooses the group; undo gives back what was chosen', () => {
  groupChosen(b.desk);
  expect(order()).toEqual(['b', 'Group 1']);
  expect(groupsChosen(b.desk).map((g) => g.children.map((c) => c.id))).toEqual([['a', 'c']]);
  b.desk.choose(chooseShapes(['b']));
  groupChosen(b.desk);
  expect(order()).toEqual(['Group 2', 'Group 1']);
  b.desk.undo();
  b.desk.undo();
  expect([order(), b.desk.choice.shapes]).toEqual([
    ['a', 'b', 'c'],
    ['a', 'c'],
  ]);
});

it('frees groups in their place; what stood in them is chosen', () => {
  groupChosen(b.desk);
  freeChosenGroups(b.desk);
  expect(order()).toEqual(['b', 'a', 'c']);
  expect(chosenNodes(b.desk.choice, b.desk.art)).toEqual(['a', 'c']);
  expect(b.desk.history.done.at(-1)!.label).toBe('Free Group 1');
});

it('while something is previewed the group is made all the same, and stays chosen when the preview goes', () => {
  const recipe: Recipe = (draft) => void (draft.layers[0]!.name = 'Looked at');
  b.desk.makeOffer({ text: 'Look', label: 'Look', recipe, preview: true, passing: true });
  groupChosen(b.desk);
  expect(groupsChosen(b.desk)).toHaveLength(1);
  expect(findNode(b.desk.art, 'layer')!.node.name).not.toBe('Looked at');
});

it('layers are not grouped', () => {
  b.desk.choose({ ...chooseShapes([]), nodes: ['layer'] });
  groupChosen(b.desk);
  expect(b.desk.notice?.text).toContain('Layers are not grouped');
  expect(order()).toEqual(['a', 'b', 'c']);
});
