import { describe, expect, it } from 'vitest';
import { boxCentre, boxHeight, boxWidth } from '../../geometry/bounds';
import { seeded } from '../../seed';
import { changeArt, applyPatches } from '../change';
import { artSchema } from '../check';
import { emptyArt } from '../blank';
import type { Art, Group, Shape } from '../schema';
import { plainStroke } from '../paint';
import { findNode, shapesOf } from '../tree';
import { arrangeNodes, flipNodes, mapNodes, matchNodes, nodeBox, nodesBox, spreadNodes } from './arranging';
import { copiesOf } from './copying';
import { cuttingOf, pasteCutting } from './cutting';
import { addNodes } from './nodes';
import { translation } from '../../geometry/affine';

const box = (id: string, x: number, y: number, w: number, h: number, more: Partial<Shape> = {}): Shape => ({
  id, type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: { hex: '#336699' }, stroke: null,
  paths: [{ id: `${id}-p`, closed: true, anchors: [[x, y], [x + w, y], [x + w, y + h], [x, y + h]].map(([ax, ay]) => ({ x: ax!, y: ay!, kind: 'corner' as const, in: null, out: null })) }],
  ...more,
}); // prettier-ignore
const group = (id: string, children: Group['children'], more: Partial<Group> = {}): Group => ({
  id, type: 'group', name: id, shown: true, locked: false, opacity: 1, children, ...more,
}); // prettier-ignore
const artWith = (...nodes: (Shape | Group)[]): Art =>
  changeArt(emptyArt({ width: 400, height: 300, unit: 'px' }, 'layer'), addNodes('layer', nodes)).art; // prettier-ignore
const edges = (art: Art, id: string): number[] => {
  const { x0, y0, x1, y1 } = nodeBox(art, id);
  return [x0, y0, x1, y1];
};

describe('arranging', () => {
  const art = artWith(box('a', 10, 20, 40, 30), box('b', 100, 60, 20, 90), group('g', [box('c', 200, 10, 30, 30), box('d', 240, 50, 10, 10)])); // prettier-ignore
  const ids = ['a', 'b', 'g'];

  it('puts nodes against the sides of the box round them, groups as wholes', () => {
    const left = changeArt(art, arrangeNodes(ids, { across: 0, down: null }, 'choice')).art;
    expect(ids.map((id) => edges(left, id)[0])).toEqual([10, 10, 10]);
    expect(ids.map((id) => edges(left, id)[1])).toEqual(ids.map((id) => edges(art, id)[1]));
    // What stands in the group keeps its places to each other.
    expect(edges(left, 'd')[0]! - edges(left, 'c')[0]!).toBe(40);
    const low = changeArt(art, arrangeNodes(ids, { across: null, down: 1 }, 'choice')).art;
    expect(ids.map((id) => edges(low, id)[3])).toEqual([150, 150, 150]);
  });

  it('puts them in the middle of the sheet, or of the one that stays, which does not move', () => {
    const middle = changeArt(art, arrangeNodes(ids, { across: 0.5, down: 0.5 }, 'sheet')).art;
    for (const id of ids) expect(boxCentre(nodeBox(middle, id))).toEqual({ x: 200, y: 150 });
    const on = changeArt(art, arrangeNodes(ids, { across: 0.5, down: 0.5 }, { stays: 'a' })).art;
    expect(findNode(on, 'a')!.node).toBe(findNode(art, 'a')!.node);
    for (const id of ids) expect(boxCentre(nodeBox(on, id))).toEqual(boxCentre(nodeBox(art, 'a')));
  });

  it('by the outline, or with line weight', () => {
    const thick = artWith(box('a', 50, 50, 20, 20, { stroke: plainStroke({ hex: '#000000' }, 10) }), box('b', 100, 0, 20, 20)); // prettier-ignore
    const bare = changeArt(thick, arrangeNodes(['a', 'b'], { across: 0, down: null }, 'sheet')).art;
    expect([edges(bare, 'a')[0], edges(bare, 'b')[0]]).toEqual([0, 0]);
    const inked = changeArt(thick, arrangeNodes(['a', 'b'], { across: 0, down: null }, 'sheet', 'painted')).art; // prettier-ignore
    expect([edges(inked, 'a')[0], edges(inked, 'b')[0]]).toEqual([5, 0]);
  });

  it('evens out gaps, the first and the last staying; fewer than three stay as they are', () => {
    const even = changeArt(art, spreadNodes(ids, 'across')).art;
    const [a, b, g] = ids.map((id) => nodeBox(even, id)) as [ReturnType<typeof nodeBox>, ReturnType<typeof nodeBox>, ReturnType<typeof nodeBox>]; // prettier-ignore
    expect([a.x0, g.x1]).toEqual([10, 250]);
    expect(b.x0 - a.x1).toBeCloseTo(g.x0 - b.x1, 9);
    expect(changeArt(art, spreadNodes(['a', 'b'], 'down')).patches).toEqual([]);
  });

  it('matches sizes in proportion about each middle, and leaves out what has no extent that way', () => {
    const flat = artWith(box('a', 0, 0, 40, 20), box('b', 100, 100, 10, 30), box('line', 50, 0, 0, 10));
    const same = changeArt(flat, matchNodes(['a', 'b', 'line'], 'a', 'across')).art;
    expect([boxWidth(nodeBox(same, 'b')), boxHeight(nodeBox(same, 'b'))]).toEqual([40, 120]);
    expect(boxCentre(nodeBox(same, 'b'))).toEqual({ x: 105, y: 115 });
    expect(findNode(same, 'line')!.node).toBe(findNode(flat, 'line')!.node);
  });

  it('flips all together, and twice is as before', () => {
    const flipped = changeArt(art, flipNodes(ids, 'across')).art;
    expect(edges(flipped, 'a').slice(0, 3)).toEqual([210, 20, 250]);
    expect(nodesBox(flipped, ids)).toEqual(nodesBox(art, ids));
    const back = changeArt(flipped, flipNodes(ids, 'across')).art;
    for (const id of ids) expect(edges(back, id)).toEqual(edges(art, id));
  });

  it('does nothing with nothing: no nodes, none that are there, an empty group', () => {
    const bare = artWith(group('empty', []));
    for (const recipe of [
      arrangeNodes([], { across: 0, down: 0 }, 'choice'),
      arrangeNodes(['gone', 'empty'], { across: 0, down: 0 }, 'sheet'),
      arrangeNodes(['empty'], { across: 0, down: 0 }, { stays: 'gone' }),
      spreadNodes(['gone'], 'across'),
      matchNodes(['empty'], 'gone', 'down'),
      flipNodes(['empty'], 'down'),
    ])
      expect(changeArt(bare, recipe).patches).toEqual([]);
  });

  it('of any boxes: sides meet, sizes stay, and undo gives the identical drawing', () => {
    const random = seeded(16);
    for (let round = 0; round < 60; round++) {
      const any = (k: number): number => (random() - 0.5) * k;
      const nodes = Array.from({ length: 2 + Math.floor(random() * 6) }, (_, i) =>
        box(`n${i}`, any(1000), any(1000), 0.01 + random() * 300, 0.01 + random() * 300),
      );
      const before = artWith(...nodes);
      const all = nodes.map((n) => n.id);
      const side = ([0, 0.5, 1] as const)[Math.floor(random() * 3)]!;
      const change = changeArt(before, arrangeNodes(all, { across: side, down: null }, 'choice'));
      const to = nodesBox(before, all);
      for (const id of all) {
        const now = nodeBox(change.art, id);
        expect(now.x0 + side * boxWidth(now)).toBeCloseTo(to.x0 + side * boxWidth(to), 8);
        expect(boxWidth(now)).toBeCloseTo(boxWidth(nodeBox(before, id)), 9);
      }
      expect(applyPatches(change.art, change.inverse)).toEqual(before);
      expect(artSchema.safeParse(change.art).success).toBe(true);
    }
  });
});

describe('copies', () => {
  const shared = (id: string, x: number): Shape => {
    const shape = box(id, x, 0, 10, 10);
    const [path] = shape.paths;
    return { ...shape, paths: [{ ...path!, anchors: path!.anchors.map((a, i) => (i === 1 ? { ...a, shared: 'key' } : a)) }] }; // prettier-ignore
  };
  let count = 0;
  const newId = (): string => `new${++count}`;

  it('stand just above what they are of, with ids of their own and numbered names', () => {
    const art = artWith(box('a', 0, 0, 10, 10), group('g', [box('b', 20, 0, 10, 10), box('c', 25, 0, 10, 10)], { clip: 'b' }), box('z', 0, 50, 5, 5)); // prettier-ignore
    const copies = copiesOf(art, ['g', 'a', 'c'], newId);
    expect(copies.of).toEqual(['a', 'g']);
    const { art: after } = changeArt(art, copies.recipe());
    expect(after.layers[0]!.children.map((n) => n.name)).toEqual(['a', 'a 2', 'g', 'g 2', 'z']);
    const made = findNode(after, copies.ids[1]!)!.node as Group;
    expect(made.clip).toBe(made.children[0]!.id);
    expect(artSchema.safeParse(after).success).toBe(true);
    const again = changeArt(after, copiesOf(after, [copies.ids[0]!], newId).recipe()).art;
    expect(again.layers[0]!.children.map((n) => n.name)).toContain('a 3');
    const moved = changeArt(after, mapNodes(copies.ids, translation(0, 100))).art;
    expect(edges(moved, copies.ids[0]!)).toEqual([0, 100, 10, 110]);
    expect(edges(moved, 'a')).toEqual([0, 0, 10, 10]);
    // Also moved while they are made, as often as a drag shows them.
    for (let k = 0; k < 2; k++) expect(changeArt(art, copies.recipe(translation(0, 100))).art).toEqual(moved);
  });

  it('share anchors with each other as what they are of did, and with nothing else', () => {
    const art = artWith(shared('a', 0), shared('b', 0));
    const keysOf = (of: Art, ids: readonly string[]) =>
      ids.flatMap((id) => (findNode(of, id)!.node as Shape).paths[0]!.anchors.flatMap((a) => a.shared ?? []));
    const both = copiesOf(art, ['a', 'b'], newId);
    const keys = keysOf(changeArt(art, both.recipe()).art, both.ids);
    expect(keys[0]).toBe(keys[1]);
    expect(keys[0]).not.toBe('key');
    const one = copiesOf(art, ['a'], newId);
    expect(keysOf(changeArt(art, one.recipe()).art, one.ids)).toEqual([]);
  });

  it('of thousands stand as those of a few do, copied and pasted', () => {
    const many = artWith(...Array.from({ length: 3000 }, (_, i) => box(`b${i}`, i, 0, 10, 10)));
    const ids = shapesOf(many).map(({ shape }) => shape.id);
    const copies = copiesOf(many, ids, newId);
    const { art: after, patches } = changeArt(many, copies.recipe(translation(0, 20)));
    expect(patches).toHaveLength(3000);
    const order = after.layers[0]!.children.map(({ id }) => id);
    expect(order).toEqual(ids.flatMap((id, i) => [id, copies.ids[i]!]));
    expect(new Set(after.layers[0]!.children.map(({ name }) => name)).size).toBe(6000);
    const pasting = pasteCutting(many, cuttingOf(many, ids)!, 'layer', { x: 0, y: 40 }, newId);
    const pasted = changeArt(many, pasting.recipe).art;
    expect(pasted.layers[0]!.children.slice(3000).map(({ id }) => id)).toEqual(
      pasting.nodes.map(({ id }) => id),
    );
    expect(edges(pasted, pasting.nodes.map(({ id }) => id)[2999]!)).toEqual([2999, 40, 3009, 50]);
  });

  it('are made of what is still there; layers and nothing give none', () => {
    const art = artWith(box('a', 0, 0, 10, 10));
    expect(copiesOf(art, ['layer', 'gone'], newId).ids).toEqual([]);
    const { recipe } = copiesOf(art, ['a'], newId);
    const bare = emptyArt({ width: 9, height: 9, unit: 'px' }, 'layer');
    expect(shapesOf(changeArt(bare, recipe()).art)).toHaveLength(0);
  });
});
