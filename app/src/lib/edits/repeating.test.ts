import { beforeEach, describe, expect, it, vi } from 'vitest';
import {
  findShape,
  isWholeRing,
  nodeBox,
  paintedLeaves,
  paintList,
  setDrawingAxis,
  shapesOf,
  WHOLE_TURN,
  type Box,
  type Group,
  type Repeat,
} from '@mirrot/core';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { chooseShapes, chosenNodes } from '$lib/desk/choice';
import { goInto, lonelyGroup } from './grouping';
import { nudge } from './nudging';
import {
  changeCount,
  changeRepeat,
  mirroredCopy,
  partChosen,
  repeatedGroup,
  ringAbout,
  rowOfChosen,
} from './repeating';

const fill = { fill: { hex: '#2f6b4f' } } as const;
let b: Bench;
beforeEach(() => {
  b = benchWith([shapeWith('hub', [square('ph', 190, 140, 20)], fill), shapeWith('spoke', [square('ps', 195, 60, 10)], fill)], 'refine'); // prettier-ignore
  b.desk.choose(chooseShapes(['spoke']));
});
const seen = (): number => paintedLeaves(paintList(b.desk.art)).length;
const ring = (): Extract<Repeat, { kind: 'ring' }> => repeatedGroup(b.desk)!.repeat as never;
const lead = (): { x: number; y: number } => {
  const { paths } = findShape(b.desk.art, 'spoke')!;
  const { x, y } = paths[0]!.anchors[0]!;
  return { x, y };
};

const expectBox = (wanted: Box): void => {
  for (const key of ['x0', 'y0', 'x1', 'y1'] as const)
    expect(b.desk.choosing.box![key]).toBeCloseTo(wanted[key], 9);
};

describe('copies that stay numbers', () => {
  it('stand round a centre that is pressed, which takes the middle of a shape near it', async () => {
    b.desk.pointing.task = { kind: 'ring-centre' };
    b.desk.habits.set({ snapOn: true });
    b.click({ x: 203, y: 152 });
    expect(b.desk.pointing.task).toBeNull();
    // What makes copies comes when it is wanted.
    await vi.waitFor(() => expect(repeatedGroup(b.desk)).not.toBeNull());
    expect(ring()).toMatchObject({ count: 6, x: 200, y: 150 });
    expect(repeatedGroup(b.desk)!.name).toBe('Ring of spoke');
    expect(seen()).toBe(7);
    b.desk.undo();
    expect([seen(), b.desk.choice.shapes]).toEqual([2, ['spoke']]);
  });

  it('a whole ring stays whole when there are more; changes of one number in a row are one step', () => {
    ringAbout(b.desk, { x: 200, y: 150 });
    changeCount(b.desk, 8);
    changeCount(b.desk, 12);
    expect(isWholeRing(ring())).toBe(true);
    changeRepeat(b.desk, { without: 2 }, 'without');
    expect(seen()).toBe(1 + 6);
    changeRepeat(b.desk, { without: undefined }, 'without');
    expect(ring()).not.toHaveProperty('without');
    changeRepeat(b.desk, { angle: 0.1 }, 'angle');
    changeCount(b.desk, 4);
    expect(ring().angle).toBe(0.1);
    expect(b.desk.history.done.filter(({ label }) => label === 'Change the copies')).toHaveLength(4);
  });

  it('a copy pressed is the whole, moved with its centre; what is on top of it is pressed first', () => {
    ringAbout(b.desk, { x: 200, y: 150 });
    const group = repeatedGroup(b.desk)!.id;
    b.click({ x: 10, y: 10 });
    // The copy at the bottom: half a turn from what leads.
    b.click({ x: 200, y: 235 });
    expect(chosenNodes(b.desk.choice, b.desk.art)).toEqual([group]);
    b.click({ x: 200, y: 150 });
    expect(chosenNodes(b.desk.choice, b.desk.art)).toEqual(['hub']);
    b.click({ x: 200, y: 65 });
    b.drag({ x: 200, y: 65 }, { x: 230, y: 65 });
    expect(ring()).toMatchObject({ x: 230, y: 150 });
    nudge(b.desk, { x: 0, y: 5 });
    expect(ring()).toMatchObject({ x: 230, y: 155 });
    expect(lead()).toEqual({ x: 225, y: 65 });
    expect(b.desk.choosing.box).toEqual(nodeBox(b.desk.art, group));
  });

  it('worked in, what leads moves by itself and the copies follow', () => {
    ringAbout(b.desk, { x: 200, y: 150 });
    const group = repeatedGroup(b.desk)!.id;
    goInto(b.desk, group);
    expect(b.desk.choice.shapes).toEqual(['spoke']);
    nudge(b.desk, { x: 0, y: -20 });
    const { repeat } = b.desk.art.layers[0]!.children[1] as Group;
    expect(repeat).toMatchObject({ x: 200, y: 150 });
    expect(nodeBox(b.desk.art, group).y1).toBeCloseTo(260, 6);
  });

  it('stand in a row beside what is chosen, a group that is chosen alone as it is', () => {
    rowOfChosen(b.desk);
    expect(repeatedGroup(b.desk)).toMatchObject({ name: 'Row of spoke', repeat: { kind: 'row', count: 3, x: 11, y: 0 } }); // prettier-ignore
    const { id } = lonelyGroup(b.desk)!;
    changeRepeat(b.desk, { x: 40, y: 8 }, 'x');
    expect(nodeBox(b.desk.art, id)).toEqual({ x0: 195, y0: 60, x1: 285, y1: 86 });
    // Once more: a row of the row.
    rowOfChosen(b.desk);
    expect(repeatedGroup(b.desk)!.id).not.toBe(id);
    expect(seen()).toBe(1 + 9);
  });

  it('parted, they are shapes of their own that look the same', () => {
    ringAbout(b.desk, { x: 200, y: 150 });
    const before = nodeBox(b.desk.art, repeatedGroup(b.desk)!.id);
    partChosen(b.desk);
    expect(repeatedGroup(b.desk)).toBeNull();
    expect(shapesOf(b.desk.art)).toHaveLength(7);
    expect(b.desk.choice.shapes).toHaveLength(6);
    const after = nodeBox(b.desk.art, lonelyGroup(b.desk)!.id);
    for (const key of ['x0', 'y0', 'x1', 'y1'] as const) expect(after[key]).toBeCloseTo(before[key], 9);
    b.desk.undo();
    expect(ring().angle).toBeCloseTo(WHOLE_TURN / 6, 12);
  });

  it('a mirrored copy meets what it is of at its right side, or across the axis that is drawn about', () => {
    mirroredCopy(b.desk);
    expectBox({ x0: 205, y0: 60, x1: 215, y1: 70 });
    expect(b.desk.art.layers[0]!.children.map(({ name }) => name)).toEqual(['hub', 'spoke', 'spoke 2']);
    b.desk.undo();
    b.desk.change('Axis', setDrawingAxis({ kind: 'mirror', x: 0, y: 100, angle: 0 }));
    mirroredCopy(b.desk);
    expectBox({ x0: 195, y0: 130, x1: 205, y1: 140 });
  });

  it('layers do not stand several times', () => {
    b.desk.choose({ ...chooseShapes([]), nodes: ['layer'] });
    rowOfChosen(b.desk);
    expect(b.desk.notice?.text).toContain('Layers do not stand several times');
  });
});
