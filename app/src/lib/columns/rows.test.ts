import { describe, expect, it } from 'vitest';
import { addLayer, addNode, changeArt, emptyArt, findNode, moveLayers, moveNodes, setNode, setUnmeasured, together, type Art, type TreeNode } from '@mirrot/core'; // prettier-ignore
import { shapeWith, square } from '$lib/bed/testing';
import { dropOn, rowsFound, rowStep, stackRows, type Drop } from './rows';

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
      together(setNode('low', { locked: true }), setNode('g', { shown: false }), setUnmeasured(['g'], true)),
    ).art;
    expect(stackRows(shut, new Set()).find((r) => r.node.id === 'b')).toMatchObject({
      hidden: true,
      shut: true,
      unmeasured: true,
    });
    expect(stackRows(shut, new Set()).find((r) => r.node.id === 'a')).toMatchObject({
      hidden: false,
      shut: true,
      unmeasured: false,
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

describe('a drop on a row', () => {
  const none: ReadonlySet<string> = new Set();
  const rows = stackRows(art, none);
  const nodes = (...ids: string[]): TreeNode[] => ids.map((id) => findNode(art, id)!.node);
  const on = (row: string, share: number, ids: string[], folded = false): Drop | null =>
    dropOn(
      art,
      rows.find((r) => r.node.id === row)!,
      share,
      nodes(...ids),
      folded,
    );
  /** The tree after it, in words. */
  const after = (row: string, share: number, ids: string[], folded = false): string | null => {
    const place = on(row, share, ids, folded)?.place;
    if (!place) return null;
    const move = place.parent === null ? moveLayers(ids, place.index) : moveNodes(ids, place.parent, place.index); // prettier-ignore
    const words = (list: readonly TreeNode[]): string => list.map((n) => ('children' in n ? `${n.id}(${words(n.children)})` : n.id)).join(' '); // prettier-ignore
    const { layers }: Art = changeArt(art, move).art;
    return words(layers);
  };

  it.each([
    ['a', 0.2, ['c'], 'low(a c g(b)) high()'],
    ['a', 0.8, ['c'], 'low(c a g(b)) high()'],
    ['g', 0.1, ['a'], 'low(g(b c) a) high()'],
    ['g', 0.5, ['a'], 'low(g(b c a)) high()'],
    ['b', 0.9, ['a'], 'low(g(a b c)) high()'],
    ['high', 0.1, ['g', 'a'], 'low() high(a g(b c))'],
    ['low', 0.9, ['c'], 'low(a g(b) c) high()'],
    ['low', 0.9, ['high'], 'high() low(a g(b c))'],
    ['high', 0.1, ['low'], 'high() low(a g(b c))'],
  ])('on %s at %d of its height takes %j there', (row, share, ids, tree) => {
    expect(after(row, share, ids)).toBe(tree);
  });

  it('below the head of an open group is its top, of a folded one below it', () => {
    expect(after('g', 0.9, ['a'])).toBe('low(g(b c a)) high()');
    expect(after('g', 0.9, ['a'], true)).toBe('low(a g(b c)) high()');
    expect(on('g', 0.9, ['a'])!.depth).toBe(2);
  });

  it('is none into itself, on itself, or of a layer into another', () => {
    expect(on('c', 0.2, ['g'])).toBeNull();
    expect(on('g', 0.5, ['g'])).toBeNull();
    expect(on('a', 0.2, ['high'])).toBeNull();
    expect(on('high', 0.2, ['low', 'a'])).toBeNull();
    expect(on('a', 0.2, [])).toBeNull();
  });

  it('rows that are asked for come with what they stand in', () => {
    const found = (wanted: string) => rowsFound(rows, (n) => n.id === wanted).map((r) => r.node.id);
    expect(found('b')).toEqual(['low', 'g', 'b']);
    expect(found('high')).toEqual(['high']);
    expect(found('nobody')).toEqual([]);
  });
});
