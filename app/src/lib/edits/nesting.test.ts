import { beforeEach, describe, expect, it } from 'vitest';
import { childrenOf, findNode, groupNodes, setNode, type TreeNode } from '@mirrot/core';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { answersTo, placeInWords } from '$lib/columns/find-rows';
import { chooseNodes, chooseShapes } from '$lib/desk/choice';
import { isApart, turnApart } from './apart';
import { groupAround, groupBeside, moveIntoGroup, moveOutOfGroup } from './nesting';

let b: Bench;
beforeEach(() => {
  b = benchWith(['a', 'b', 'c', 'd'].map((id, i) => shapeWith(id, [square(`p${id}`, 60 * i, 10, 40)])), 'refine'); // prettier-ignore
  b.desk.change('Group', groupNodes(['b', 'c'], { id: 'g', type: 'group', name: 'Wheel', shown: true, locked: false, opacity: 1 })); // prettier-ignore
});
const tree = (nodes: readonly TreeNode[] = b.desk.art.layers): string =>
  nodes.map((n) => (n.type === 'shape' ? n.id : `${n.id}(${tree(childrenOf(n))})`)).join(' ');

describe('by keys', () => {
  it('moves what is chosen into the group below it, else above, and out again above it', () => {
    b.desk.choose(chooseShapes(['d']));
    moveIntoGroup(b.desk);
    expect(tree()).toBe('layer(a g(b c d))');
    expect(placeInWords(b.desk, 'd')).toBe('d, 1 of 3 in Wheel');
    expect(groupBeside(b.desk)).toBeNull();
    moveOutOfGroup(b.desk);
    expect(tree()).toBe('layer(a g(b c) d)');
    b.desk.choose(chooseShapes(['a']));
    moveIntoGroup(b.desk);
    expect(tree()).toBe('layer(g(b c a) d)');
    b.desk.undo();
    b.desk.undo();
    b.desk.undo();
    expect(tree()).toBe('layer(a g(b c) d)');
  });

  it('has nowhere to go with nothing chosen, or without a group', () => {
    b.desk.choose(chooseShapes([]));
    expect([groupBeside(b.desk), groupAround(b.desk)]).toEqual([null, null]);
    b.desk.choose(chooseNodes([findNode(b.desk.art, 'layer')!.node]));
    expect([groupBeside(b.desk), groupAround(b.desk)]).toEqual([null, null]);
  });
});

describe('set apart', () => {
  const state = (key: 'shown' | 'locked'): boolean[] =>
    ['a', 'b', 'c', 'g', 'd'].map((id) => findNode(b.desk.art, id)!.node[key]);

  it('shows only what is chosen, and by the same press just what it hid', () => {
    b.desk.change('Hide', setNode('d', { shown: false }));
    b.desk.choose(chooseShapes(['c']));
    turnApart(b.desk, 'hidden');
    expect(state('shown')).toEqual([false, false, true, true, false]);
    expect(isApart(b.desk, 'hidden')).toBe(true);
    b.desk.choose(chooseShapes([]));
    turnApart(b.desk, 'hidden');
    expect(state('shown')).toEqual([true, true, true, true, false]);
    expect(isApart(b.desk, 'hidden')).toBe(false);
  });

  it('locks all but what is chosen; undo of it leaves nothing to bring back', () => {
    b.desk.choose(chooseNodes([findNode(b.desk.art, 'g')!.node]));
    turnApart(b.desk, 'locked');
    expect(state('locked')).toEqual([true, false, false, false, true]);
    b.desk.undo();
    expect([state('locked').some(Boolean), isApart(b.desk, 'locked')]).toEqual([false, false]);
    turnApart(b.desk, 'locked');
    expect(state('locked')).toEqual([true, false, false, false, true]);
  });

  it('with all the rest hidden already it comes back, and with no rest it says so', () => {
    b.desk.choose(chooseShapes(['a']));
    for (const id of ['g', 'd']) b.desk.change('Hide', setNode(id, { shown: false }));
    turnApart(b.desk, 'hidden');
    expect(state('shown')).toEqual([true, true, true, true, true]);
    b.desk.choose(chooseNodes([findNode(b.desk.art, 'layer')!.node]));
    turnApart(b.desk, 'hidden');
    expect(b.desk.notice?.text).toBe('Nothing else is drawn.');
  });
});

it('rows are asked for by name, by what they are, and by the colour of what is chosen', () => {
  b.desk.change('Lock', setNode('d', { locked: true, name: 'Rim of the can' }));
  const found = (asked: Parameters<typeof answersTo>[0]): string[] =>
    ['layer', 'g', 'a', 'b', 'c', 'd'].filter((id) => answersTo(asked, b.desk)(findNode(b.desk.art, id)!.node)); // prettier-ignore
  expect(found({ text: ' CAN', only: 'all' })).toEqual(['d']);
  expect(found({ text: '', only: 'locked' })).toEqual(['d']);
  expect(found({ text: 'whe', only: 'locked' })).toEqual([]);
  expect(found({ text: '', only: 'open' })).toEqual([]);
  const fills = ['a', 'b', 'c', 'd'].filter((id) => b.desk.shapeOf(id)!.fill);
  expect(found({ text: '', only: 'unfilled' })).toEqual(['a', 'b', 'c', 'd'].filter((id) => !fills.includes(id))); // prettier-ignore
  b.desk.choose(chooseShapes(['a']));
  expect(found({ text: '', only: 'colour' })).toEqual(fills);
  expect(found({ text: '', only: 'drifting' })).toEqual([]);
});
