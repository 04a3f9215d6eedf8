import { describe, expect, it } from 'vitest';
import { circlePath, squarePath } from '../testing';
import { applyPatches, changeArt } from './change';
import { artSchema } from './check';
import { compareArt } from './compare';
import {
  addChip,
  addNode,
  addPicture,
  bringBack,
  groupNodes,
  moveNodes,
  removeNodes,
  setNode,
  setPath,
  setSheet,
  styleShapes,
} from './edits';
import type { Art, Shape } from './schema';
import { emptyArt, placedPicture } from './blank';
import { findNode, parentOf, shapesOf } from './tree';

const shape = (id: string, x: number, more: Partial<Shape> = {}): Shape => ({
  id, type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: { hex: '#2f6b4f' }, stroke: null,
  paths: [squarePath(x, 0, 10, `${id}-p`)], ...more,
}); // prettier-ignore
const after = (art: Art, ...recipes: Parameters<typeof changeArt>[1][]): Art =>
  recipes.reduce((now, recipe) => changeArt(now, recipe).art, art);
const start = after(emptyArt({ width: 100, height: 100, unit: 'px' }, 'layer'), addNode('layer', shape('a', 0)), addNode('layer', shape('b', 20)), addNode('layer', shape('c', 40))); // prettier-ignore
let made = 0;
const newId = (): string => `new${++made}`;

describe('two states of a drawing', () => {
  it('differ by what came, went and is not as it was; where things stand is not looked at', () => {
    expect(compareArt(start, start)).toEqual({ added: [], gone: [], altered: [] });
    const later = after(start, addNode('layer', shape('d', 60)), removeNodes(['b']), setPath('c', circlePath(45, 5, 5, 'c-p')), setNode('a', { name: 'Lid' })); // prettier-ignore
    expect(compareArt(start, later)).toEqual({ added: ['d'], gone: ['b'], altered: ['a', 'c'] });
    const moved = after(start, groupNodes(['a', 'b'], { id: 'g', type: 'group', name: 'G', shown: true, locked: false, opacity: 1 }), setSheet({ width: 9, height: 9, unit: 'px' })); // prettier-ignore
    expect(compareArt(start, moved)).toEqual({ added: [], gone: [], altered: [] });
  });

  it('what is gone comes back whole, with its colours, and undone is gone again', () => {
    const withChip = after(start, addChip({ id: 'leaf', name: 'Leaf', hex: '#123456' }), styleShapes(['b'], { fill: { chip: 'leaf' } })); // prettier-ignore
    const later = after(start, removeNodes(['b']));
    const { recipe, id } = bringBack(later, withChip, 'b', newId);
    const change = changeArt(later, recipe);
    expect(artSchema.safeParse(change.art).success).toBe(true);
    expect(findNode(change.art, id)!.node).toMatchObject({ name: 'b' });
    expect(change.art.chips.map((c) => c.hex)).toEqual(['#123456']);
    expect(applyPatches(change.art, change.inverse)).toEqual(later);
  });

  it('what is altered is as it was, where it stands now', () => {
    const later = after(start, setPath('b', circlePath(25, 5, 5, 'b-p')), groupNodes(['b', 'c'], { id: 'g', type: 'group', name: 'G', shown: true, locked: false, opacity: 1 }), moveNodes(['b'], 'g', 2)); // prettier-ignore
    const { recipe, id } = bringBack(later, start, 'b', newId);
    const change = changeArt(later, recipe);
    expect(id).toBe('b');
    expect(parentOf(change.art, 'b')!.id).toBe('g');
    expect(shapesOf(change.art).map((p) => p.shape.id)).toEqual(shapesOf(later).map((p) => p.shape.id));
    const { paths, name } = findNode(change.art, 'b')!.node as Shape;
    expect([name, paths[0]!.anchors]).toEqual(['b', (findNode(start, 'b')!.node as Shape).paths[0]!.anchors]);
    expect(artSchema.safeParse(change.art).success).toBe(true);
    expect(applyPatches(change.art, change.inverse)).toEqual(later);
    expect(() => bringBack(later, start, 'nobody', newId)).toThrow('no such part');
    expect(() => bringBack(later, start, 'layer', newId)).toThrow('no such part');
  });

  it('what clips a group is brought back and goes on clipping it; a picture that is gone is said', () => {
    const clipped = after(start, groupNodes(['a', 'b'], { id: 'g', type: 'group', name: 'G', shown: true, locked: false, opacity: 1 }), (draft) => void Object.assign(draft.layers[0]!.children[0]!, { clip: 'a' })); // prettier-ignore
    const later = after(clipped, setPath('a', circlePath(5, 5, 5, 'a-p')));
    const { art } = changeArt(later, bringBack(later, clipped, 'a', newId).recipe);
    expect(art.layers[0]!.children[0]).toMatchObject({ clip: 'a' });
    expect(artSchema.safeParse(art).success).toBe(true);
    const photo = placedPicture({ id: 'p', source: 's', name: 'P', width: 9, height: 9, placement: [1, 0, 0, 1, 0, 0] }); // prettier-ignore
    const node = { id: 'n', type: 'picture', name: 'N', shown: true, locked: false, opacity: 1, picture: 'p' } as const; // prettier-ignore
    const withPicture = after(start, addPicture(photo), addNode('layer', node));
    expect(() => bringBack(start, withPicture, 'n', newId)).toThrow(
      'Its picture is not in this drawing any more',
    );
  });
});
