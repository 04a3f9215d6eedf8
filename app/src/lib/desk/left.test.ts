import { expect, it, vi } from 'vitest';
import { benchWith, shapeWith, square } from '$lib/bed/testing';
import { chooseShapes, NOTHING_CHOSEN } from './choice';
import { goOnWhereLeft, keepInTab, takeFromTab, whereLeft } from './left';
import { toSheet } from './view';

const shapes = [shapeWith('a', [square('p', 0, 0, 10)]), shapeWith('b', [square('q', 20, 0, 10)])];

it('a desk goes on where one like it was left, whatever the bed’s size is now', () => {
  const one = benchWith(shapes, 'refine').desk;
  one.looking.bed = { width: 900, height: 500 };
  one.looking.jump({ scale: 7.5, tx: -120, ty: 33 });
  one.choose(chooseShapes(['b'], 'path'));
  const left = JSON.parse(JSON.stringify(whereLeft(one))) as ReturnType<typeof whereLeft>;
  const two = benchWith(shapes, 'mount').desk;
  goOnWhereLeft(two, left);
  two.looking.bed = { width: 400, height: 300 };
  two.looking.begin();
  expect(two.step).toBe('refine');
  expect(two.choice).toEqual(one.choice);
  expect(two.looking.view.scale).toBe(7.5);
  const middle = toSheet(two.looking.view, { x: 200, y: 150 });
  expect(middle.x).toBeCloseTo(left.middle.x, 9);
  expect(middle.y).toBeCloseTo(left.middle.y, 9);
});

it('what is not there any more is not chosen, and thousands are not remembered', () => {
  const one = benchWith(shapes, 'colour').desk;
  goOnWhereLeft(one, {
    ...whereLeft(one),
    choice: { ...NOTHING_CHOSEN, shapes: ['gone', 'a'], nodes: [], anchors: [] },
  });
  expect(one.choice.shapes).toEqual(['a']);
  const many = Array.from({ length: 300 }, (_, i) => shapeWith(`s${i}`, [square(`p${i}`, i, 0, 1)]));
  const two = benchWith(many, 'colour').desk;
  two.choose(chooseShapes(many.map(({ id }) => id)));
  expect(whereLeft(two).choice.shapes).toEqual([]);
});

it('a page that is loaded anew goes on where this tab left the project, once', () => {
  const held = new Map<string, string>();
  vi.stubGlobal('sessionStorage', {
    getItem: (key: string) => held.get(key) ?? null,
    setItem: (key: string, value: string) => void held.set(key, value),
    removeItem: (key: string) => void held.delete(key),
  });
  const left = whereLeft(benchWith(shapes, 'refine').desk);
  keepInTab('one', left);
  expect(takeFromTab('one')).toEqual(left);
  expect(takeFromTab('one')).toBeNull();
  keepInTab('one', left);
  expect(takeFromTab('another')).toBeNull();
  held.set('mirrot-left', 'not json');
  expect(takeFromTab('one')).toBeNull();
  vi.unstubAllGlobals();
  expect(takeFromTab('one')).toBeNull();
});

it('with nothing remembered the whole sheet is seen first', () => {
  const { desk } = benchWith(shapes, 'mount');
  desk.looking.begin();
  const { view } = desk.looking;
  desk.looking.fit();
  expect(desk.looking.view).toEqual(view);
});
