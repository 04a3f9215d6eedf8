import { describe, expect, it } from 'vitest';
import { corner } from '@mirrot/core';
import { handleGrip, hitEnd, nearEnds, visibleHandles } from '$lib/bed/hit';
import { fieldOf } from '$lib/bed/hit';
import { benchWith, shapeWith, smooth, square } from '$lib/bed/testing';
import { chooseAnchors, chooseShapes, choiceInWords, isAnchorChosen, NOTHING_CHOSEN, stillThere, toggledAnchor } from './choice'; // prettier-ignore

const two = () =>
  benchWith(
    [shapeWith('Leaf', [square('l', 0, 0, 50)]), shapeWith('Stem', [square('s', 80, 0, 50)])],
    'refine',
  );
const ref = (index: number) => ({ shape: 'Leaf', path: 'l', index });

describe('what is chosen', () => {
  it('is said in words', () => {
    const { desk } = two();
    const say = (choice: Parameters<typeof choiceInWords>[0]): string => choiceInWords(choice, desk.art);
    expect(say(NOTHING_CHOSEN)).toBe('nothing chosen');
    expect(say(chooseShapes(['Leaf']))).toBe('Leaf');
    expect(say(chooseShapes(['Leaf', 'Stem']))).toBe('2 shapes');
    expect(say(chooseAnchors([ref(2)]))).toBe('anchor 3 of 4, corner, x 50.0 px, y 50.0 px');
    expect(say(chooseAnchors([ref(0), ref(1), ref(2)]))).toBe('3 anchors');
    expect(say({ ...chooseShapes(['Leaf']), segment: { shape: 'Leaf', path: 'l', segment: 1 } })).toBe(
      '1 segment',
    );
    expect(say({ ...chooseShapes(['Leaf']), handle: { ...ref(1), side: 'in' } })).toContain(
      'arriving handle',
    );
    expect(say(chooseShapes(['gone']))).toBe('nothing chosen');
  });

  it('takes an anchor in and out again', () => {
    const one = toggledAnchor(chooseShapes(['Leaf'], 'path'), ref(1));
    expect(isAnchorChosen(one, ref(1))).toBe(true);
    expect(isAnchorChosen(toggledAnchor(one, ref(1)), ref(1))).toBe(false);
    expect(toggledAnchor(one, { shape: 'Stem', path: 's', index: 0 }).shapes).toEqual(['Leaf', 'Stem']);
  });

  it('loses what the document no longer has, and only that', () => {
    const { desk } = two();
    const choice = { ...chooseAnchors([ref(0), ref(9)]), handle: { ...ref(9), side: 'in' as const } };
    const left = stillThere(choice, desk.art);
    expect(left.anchors).toEqual([ref(0)]);
    expect(left.handle).toBeNull();
    const whole = chooseShapes(['Leaf', 'Stem']);
    expect(stillThere(whole, desk.art)).toBe(whole);
    expect(stillThere(chooseShapes(['Leaf', 'gone']), desk.art).shapes).toEqual(['Leaf']);
  });

  it('is brought back by undo, as it was when the step was made', () => {
    const b = two();
    b.desk.choose(chooseAnchors([ref(0)]));
    b.drag({ x: 0, y: 0 }, { x: -20, y: -20 });
    b.desk.choose(chooseShapes(['Stem']));
    b.desk.undo();
    expect(b.desk.choice.anchors).toEqual([ref(0)]);
    b.desk.redo();
    expect(b.desk.choice.anchors).toEqual([ref(0)]);
  });
});

describe('handles in sight', () => {
  const wave = {
    id: 'w',
    closed: false,
    anchors: [0, 1, 2, 3, 4].map((i) => smooth(i * 50, 0, { x: 15, y: 10 })),
  };

  it('are those of chosen anchors and their two neighbours', () => {
    const shape = shapeWith('Wave', [wave]);
    const of = (index: number): number[] => [
      ...new Set(
        visibleHandles(shape, chooseAnchors([{ shape: 'Wave', path: 'w', index }])).map((h) => h.index),
      ),
    ];
    expect(of(2)).toEqual([1, 2, 3]);
    expect(of(0)).toEqual([0, 1]);
    const round = shapeWith('Wave', [{ ...wave, closed: true }]);
    expect([...new Set(visibleHandles(round, chooseAnchors([{ shape: 'Wave', path: 'w', index: 0 }])).map((h) => h.index))].sort()).toEqual([0, 1, 4]); // prettier-ignore
    expect(visibleHandles(shape, NOTHING_CHOSEN)).toEqual([]);
  });

  it('shorter than 12 screen px are taken 14 px out, longer ones at their end', () => {
    const a = smooth(0, 0, { x: 10, y: 0 });
    expect(handleGrip(a, 'out', 1)).toEqual({ x: 14, y: 0 });
    expect(handleGrip(a, 'out', 2)).toEqual({ x: 10, y: 0 });
    expect(handleGrip(corner(0, 0), 'out', 1)).toBeNull();
  });
});

describe('ends of open paths', () => {
  const open = shapeWith('Line', [{ id: 'o', closed: false, anchors: [corner(0, 0), corner(100, 0)] }]);
  const field = (reach: 'mouse' | 'touch') => fieldOf(benchWith([open]).desk, { type: reach });

  it('are within an anchor’s reach, larger for a finger, and not the path’s own', () => {
    expect(hitEnd(field('mouse'), { x: 107, y: 0 }, null)).toMatchObject({ end: 'end', ref: { index: 1 } });
    expect(hitEnd(field('mouse'), { x: 112, y: 0 }, null)).toBeNull();
    expect(hitEnd(field('touch'), { x: 112, y: 0 }, null)).toMatchObject({ end: 'end' });
    expect(hitEnd(field('mouse'), { x: 0, y: 0 }, 'o')).toBeNull();
  });

  it('show their rings only near the pointer', () => {
    expect(nearEnds(field('mouse'), { x: 90, y: 10 }, 60, null)).toEqual([corner(100, 0)]);
    expect(nearEnds(field('mouse'), { x: 50, y: 0 }, 60, null)).toHaveLength(2);
    expect(nearEnds(field('mouse'), { x: 50, y: 0 }, 60, 'o')).toEqual([]);
  });
});
