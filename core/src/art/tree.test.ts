import { describe, expect, it } from 'vitest';
import { seeded } from '../testing';
import { readArt } from './check';
import { applyPatches, changeArt, type Recipe } from './change';
import { holdingsOf } from './holdings';
import {
  addLayer,
  addNode,
  freeGroups,
  groupNodes,
  moveLayers,
  moveNodes,
  removeNodes,
  restack,
  setClip,
  setCovering,
  setMeant,
  setUnmeasured,
  takeOff,
  together,
} from './edits';
import { DEEPEST_GROUP } from './limits';
import type { Art, Group, Layer } from './schema';
import { groupOf, shapeOf, withShapes } from './testing';
import { ancestorsOf, byType, childrenOf, findNode, inPaintOrder, layerOf, nodePlaces, nodesBeside, outermost, parentOf, placedById, shapesIn, shapesOf, type TreeNode } from './tree'; // prettier-ignore

const changed = (art: Art, ...recipes: Recipe[]): Art => changeArt(art, together(...recipes)).art;
const empty = (id: string): Layer => ({ id, type: 'layer', name: id, shown: true, locked: false, opacity: 1, ink: null, children: [] }); // prettier-ignore
const group = (id: string): Omit<Group, 'children'> => ({ id, type: 'group', name: id, shown: true, locked: false, opacity: 1 }); // prettier-ignore

/** The tree in words: "layer(a g(b c))", bottom first. */
const inWords = (nodes: readonly TreeNode[]): string =>
  nodes.map((n) => (n.type === 'shape' ? n.id : `${n.id}(${inWords(childrenOf(n))})`)).join(' ');
const tree = (art: Art): string => inWords(art.layers);

const start = changed(
  withShapes(
    shapeOf('a'),
    groupOf('g', shapeOf('b'), groupOf('h', shapeOf('c'), shapeOf('d'))),
    shapeOf('e'),
  ),
  addLayer(empty('upper'), 'layer'),
);

describe('the tree', () => {
  it('says where each node stands, with the places of all known or not', () => {
    for (const known of [false, true]) {
      const art = { ...start, layers: [...start.layers] };
      if (known) nodePlaces(art);
      expect(ancestorsOf(art, 'd').map((n) => n.id)).toEqual(['h', 'g', 'layer']);
      expect(ancestorsOf(art, 'layer')).toEqual([]);
      expect(ancestorsOf(art, 'nobody')).toEqual([]);
      expect(parentOf(art, 'c')!.id).toBe('h');
      expect(parentOf(art, 'upper')).toBeNull();
      expect(findNode(art, 'd')).toMatchObject({ index: 1, node: { id: 'd' }, parent: { id: 'h' } });
      expect(layerOf(art, 'c')!.id).toBe('layer');
      expect(layerOf(art, 'upper')!.id).toBe('upper');
      expect(layerOf(art, 'nobody')).toBeNull();
    }
  });

  it('says what is left out of drift, by itself or by what it stands in, and measures it again', () => {
    const measured = (art: Art): string => shapesOf(art).flatMap((p) => (p.measured ? [p.shape.id] : [])).join(''); // prettier-ignore
    expect(measured(start)).toBe('abcde');
    const out = changed(start, setUnmeasured(['h', 'a'], true), setMeant(['e'], true));
    expect(measured(out)).toBe('b');
    expect(measured(changed(out, setUnmeasured(['layer'], true)))).toBe('');
    expect(measured(changed(out, setUnmeasured(['a', 'h', 'nobody'], false), setMeant(['e'], false)))).toBe('abcde'); // prettier-ignore
    expect([placedById(out, 'c'), placedById(out, 'nobody')]).toMatchObject([{ measured: false, shown: true }, null]); // prettier-ignore
    readArt(JSON.parse(JSON.stringify(out)));
  });

  it('has an order of painting, and knows what stands in what', () => {
    expect(inPaintOrder(start, ['e', 'd', 'nobody', 'a', 'g', 'd'])).toEqual(['a', 'g', 'd', 'e']);
    expect(outermost(start, ['d', 'g', 'e', 'b'])).toEqual(['g', 'e']);
    expect(shapesIn(findNode(start, 'g')!.node).map((s) => s.id)).toEqual(['b', 'c', 'd']);
    const words = (id: string): string =>
      byType(findNode(start, id)!.node, { layer: () => 'layer', group: () => 'group', shape: () => 'shape', picture: () => 'picture' }); // prettier-ignore
    expect(['layer', 'g', 'a'].map(words)).toEqual(['layer', 'group', 'shape']);
  });
});

describe('moving nodes', () => {
  it('and changing them in one step changes nothing of the drawing before', () => {
    // Frozen: a shape changed where it stood, or in the group it is put into, would throw.
    const start = withShapes(
      groupOf('g', shapeOf('a')),
      shapeOf('b'),
      shapeOf('c', { fill: { hex: '#2f6b4f' } }),
    );
    const whole = { id: 'k', type: 'group', name: 'K', shown: true, locked: false, opacity: 1 } as const;
    const { art, inverse } = changeArt(start, (draft) => {
      groupNodes(['b', 'c'], whole)(draft);
      moveNodes(['g'], 'k', 1)(draft);
      for (const id of ['a', 'b', 'c', 'g', 'k']) setCovering([id], { opacity: 0.5 })(draft);
      setClip('k', 'c')(draft);
      takeOff(['c'], 'fill')(draft);
    });
    expect(applyPatches(art, inverse)).toEqual(start);
    expect(findNode(art, 'c')!.node).toMatchObject({ opacity: 0.5, fill: null });
    expect(findNode(art, 'a')!.node.opacity).toBe(0.5);
    expect((findNode(art, 'k')!.node as Group).children.map(({ id }) => id)).toEqual(['b', 'g', 'c']);
  });

  it.each([
    [['a'], 'h', 0, 'layer(g(b h(a c d)) e) upper()'],
    [['a'], 'h', undefined, 'layer(g(b h(c d a)) e) upper()'],
    [['e', 'b'], 'layer', 0, 'layer(b e a g(h(c d))) upper()'],
    [['a', 'e'], 'layer', 3, 'layer(g(b h(c d)) a e) upper()'],
    [['e'], 'layer', 1, 'layer(a e g(b h(c d))) upper()'],
    [['d', 'g'], 'upper', 0, 'layer(a e) upper(g(b h(c d)))'],
    // A group is not moved into itself, a layer not into another, nothing into a shape.
    [['g'], 'h', 0, tree(start)],
    [['layer'], 'upper', 0, tree(start)],
    [['b'], 'a', 0, tree(start)],
    [['nobody'], 'g', 0, tree(start)],
  ])('%j into %s at %s', (ids, parent, index, after) => {
    expect(tree(changed(start, moveNodes(ids, parent, index)))).toBe(after);
  });

  it('keeps everything there once, whatever is moved where', () => {
    const random = seeded(4);
    const all = [...nodePlaces(start).keys()];
    const any = (): string => all[Math.floor(random() * all.length)]!;
    let art = start;
    for (let k = 0; k < 400; k++) {
      art = changed(art, moveNodes(Array.from({ length: 1 + Math.floor(random() * 3) }, any), any(), Math.floor(random() * 5))); // prettier-ignore
      expect([...nodePlaces(art).keys()].sort()).toEqual([...all].sort());
      holdingsOf(art);
    }
  });

  it('restacks and groups among two thousand at the cost of what moves, there and back', () => {
    const names = Array.from({ length: 2000 }, (_, i) => `s${i}`);
    const art = withShapes(...names.map((name) => shapeOf(name)));
    const few = ['s3', 's900', 's901', 's1999'];
    for (const [recipe, most] of [
      [restack(['s0'], 'top'), 2],
      [restack(few, 'bottom'), 8],
      [restack(few, 'up'), 8],
      [moveNodes(few, 'layer', 1000), 8],
      [groupNodes(few, group('new')), 5],
    ] as const) {
      const { patches, inverse, art: next } = changeArt(art, recipe);
      expect(patches.length).toBeLessThanOrEqual(most);
      expect(inverse.length).toBeLessThanOrEqual(most);
      expect(applyPatches(art, patches)).toEqual(next);
      expect(applyPatches(next, inverse)).toEqual(art);
    }
    expect(tree(changed(art, restack(few, 'bottom'))).slice(0, 31)).toBe('layer(s3 s900 s901 s1999 s0 s1 ');
  });

  it('moves layers as asked, by chance as by hand, and loses none', () => {
    const layered = changed(start, addLayer(empty('middle'), 'layer'));
    const order = (art: Art): string => art.layers.map(({ id }) => id).join(' ');
    expect(order(layered)).toBe('layer middle upper');
    expect(order(changed(layered, moveLayers(['layer'], 3)))).toBe('middle upper layer');
    expect(order(changed(layered, moveLayers(['upper'], 0)))).toBe('upper layer middle');
    expect(order(changed(layered, moveLayers(['upper', 'layer'], 2)))).toBe('middle layer upper');
    expect(changed(layered, moveLayers(['middle'], 1))).toBe(layered);
    expect(changed(layered, moveLayers(['nobody', 'a'], 0))).toBe(layered);
    const random = seeded(7);
    let art = layered;
    for (let k = 0; k < 100; k++) {
      const ids = art.layers.flatMap(({ id }) => (random() < 0.5 ? [id] : []));
      art = changed(art, moveLayers(ids, Math.floor(random() * 5)));
      expect([...nodePlaces(art).keys()].sort()).toEqual([...nodePlaces(layered).keys()].sort());
    }
  });

  it('says what stands beside nodes, each thing once and as far out as can be', () => {
    const beside = (...ids: string[]): string[] => nodesBeside(start, ids).map(({ id }) => id);
    expect(beside('c')).toEqual(['a', 'b', 'd', 'e', 'upper']);
    expect(beside('h', 'a')).toEqual(['b', 'e', 'upper']);
    expect(beside('layer')).toEqual(['upper']);
    expect(beside('layer', 'c')).toEqual(['upper']);
    expect(beside()).toEqual(['layer', 'upper']);
    expect(beside('nobody')).toEqual(['layer', 'upper']);
  });

  it('makes a group where its topmost stood, and frees it in its place', () => {
    const grouped = changed(start, groupNodes(['d', 'a', 'b'], group('new')));
    expect(tree(grouped)).toBe('layer(g(h(c new(a b d))) e) upper()');
    expect(tree(changed(grouped, freeGroups(['new'])))).toBe('layer(g(h(c a b d)) e) upper()');
    expect(tree(changed(start, groupNodes(['g', 'c', 'a'], group('new'))))).toBe('layer(new(a g(b h(c d))) e) upper()'); // prettier-ignore
    expect(tree(changed(start, freeGroups(['g', 'h'])))).toBe('layer(a b c d e) upper()');
    expect(changed(start, groupNodes(['nobody', 'layer'], group('new')))).toBe(start);
    expect(changed(start, freeGroups(['layer', 'a', 'nobody']))).toBe(start);
  });

  it('lets a clip go with the shape that clips, and keeps it where that only changes its place', () => {
    const clipped = changed(start, setClip('g', 'b'));
    const clip = (art: Art): string | undefined => (findNode(art, 'g')!.node as Group).clip;
    expect(clip(clipped)).toBe('b');
    expect(clip(changed(clipped, moveNodes(['b'], 'g')))).toBe('b');
    expect(clip(changed(clipped, moveNodes(['b'], 'h')))).toBeUndefined();
    expect(clip(changed(clipped, removeNodes(['b'])))).toBeUndefined();
    expect(() => holdingsOf({ ...clipped, layers: clipped.layers.map((l) => ({ ...l, children: [{ ...(findNode(clipped, 'g')!.node as Group), clip: 'c' }] })) })).toThrow(/clipped only by a shape/); // prettier-ignore
  });

  it(`stops with a sentence where groups would stand in each other more than ${DEEPEST_GROUP} deep`, () => {
    let art = withShapes(shapeOf('s'));
    let parent = 'layer';
    for (let k = 1; k <= DEEPEST_GROUP; k++) {
      art = changed(art, addNode(parent, groupOf(`g${k}`)));
      parent = `g${k}`;
    }
    art = changed(art, addNode('layer', groupOf('one', shapeOf('t'))));
    expect(tree(changed(art, moveNodes(['s'], parent)))).toContain(`g${DEEPEST_GROUP}(s)`);
    expect(() => changeArt(art, moveNodes(['one'], parent))).toThrow(/64 deep at most. Nothing was changed/);
    expect(() => changeArt(art, together(moveNodes(['s'], parent), groupNodes(['s'], group('new'))))).toThrow(/64 deep/); // prettier-ignore
  });
});
