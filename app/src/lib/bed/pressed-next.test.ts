import { beforeEach, expect, it } from 'vitest';
import { styleShapes } from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import { layBackgroundOf } from '$lib/edits/background';
import { foresee } from './foresight';
import { benchWith, shapeWith, square, type Bench } from './testing';

let b: Bench;
beforeEach(() => {
  b = benchWith(['a', 'b', 'c'].map((id, i) => shapeWith(id, [square(`p${id}`, 100 * i, 10, 40)])), 'refine'); // prettier-ignore
  b.desk.choose(chooseShapes(['c']));
});
const order = (): string[] => b.desk.art.layers[0]!.children.map((n) => n.id);

it('what is chosen goes right beneath the shape pressed next, once', () => {
  b.desk.pointing.task = { kind: 'go-under' };
  b.click({ x: 390, y: 290 });
  expect([order(), b.desk.notice?.text]).toEqual([
    ['a', 'b', 'c'],
    'There is no shape here. Press one, or Esc leaves it.',
  ]);
  const at = { sheet: { x: 20, y: 30 }, screen: { x: 0, y: 0 }, shift: false, alt: false, type: 'mouse', time: 0, again: false } as const; // prettier-ignore
  expect(foresee(b.desk, at)).toEqual({ kind: 'inside', shape: 'a' });
  b.click({ x: 20, y: 30 });
  expect([order(), b.desk.pointing.task, b.desk.choice.shapes]).toEqual([['c', 'a', 'b'], null, ['c']]);
  b.click({ x: 20, y: 30 });
  expect([order(), b.desk.choice.shapes]).toEqual([['c', 'a', 'b'], ['a']]);
});

it('under itself nothing goes', () => {
  b.desk.pointing.task = { kind: 'go-under' };
  b.click({ x: 220, y: 30 });
  expect([order(), b.desk.notice?.text]).toEqual([
    ['a', 'b', 'c'],
    'c is itself chosen, so nothing was moved. Press another.',
  ]);
});

it('takes the look of the shape pressed next, also on its line', () => {
  b.desk.change('Fill', styleShapes(['b'], { fill: { hex: '#d4561c' }, opacity: 0.5 }));
  b.desk.choose(chooseShapes(['a', 'c']));
  b.desk.pointing.task = { kind: 'take-look' };
  b.click({ x: 120, y: 10 });
  for (const id of ['a', 'c'])
    expect([b.desk.shapeOf(id)!.fill, b.desk.shapeOf(id)!.opacity]).toEqual([{ hex: '#d4561c' }, 0.5]);
  expect(b.desk.history.done.at(-1)!.label).toBe('Take the look of b');
});

it('a background takes a chip of its own, and is laid anew round what is painted since', () => {
  layBackgroundOf(b.desk, 'drawing');
  expect(b.desk.notice?.text).toBe('Nothing is painted yet, so there is nothing to lay a background round.');
  b.desk.change('Fill', styleShapes(['a', 'b'], { fill: { hex: '#d4561c' } }));
  layBackgroundOf(b.desk, 'drawing');
  const box = (): (number | undefined)[] => {
    const shape = b.desk.art.layers[0]!.children[0]!;
    const form = shape.type === 'shape' ? shape.paths[0]!.form : undefined;
    return [form?.x, form?.width, form?.height].map((v) => v && Number(v.toFixed(6)));
  };
  expect(box()).toEqual([70, 162.4, 62.4]);
  expect(b.desk.art.chips.map((c) => c.name)).toEqual(['Background']);
  layBackgroundOf(b.desk, 'drawing');
  expect(box()).toEqual([70, 162.4, 62.4]);
  layBackgroundOf(b.desk, 'sheet');
  expect(box()).toEqual([200, 400, 300]);
  expect([b.desk.art.chips.length, order().length]).toEqual([1, 4]);
});
