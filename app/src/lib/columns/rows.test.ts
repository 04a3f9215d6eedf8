import { describe, expect, it } from 'vitest';
import { addLayer, addNode, changeArt, emptyArt, setNode, together } from '@mirrot/core';
import { shapeWith, square } from '$lib/bed/testing';
import { rowsInSight, stackRows } from './rows';

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

  it('are made only where they are in sight', () => {
    expect(rowsInSight(2000, 38, 0, 600)).toEqual({ from: 0, to: 22 });
    const { from, to } = rowsInSight(2000, 38, 38 * 1000, 600);
    expect(from).toBeLessThanOrEqual(1000);
    expect(to).toBeGreaterThanOrEqual(1016);
    expect(rowsInSight(3, 38, 0, 600)).toEqual({ from: 0, to: 3 });
  });
});
