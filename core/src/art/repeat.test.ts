import { describe, expect, it } from 'vitest';
import { IDENTITY, rotation, scaling, translation } from '../geometry/affine';
import { boxCentre } from '../geometry/bounds';
import { seeded, squarePath } from '../testing';
import { applyPatches, changeArt } from './change';
import { artSchema, readArt } from './check';
import { addNode, mapNodes, mapRepeats, nodeBox, partCopies, setPath, setRepeat } from './edits';
import { followPicture } from './follow-picture';
import { addPicture } from './edits';
import { paintedLeaves, paintList, type PaintedShape } from './paint-list';
import { copyMaps, isWholeRing, mapRepeat, outlineBox, repeatMaps, shapesSeen, WHOLE_TURN } from './repeat';
import type { Art, Group, Repeat, Shape } from './schema';
import { emptyArt, placedPicture } from './blank';
import { findNode } from './tree';

const shape = (id: string, x: number, y: number, size: number, more: Partial<Shape> = {}): Shape => ({
  id, type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: { hex: '#2f6b4f' }, stroke: null,
  paths: [squarePath(x, y, size, `${id}-p`)], ...more,
}); // prettier-ignore
const group = (id: string, children: Group['children'], more: Partial<Group> = {}): Group => ({
  id, type: 'group', name: id, shown: true, locked: false, opacity: 1, children, ...more,
}); // prettier-ignore
const artWith = (...nodes: (Shape | Group)[]): Art =>
  nodes.reduce(
    (art, node) => changeArt(art, addNode('layer', node)).art,
    emptyArt({ width: 400, height: 400, unit: 'px' }, 'layer'),
  );
const ring = (more: object = {}): Repeat => ({ kind: 'ring', count: 6, x: 200, y: 200, angle: WHOLE_TURN / 6, ...more }); // prettier-ignore
const spoke = (repeat: Repeat, more: Partial<Group> = {}): Art =>
  artWith(group('g', [shape('s', 195, 100, 10)], { repeat, ...more }));
const painted = (art: Art): PaintedShape[] => paintedLeaves(paintList(art)).map(({ part }) => part as PaintedShape); // prettier-ignore
const middles = (art: Art): number[][] =>
  painted(art).map(({ paths }) => {
    const { anchors } = paths[0]!;
    return [0, 1].map((k) => anchors.reduce((sum, a) => sum + (k === 0 ? a.x : a.y), 0) / anchors.length);
  });
let made = 0;
const newId = (): string => `new${++made}`;

describe('a group that stands several times', () => {
  it('round a centre: evenly, at 360°/n, every one painted, with ids of their own', () => {
    // Common practice, no source: copies round a centre at 360°/n.
    const all = middles(spoke(ring()));
    expect(all).toHaveLength(6);
    all.forEach(([x, y], k) => {
      expect(x).toBeCloseTo(200 + 95 * Math.sin((k * Math.PI) / 3), 9);
      expect(y).toBeCloseTo(200 - 95 * Math.cos((k * Math.PI) / 3), 9);
    });
    const ids = painted(spoke(ring())).map(({ id }) => id);
    expect(new Set(ids).size).toBe(6);
    expect(isWholeRing(ring() as never)).toBe(true);
    expect(isWholeRing(ring({ angle: 0.3 }) as never)).toBe(false);
  });

  it('with every second or third left out, the first always there; upright they are carried but not turned', () => {
    expect(middles(spoke(ring({ without: 2 })))).toHaveLength(3);
    expect(middles(spoke(ring({ without: 3 })))).toHaveLength(4);
    const upright = painted(spoke(ring({ upright: true })));
    for (const { paths } of upright) {
      const xs = paths[0]!.anchors.map((a) => a.x);
      expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(10, 9);
    }
    expect(middles(spoke(ring({ upright: true })))[3]![1]).toBeCloseTo(295, 9);
  });

  it('in a row: by its step, and the whole box is known', () => {
    const art = spoke({ kind: 'row', count: 4, x: 30, y: 5 });
    expect(middles(art).map(([x]) => x)).toEqual([200, 230, 260, 290]);
    expect(nodeBox(art, 'g')).toEqual({ x0: 195, y0: 100, x1: 295, y1: 125 });
    expect(outlineBox(findNode(spoke(ring()), 'g')!.node).y1).toBeCloseTo(300, 9);
    expect(boxCentre(nodeBox(spoke(ring()), 'g')).x).toBeCloseTo(200, 9);
  });

  it('follows what leads, keeps what did not change, and stands in groups that stand several times', () => {
    const art = spoke(ring());
    const path = squarePath(190, 50, 20, 's-p');
    const moved = changeArt(art, setPath('s', path)).art;
    expect(middles(moved)[3]![1]).toBeCloseTo(340, 9);
    const [before] = paintList(art);
    const renamed = changeArt(art, (draft) => void (draft.sheet.ppi = 200)).art;
    expect(paintList(renamed)[0]).toBe(before);
    const twice = artWith(group('o', [group('g', [shape('s', 0, 0, 4)], { repeat: { kind: 'row', count: 3, x: 10, y: 0 } })], { repeat: { kind: 'row', count: 2, x: 0, y: 50 } })); // prettier-ignore
    expect(middles(twice)).toHaveLength(6);
    expect(new Set(painted(twice).map(({ id }) => id)).size).toBe(6);
    expect(shapesSeen(findNode(twice, 'o')!.node)).toBe(6);
    expect(nodeBox(twice, 'o')).toEqual({ x0: 0, y0: 0, x1: 24, y1: 54 });
  });

  it('carries gradients and clips along', () => {
    const fill = { kind: 'linear', placement: [10, 0, 0, 10, 195, 100], stops: [{ at: 0, colour: { hex: '#000000' }, opacity: 1 }, { at: 1, colour: { hex: '#ffffff' }, opacity: 1 }] } as const; // prettier-ignore
    const art = artWith(group('g', [shape('c', 196, 101, 4, { fill: null }), shape('s', 195, 100, 10, { fill })], { clip: 'c', repeat: { kind: 'row', count: 2, x: 50, y: 0 } })); // prettier-ignore
    const leaves = paintedLeaves(paintList(art));
    expect(leaves).toHaveLength(2);
    const copy = leaves[1]!;
    expect((copy.part as PaintedShape).fill).toMatchObject({ placement: [10, 0, 0, 10, 245, 100] });
    expect(copy.clips[0]!.paths[0]!.anchors[0]!.x).toBe(246);
    expect(copy.clips[0]!.id).not.toBe(leaves[0]!.clips[0]!.id);
  });

  it('is moved, turned, mirrored as a whole, its numbers with it', () => {
    for (const map of [translation(30, -10), rotation(0.4), scaling(-1, 1), IDENTITY]) {
      for (const repeat of [ring({ without: 3 }), { kind: 'row', count: 3, x: 20, y: 7 } as Repeat]) {
        const art = spoke(repeat);
        const after = middles(changeArt(art, mapNodes(['g'], map)).art);
        const [a, b, c, d, e, f] = map;
        middles(art).forEach(([x, y], k) => {
          expect(after[k]![0]).toBeCloseTo(a * x! + c * y! + e, 8);
          expect(after[k]![1]).toBeCloseTo(b * x! + d * y! + f, 8);
        });
      }
    }
    expect(mapRepeat(ring(), scaling(-1, 1))).toMatchObject({ x: -200, angle: -WHOLE_TURN / 6 });
    // With others that stand once, and with what is not there, nothing is done.
    expect(changeArt(artWith(shape('a', 0, 0, 5)), mapRepeats(['a', 'gone'], translation(1, 1))).patches).toEqual([]); // prettier-ignore
  });

  it('goes along with the picture it was traced on', () => {
    const picture = placedPicture({ id: 'p', source: 's', name: 'P', width: 400, height: 400, placement: IDENTITY }); // prettier-ignore
    const art = changeArt(spoke(ring()), addPicture(picture)).art;
    const after = { ...picture, placement: [2, 0, 0, 2, 10, 20] as const };
    const followed = changeArt(art, followPicture(art, picture, after).recipe).art;
    expect(middles(followed)[3]).toEqual([expect.closeTo(410, 8), expect.closeTo(2 * 295 + 20, 8)]);
  });

  it('parted, is what it showed, and undone it is what it was', () => {
    const random = seeded(7);
    for (let round = 0; round < 20; round++) {
      const repeat: Repeat = random() < 0.5 ? ring({ count: 2 + Math.floor(random() * 9), angle: random() * 2, ...(random() < 0.5 ? { without: 2 } : {}), ...(random() < 0.5 ? { upright: true } : {}) }) : { kind: 'row', count: 3, x: random() * 50, y: random() * 50 }; // prettier-ignore
      const inside = random() < 0.5 ? [shape('s', 195, 100, 10)] : [shape('s', 195, 100, 10), shape('t', 190, 120, 6)]; // prettier-ignore
      const art = artWith(group('g', inside, { repeat }), shape('z', 0, 0, 5));
      const change = changeArt(art, partCopies(art, ['g'], newId));
      const near = (points: number[][]): number[][] => points.map((p) => p.map((v) => Math.round(v * 1e6)));
      expect(near(middles(change.art))).toEqual(near(middles(art)));
      expect(artSchema.safeParse(change.art).success).toBe(true);
      expect(applyPatches(change.art, change.inverse)).toEqual(art);
    }
    expect(changeArt(spoke(ring()), setRepeat('g', null)).art.layers[0]!.children[0]).not.toHaveProperty(
      'repeat',
    );
  });

  it('cannot stand more often than a drawing can hold; empty it is nothing', () => {
    const many = group('g', [group('h', [shape('s', 0, 0, 5)], { repeat: { kind: 'row', count: 500, x: 1, y: 0 } })], { repeat: { kind: 'row', count: 50, x: 0, y: 1 } }); // prettier-ignore
    expect(() => readArt({ ...artWith(), layers: [{ ...artWith().layers[0]!, children: [many] }] })).toThrow(/20,000 shapes at most, copies counted/); // prettier-ignore
    const full = artWith(
      group(
        'g',
        Array.from({ length: 50 }, (_, i) => shape(`s${i}`, i, 0, 1)),
      ),
    );
    expect(() => changeArt(full, setRepeat('g', ring({ count: 500 })))).toThrow(
      /20,000 shapes at most, copies counted/,
    );
    const empty = artWith(group('g', [], { repeat: ring() }));
    expect(middles(empty)).toEqual([]);
    expect(copyMaps(empty.layers[0]!.children[0] as Group)).toEqual([]);
    expect(repeatMaps({ kind: 'row', count: 2, x: 0, y: 0 }, { x: 0, y: 0 })).toEqual([translation(0, 0)]);
    for (const wrong of [{ count: 1 }, { count: 501 }, { count: 2.5 }, { without: 1 }, { upright: false }])
      expect(artSchema.safeParse({ ...artWith(), layers: [{ ...artWith().layers[0]!, children: [group('g', [], { repeat: ring(wrong) })] }] }).success).toBe(false); // prettier-ignore
  });
});
