import { describe, expect, it } from 'vitest';
import { addLayer, addNode, changeArt, emptyArt, setNode, together } from '@mirrot/core';
import { shapeWith, square } from '$lib/bed/testing';
import { rowStep, stackRows } from './rows';

const blank = emptyArt({ width: 10, height: 10, unit: 'px' }, 'low');
const art = changeArt(
  blank,
  together(
    addNode('low', shapeWith('a', [square('pa', 0, 0, 1)])),
    addNode('low', {
      id: 'g', type: 'group', name: 'Group', shown: true, locked: false, opacity: 1,
      children: [shapeWith('b', [square('pb', 0, 0, 1)]), shapeWith('c', [square('pc', 0, 0, 1)])],
    }),
    addLayer({ ...blank.layers[0]!, id: 'high', name: 'High' }, 'low'),
  ),
).art; // prettier-ignore

describe('rows of the stack', () => {
  it('stand top first, as they are painted last', () => {
    expect(stackRows(art, new Set()).map((r) => [r.node.id, r.depth])).toEqual([
      ['high', 0],
      ['low', 0],
      ['g', 1],
      ['c', 2],
      ['b', 2],
      ['a', 1],
    ]);
  });

  it('leave out what is folded, and pass on hiding and locks', () => {
    expect(stackRows(art, new Set(['g'])).map((r) => r.node.id)).toEqual(['high', 'low', 'g', 'a']);
    const shut = changeArt(
      art,
      together(setNode('low', { locked: true }), setNode('g', { shown: false })),
    ).art;
    expect(stackRows(shut, new Set()).find((r) => r.node.id === 'b')).toMatchObject({
      hidden: true,
      shut: true,
    });
    expect(stackRows(shut, new Set()).find((r) => r.node.id === 'a')).toMatchObject({
      hidden: false,
      shut: true,
    });
  });

  it('say their place among those beside them, and what they stand in', () => {
    const of = (id: string) => stackRows(art, new Set()).find((r) => r.node.id === id);
    expect(of('low')).toMatchObject({ parent: null, place: 2, beside: 2 });
    expect(of('g')).toMatchObject({ parent: 'low', place: 1, beside: 2 });
    expect(of('b')).toMatchObject({ parent: 'g', place: 2, beside: 2 });
  });
});

describe('keys in the stack', () => {
  const none = new Set<string>();
  const rows = stackRows(art, none);
  const at = (id: string): number => rows.findIndex((r) => r.node.id === id);
  const step = (id: string, key: string, folded = none) => rowStep(rows, at(id), key, folded, 3);

  it('walk up and down, by pages and to either end, and stop there', () => {
    expect(step('high', 'ArrowDown')).toEqual({ to: at('low') });
    expect(step('high', 'ArrowUp')).toEqual({ to: 0 });
    expect(step('high', 'PageDown')).toEqual({ to: 3 });
    expect(step('b', 'PageDown')).toEqual({ to: rows.length - 1 });
    expect(step('b', 'Home')).toEqual({ to: 0 });
    expect(step('high', 'End')).toEqual({ to: rows.length - 1 });
  });

  it('open with right, then go to the row’s controls; close with left, then go to what it stands in', () => {
    expect(step('g', 'ArrowRight', new Set(['g']))).toEqual({ fold: 'g', open: true });
    expect(step('g', 'ArrowRight')).toEqual({ into: true });
    expect(step('g', 'ArrowLeft')).toEqual({ fold: 'g', open: false });
    expect(step('c', 'ArrowLeft')).toEqual({ to: at('g') });
    expect(step('high', 'ArrowLeft', new Set(['high']))).toBeNull();
    expect(step('c', 'x')).toBeNull();
    expect(rowStep([], 0, 'ArrowDown', none, 3)).toBeNull();
  });
});
