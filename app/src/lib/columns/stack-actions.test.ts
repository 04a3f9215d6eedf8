import { beforeEach, describe, expect, it } from 'vitest';
import { groupNodes, setNode } from '@mirrot/core';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { chosenNodes, NOTHING_CHOSEN } from '$lib/desk/choice';
import { goInto } from '$lib/edits/grouping';
import { deleteChosen } from '$lib/edits/shaping';
import { stackRows } from './rows';
import { addNewLayer, pressRow } from './stack-actions';

let b: Bench;
beforeEach(() => {
  b = benchWith(['a', 'b', 'c'].map((id, i) => shapeWith(id, [square(`p${id}`, 60 * i, 10, 40)])), 'refine'); // prettier-ignore
  b.desk.change('Group', groupNodes(['a', 'b'], { id: 'g', type: 'group', name: 'Wheel', shown: true, locked: false, opacity: 1 })); // prettier-ignore
  b.desk.choose(NOTHING_CHOSEN);
});
const press = (id: string, adding = false): void =>
  pressRow(
    b.desk,
    stackRows(b.desk.art, new Set()).find((r) => r.node.id === id)!,
    adding,
  );
const chosen = (): readonly string[] => chosenNodes(b.desk.choice, b.desk.art);

describe('a press on a row', () => {
  it('of a layer draws on it, and once more chooses all of it: it can be moved, and deleted', () => {
    addNewLayer(b.desk);
    press('layer');
    expect([b.desk.choosing.layer, chosen()]).toEqual(['layer', []]);
    press('layer');
    expect([chosen(), b.desk.choice.shapes]).toEqual([['layer'], ['a', 'b', 'c']]);
    deleteChosen(b.desk);
    expect(b.desk.art.layers.map((l) => l.name)).toEqual(['Layer 2']);
    b.desk.undo();
    expect(b.desk.art.layers).toHaveLength(2);
  });

  it('of a group or shape chooses it; Shift adds groups and shapes, and takes them out again', () => {
    press('g');
    press('c', true);
    expect(chosen()).toEqual(['g', 'c']);
    press('g', true);
    expect(chosen()).toEqual(['c']);
    press('a');
    expect([chosen(), b.desk.choice.level]).toEqual([['a'], 'path']);
  });

  it('outside the group that is worked in leaves it; within, it goes on', () => {
    goInto(b.desk, 'g');
    press('b');
    expect([b.desk.choosing.focus?.id, chosen()]).toEqual(['g', ['b']]);
    press('c');
    expect([b.desk.choosing.focus, chosen()]).toEqual([null, ['c']]);
  });

  it('of what is locked or hidden, by itself or by what it stands in, chooses nothing and says why', () => {
    b.desk.change('Lock', setNode('g', { locked: true }));
    press('a');
    expect([chosen(), b.desk.notice?.text]).toEqual([[], 'a is locked, so it cannot be chosen.']);
    b.desk.change('Hide', setNode('c', { shown: false }));
    press('c');
    expect([chosen(), b.desk.notice?.text]).toEqual([[], 'c is hidden, so it cannot be chosen.']);
  });
});
