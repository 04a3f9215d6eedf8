import { describe, expect, it } from 'vitest';
import { seeded } from '../../seed';
import { applyPatches, changeArt } from '../change';
import { readArt } from '../check';
import { artText } from '../write';
import type { Art, Group } from '../schema';
import { anyRecipe, blank, groupOf, idsOf, shapeOf, withShapes } from '../testing';
import { childrenOf, findNode, findShape, nodePlaces, shapesOf, type TreeNode } from '../tree';
import { addChip, cuttingOf, paintShapes, pasteCutting, setClip, together } from './index';

let last = 0;
const newId = (): string => `new${++last}`;
const chip = { id: 'leaf', name: 'Leaf', hex: '#2f6b4f' };
const start = changeArt(
  withShapes(shapeOf('a'), groupOf('g', shapeOf('b'), groupOf('h', shapeOf('c'))), shapeOf('d')),
  together(addChip(chip), paintShapes(['b', 'c'], 'fill', { chip: 'leaf' }, 1), setClip('g', 'b')),
).art;
const words = (nodes: readonly TreeNode[]): string =>
  nodes.map((n) => (n.type === 'shape' ? n.name : `${n.name}(${words(childrenOf(n))})`)).join(' ');
const pasted = (art: Art, cutting: Art, by = { x: 0, y: 0 }): { art: Art; ids: readonly string[] } => {
  const { recipe, nodes } = pasteCutting(art, cutting, art.layers.at(-1)!.id, by, newId);
  return { art: changeArt(art, recipe).art, ids: nodes.map(({ id }) => id) };
};

describe('what is copied', () => {
  it('is a document that reads as any other, with just the chips it takes', () => {
    const cutting = cuttingOf(start, ['d', 'g', 'b'])!;
    expect(readArt(JSON.parse(artText(cutting)))).toEqual(cutting);
    expect(words(cutting.layers[0]!.children)).toBe('g(b h(c)) d');
    expect(cutting.chips).toEqual([chip]);
    expect(cuttingOf(start, ['d'])!.chips).toEqual([]);
    expect(cuttingOf(start, ['layer', 'nobody'])).toBeNull();
    expect(cuttingOf(start, [])).toBeNull();
  });

  it('comes into another drawing whole: order, clip, chips; names that are taken are numbered', () => {
    const cutting = cuttingOf(start, ['g', 'a'])!;
    const there = changeArt(withShapes(shapeOf('a'), shapeOf('x')), (d) => void d.chips.push({ ...chip, id: 'other' })).art; // prettier-ignore
    const { art, ids } = pasted(there, cutting);
    expect(words(art.layers[0]!.children)).toBe('a x a 2 g(b h(c))');
    const group = findNode(art, ids[1]!)!.node as Group;
    expect(group.clip).toBe(group.children[0]!.id);
    expect(findShape(art, group.clip!)!.fill).toEqual({ chip: 'other' });
    const bare = pasted(blank, cutting).art;
    expect(bare.chips.map(({ name, hex }) => [name, hex])).toEqual([['Leaf', '#2f6b4f']]);
    expect(readArt(JSON.parse(artText(bare)))).toEqual(bare);
  });

  it('is moved where it is wanted', () => {
    const { art, ids } = pasted(start, cuttingOf(start, ['d'])!, { x: 30, y: -5 });
    const [was, is] = [findShape(start, 'd')!, findShape(art, ids[0]!)!];
    expect(is.paths[0]!.anchors.map((a) => [a.x - 30, a.y + 5])).toEqual(was.paths[0]!.anchors.map((a) => [a.x, a.y])); // prettier-ignore
  });

  it('leaves a picture behind that the other drawing does not have', () => {
    const cutting = { ...cuttingOf(start, ['h', 'd'])! };
    const picture = { id: 'pic', type: 'picture', name: 'Photo', shown: true, locked: false, opacity: 1, picture: 'p' } as const; // prettier-ignore
    const layers = [{ ...cutting.layers[0]!, children: [...cutting.layers[0]!.children, groupOf('cut', picture), picture] }]; // prettier-ignore
    const { nodes, left } = pasteCutting(start, { ...cutting, layers }, 'layer', { x: 0, y: 0 }, newId);
    expect([nodes.length, left]).toEqual([2, 2]);
  });

  it('of any drawing comes into any other: nothing lost, no id twice, undone to the identical document', () => {
    const random = seeded(16);
    let [from, to] = [start, withShapes(shapeOf('z'))];
    for (let k = 0; k < 120; k++) {
      from = changeArt(from, anyRecipe(random, from, newId)).art;
      const ids = [...nodePlaces(from).keys()].filter(() => random() < 0.4);
      const cutting = cuttingOf(from, ids);
      if (!cutting) continue;
      const read = readArt(JSON.parse(artText(cutting)));
      const { recipe } = pasteCutting(to, read, to.layers.at(-1)!.id, { x: 1, y: 2 }, newId);
      const change = changeArt(to, recipe);
      expect(shapesOf(change.art).length).toBe(shapesOf(to).length + shapesOf(read).length);
      expect(new Set(idsOf(change.art)).size).toBe(idsOf(change.art).length);
      expect(readArt(JSON.parse(artText(change.art)))).toEqual(change.art);
      expect(applyPatches(change.art, change.inverse)).toEqual(to);
      if (shapesOf(to).length < 60) to = change.art;
    }
  });
});
