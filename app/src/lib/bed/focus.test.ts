import { beforeEach, describe, expect, it } from 'vitest';
import { groupNodes, parentOf, removeNodes, setNode } from '@mirrot/core';
import { chooseNodes, chooseShapes, chosenNodes, NOTHING_CHOSEN } from '$lib/desk/choice';
import { goInto } from '$lib/edits/grouping';
import { shapesAt } from './listing';
import { walkShapes } from './refine';
import { benchWith, shapeWith, square, type Bench } from './testing';

// a, b and c stand in Inner, which stands with d in Outer; e stands by itself.
let b: Bench;
const group = (id: string, name: string) =>
  ({ id, type: 'group', name, shown: true, locked: false, opacity: 1 }) as const;
beforeEach(() => {
  const shapes = ['a', 'b', 'c', 'd', 'e'].map((id, i) => shapeWith(id, [square(`p${id}`, 60 * i, 10, 40)]));
  b = benchWith(shapes, 'refine');
  b.desk.change('Group', groupNodes(['a', 'b', 'c'], group('inner', 'Inner')));
  b.desk.change('Group', groupNodes(['inner', 'd'], group('outer', 'Outer')));
  b.desk.choose(NOTHING_CHOSEN);
});
const middle = (i: number) => ({ x: 60 * i + 20, y: 30 });
const chosen = (): readonly string[] => chosenNodes(b.desk.choice, b.desk.art);
const focus = (): string | undefined => b.desk.choosing.focus?.id;

describe('a group is one thing', () => {
  it('a press on its inside, its line or its anchor chooses all of it', () => {
    for (const p of [middle(0), { x: 20, y: 10 }, { x: 0, y: 10 }]) {
      b.click({ x: 390, y: 290 });
      b.click(p);
      expect(chosen()).toEqual(['outer']);
      expect(b.desk.choice.shapes).toHaveLength(4);
    }
    expect(b.desk.choice.anchors).toEqual([]);
  });

  it('a drag moves all of it, and no line of it is bent', () => {
    b.click(middle(0));
    b.drag(middle(1), { x: middle(1).x, y: 80 });
    const y = (id: string): number => b.desk.shapeOf(id)!.paths[0]!.anchors[0]!.y;
    expect(['a', 'b', 'c', 'd', 'e'].map(y)).toEqual([60, 60, 60, 60, 10]);
  });

  it('Shift adds and takes out groups; a box takes those that lie wholly in it', () => {
    b.click(middle(4));
    b.click(middle(0), { shift: true });
    expect(chosen()).toEqual(['outer', 'e']);
    b.click(middle(2), { shift: true });
    expect(chosen()).toEqual(['e']);
    b.click({ x: 390, y: 290 });
    b.drag({ x: 55, y: 100 }, { x: 290, y: 2 });
    expect(chosen()).toEqual(['e']);
    b.drag({ x: -10, y: 100 }, { x: 290, y: 2 });
    expect(chosen()).toEqual(['outer', 'e']);
  });

  it('a shape of it that was chosen by itself can be shaped', () => {
    b.desk.choose(chooseShapes(['a'], 'path'));
    b.click({ x: 0, y: 10 });
    expect(b.desk.choice.anchors).toEqual([{ shape: 'a', path: 'pa', index: 0 }]);
  });
});

describe('focus', () => {
  it('a double-click goes in, one group at a time; leaving chooses what was left', () => {
    b.doubleClick(middle(0));
    expect([focus(), chosen()]).toEqual(['outer', ['inner']]);
    b.doubleClick(middle(0));
    expect([focus(), chosen()]).toEqual(['inner', ['a']]);
    expect(b.desk.choosing.leaveFocus()).toBe(true);
    expect([focus(), chosen()]).toEqual(['outer', ['inner']]);
    expect(b.desk.choosing.leaveFocus()).toBe(true);
    expect([focus(), chosen()]).toEqual([undefined, ['outer']]);
    expect(b.desk.choosing.leaveFocus()).toBe(false);
  });

  it('what stands outside is out of reach, for the pointer, the list of a spot and the keys', () => {
    goInto(b.desk, 'inner');
    b.click(middle(4));
    expect(chosen()).toEqual([]);
    b.click({ x: 240, y: 10 });
    expect(chosen()).toEqual([]);
    const at = { screen: middle(4), sheet: middle(4), shift: false, alt: false, type: 'mouse', time: 0, again: false } as const; // prettier-ignore
    expect(shapesAt(b.desk, at)).toEqual([]);
    const walked = [1, 2, 3].map(() => (walkShapes(b.desk, 1), chosen()[0]));
    expect(new Set(walked)).toEqual(new Set(['a', 'b', 'c']));
    b.click(middle(1));
    expect(chosen()).toEqual(['b']);
  });

  it('new paths go into it', () => {
    goInto(b.desk, 'inner');
    b.desk.open('block-in');
    b.click({ x: 10, y: 200 });
    b.click({ x: 60, y: 240 });
    expect(parentOf(b.desk.art, b.desk.live!.shape)?.id).toBe('inner');
  });

  it('ends where the group is hidden, locked or gone, and comes back with it', () => {
    goInto(b.desk, 'inner');
    b.desk.change('Hide', setNode('outer', { shown: false }));
    expect([focus(), b.desk.choosing.drawingParent]).toEqual([undefined, 'layer']);
    b.desk.undo();
    expect(focus()).toBe('inner');
    b.desk.change('Delete', removeNodes(['outer']));
    expect(focus()).toBeUndefined();
    expect(b.desk.choosing.inReach.map((s) => s.id)).toEqual(['e']);
    b.desk.undo();
    expect(b.desk.choosing.inReach.map((s) => s.id)).toEqual(['a', 'b', 'c']);
  });

  it('a locked group cannot be gone into', () => {
    b.desk.change('Lock', setNode('outer', { locked: true }));
    b.desk.choose(chooseNodes([]));
    goInto(b.desk, 'outer');
    expect([focus(), b.desk.notice?.text]).toEqual([
      undefined,
      'This group is hidden or locked. Show or unlock it to work in it.',
    ]);
  });
});
