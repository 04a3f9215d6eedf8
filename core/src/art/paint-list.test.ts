import { describe, expect, it } from 'vitest';
import { circlePath, squarePath } from '../testing';
import { changeArt, type Recipe } from './change';
import { addChip, addNode, addPicture, setAxis, setChip, setClip, setCovering, setNode, styleShapes, together } from './edits'; // prettier-ignore
import { plainStroke } from './paint';
import { outputBox } from './output';
import { paintedBox, paintedLeaves, paintedNode, paintList, type PaintedGroup, type PaintedShape } from './paint-list'; // prettier-ignore
import type { Art, PictureNode } from './schema';
import { placedPicture } from './blank';
import { findNode } from './tree';
import { blank, groupOf, shapeOf, withShapes } from './testing';

const changed = (art: Art, ...recipes: Recipe[]): Art => changeArt(art, together(...recipes)).art;
const leafIds = (art: Art, only?: ReadonlySet<string>): string[] =>
  paintedLeaves(paintList(art, only)).map(({ part }) => part.id);
const shapePart = (art: Art, id: string): PaintedShape =>
  paintedLeaves(paintList(art)).find(({ part }) => part.id === id)!.part as PaintedShape;

const byItself = (art: Art, id: string) => paintedNode(art, findNode(art, id)!.node);

const photo = placedPicture({ id: 'pic', source: 's', name: 'can.jpg', width: 20, height: 10, placement: [2, 0, 0, 2, 5, 5] }); // prettier-ignore
const pictureNode: PictureNode = { id: 'n', type: 'picture', name: 'Can', shown: true, locked: false, opacity: 1, picture: 'pic' }; // prettier-ignore

const grouped = withShapes(
  shapeOf('under'),
  groupOf('g', shapeOf('a'), groupOf('h', shapeOf('b'), shapeOf('c'))),
  shapeOf('top'),
);

describe('the paint list', () => {
  it('has what is painted, bottom first, and nothing of what is hidden, bare, or stands in what is hidden', () => {
    expect(leafIds(grouped)).toEqual(['under', 'a', 'b', 'c', 'top']);
    expect(leafIds(changed(grouped, setNode('h', { shown: false })))).toEqual(['under', 'a', 'top']);
    expect(leafIds(changed(grouped, setNode('layer', { shown: false })))).toEqual([]);
    expect(leafIds(changed(grouped, styleShapes(['b'], { fill: null })))).not.toContain('b');
    expect(paintList(blank).map(({ parts }) => parts)).toEqual([[]]);
  });

  it('of what is chosen has that and what stands in it, under the groups it stands in', () => {
    expect(leafIds(grouped, new Set(['h', 'top']))).toEqual(['b', 'c', 'top']);
    const faded = changed(grouped, setCovering(['g', 'layer'], { opacity: 0.5 }));
    const [leaf] = paintedLeaves(paintList(faded, new Set(['b'])));
    expect([leaf!.part.id, leaf!.opacity]).toEqual(['b', 0.25]);
    expect(paintList(grouped, new Set())).toEqual([]);
  });

  it('says how each is laid over what is beneath, and what that comes to', () => {
    const art = changed(
      grouped,
      setCovering(['g'], { opacity: 0.5, blend: 'multiply', blur: 2 }),
      setCovering(['b'], { opacity: 0.5 }),
    );
    const group = paintList(art)[0]!.parts[1] as PaintedGroup;
    expect(group).toMatchObject({ id: 'g', opacity: 0.5, blend: 'multiply', blur: 2 });
    expect(paintedLeaves([group]).map((l) => l.opacity)).toEqual([0.5, 0.25, 0.5]);
    // What is normal and sharp is left out of the document again.
    const plain = changed(art, setCovering(['g'], { opacity: 1, blend: 'normal', blur: 0 }));
    expect(plain.layers).toEqual(grouped.layers.map((l) => ({ ...l, children: plain.layers[0]!.children })));
    expect(JSON.stringify(plain)).not.toMatch(/blend|blur/);
  });

  it('cuts what stands in a clipped group by the outline of its own shape, and not that shape itself', () => {
    const art = changed(grouped, setClip('g', 'a'), setClip('h', 'b'));
    const clips = Object.fromEntries(
      paintedLeaves(paintList(art)).map((l) => [l.part.id, l.clips.map((c) => c.id)]),
    );
    expect(clips).toEqual({ under: [], a: [], b: ['a'], c: ['a', 'b'], top: [] });
    // One that is hidden cuts still; one that stands elsewhere cannot.
    expect(paintedLeaves(paintList(changed(art, setNode('a', { shown: false })))).map((l) => l.clips.length)).toEqual([0, 1, 2, 0]); // prettier-ignore
    expect(changed(grouped, setClip('g', 'b'))).toBe(grouped);
    expect(changed(art, setClip('g', null), setClip('h', null))).toEqual(grouped);
  });

  it('is whole: parts about an axis, chips looked up, holes by the even-odd rule', () => {
    const art = changed(
      withShapes(shapeOf('s', { fill: { chip: 'c' } })),
      addChip({ id: 'c', name: '', hex: '#123456' }),
      setAxis(['s'], { kind: 'turn', x: 50, y: 50, parts: 5 }),
    );
    const part = shapePart(art, 's');
    expect(part.paths).toHaveLength(5);
    expect(part).toMatchObject({ fill: { kind: 'flat', hex: '#123456' }, fillRule: 'evenodd' });
  });

  it('gives back the same objects for what did not change, so that no more is painted anew', () => {
    const start = changed(grouped, addChip({ id: 'c', name: '', hex: '#123456' }), styleShapes(['c'], { fill: { chip: 'c' } })); // prettier-ignore
    const before = paintList(start);
    expect(paintList(start)[0]).toBe(before[0]);
    const parts = (art: Art): (PaintedShape | PaintedGroup)[] => paintList(art)[0]!.parts as PaintedShape[];
    const recoloured = changed(start, styleShapes(['b'], { fill: { hex: '#ffffff' } }));
    expect(parts(recoloured).map((p, i) => p === before[0]!.parts[i])).toEqual([true, false, true]);
    // A chip that is not used touches nothing; one that is, what uses it.
    expect(paintList(changed(start, addChip({ id: 'd', name: '', hex: '#ffffff' })))[0]).toBe(before[0]);
    const other = parts(changed(start, setChip('c', { hex: '#ffffff' })));
    expect(other.map((p, i) => p === before[0]!.parts[i])).toEqual([true, false, true]);
    // A look at one node by itself leaves the list as it was.
    const [again] = paintList(start);
    byItself(start, 'g');
    expect(paintList(start)[0]).toBe(again);
  });

  it('has one node by itself, hidden and bare ones too', () => {
    const art = changed(grouped, setNode('g', { shown: false }), styleShapes(['a'], { fill: null }));
    const group = byItself(art, 'g') as PaintedGroup;
    expect(group.parts.map((p) => p.id)).toEqual(['a', 'h']);
  });

  it('has pictures where they stand in the tree, and none where the picture is only traced', () => {
    const art = changed(grouped, addPicture(photo));
    expect(leafIds(art)).not.toContain('n');
    const placed = changed(art, addNode('h', pictureNode, 1));
    expect(leafIds(placed)).toEqual(['under', 'a', 'b', 'n', 'c', 'top']);
    expect(paintedBox([byItself(placed, 'n')!])).toEqual({ x0: 5, y0: 5, x1: 45, y1: 25 });
  });
});

describe('the box of what is painted', () => {
  const box = (...recipes: Recipe[]) => paintedBox(paintList(changed(withShapes(shapeOf('s')), ...recipes)));

  it('counts strokes by their form, blurs, clips, and no more', () => {
    expect(box()).toEqual({ x0: 0, y0: 0, x1: 10, y1: 10 });
    expect(box(styleShapes(['s'], { stroke: plainStroke({ hex: '#000000' }, 4) }))).toEqual({ x0: -2, y0: -2, x1: 12, y1: 12 }); // prettier-ignore
    expect(box(setCovering(['layer'], { blur: 1 }))).toEqual({ x0: -3, y0: -3, x1: 13, y1: 13 });
    const clipped = changed(
      withShapes(
        groupOf('g', shapeOf('out', { fill: null, paths: [circlePath(5, 5, 2, 'o')] }), shapeOf('s')),
      ),
      setClip('g', 'out'),
    );
    expect(paintedBox(paintList(clipped)).x0).toBeCloseTo(3, 9);
    expect(paintedBox(paintList(blank)).x0).toBe(Infinity);
  });

  it('is the output’s, or the sheet where nothing is drawn', () => {
    const art = withShapes(shapeOf('s', { paths: [squarePath(3, 4, 5, 'p')] }));
    expect(outputBox(art, { area: 'drawing' })).toEqual({ x0: 3, y0: 4, x1: 8, y1: 9 });
    expect(outputBox(blank, { area: 'drawing' })).toEqual({ x0: 0, y0: 0, x1: 100, y1: 80 });
    expect(outputBox(art, { area: 'sheet' })).toEqual({ x0: 0, y0: 0, x1: 100, y1: 80 });
  });
});
