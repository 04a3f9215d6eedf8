import { describe, expect, it } from 'vitest';
import { corner } from '../path/anchor';
import type { Path } from '../path/path';
import { seeded, squarePath } from '../testing';
import { changeArt, type Recipe } from './change';
import { readArt } from './check';
import { addChip, addNode, addPicture, freeHole, makeHole, moveNodes, removeChip, removeNodes, removePicture, setClip, setNode, setPath, setSheet, styleShapes, together } from './edits'; // prettier-ignore
import { mergeArt } from './merge';
import { mergeOrder } from './order';
import type { Art } from './schema';
import { placedPicture } from './blank';
import { anyRecipe, groupOf, idsOf, shapeOf, withShapes } from './testing';
import { findNode, findShape, shapesOf } from './tree';

const red = { hex: '#ff0000' };
const blue = { hex: '#0000ff' };
const changed = (art: Art, ...recipes: Recipe[]): Art => changeArt(art, together(...recipes)).art;
const picture = placedPicture({
  id: 'pic', source: 'abc', name: 'can.jpg', width: 100, height: 50, placement: [1, 0, 0, 1, 0, 0],
}); // prettier-ignore

/** Merges, and checks the whole of what comes out. */
function merged(base: Art, mine: Art, theirs: Art) {
  const result = mergeArt(base, mine, theirs);
  expect(readArt(JSON.parse(JSON.stringify(result.art)))).toEqual(result.art);
  return result;
}

describe('two orders of one list', () => {
  it.each([
    ['abcd', 'abcd', 'dabc', 'dabc'],
    ['abcd', 'bacd', 'abdc', 'bdac'],
    ['abc', 'axbc', 'abyc', 'axbyc'],
    ['abc', 'ac', 'acb', 'acb'],
    ['abg', 'bg', 'ag', 'abg'],
    ['abc', 'cab', 'bac', 'bca'],
    ['', 'ab', 'cd', 'cdab'],
  ])('%s: mine %s, theirs %s give %s', (base, mine, theirs, out) => {
    expect(mergeOrder([...base], [...mine], [...theirs]).join('')).toBe(out);
  });
});

describe('bringing two tabs together', () => {
  const base = withShapes(shapeOf('a'), shapeOf('b'), groupOf('g', shapeOf('c'), shapeOf('d')));

  it('keeps what each side drew and each side’s changes', () => {
    const mine = changed(base, addNode('layer', shapeOf('m')), styleShapes(['a'], { fill: red }));
    const theirs = changed(base, addNode('layer', shapeOf('t')), styleShapes(['b'], { fill: null }));
    const { art, conflicts } = merged(base, mine, theirs);
    expect(idsOf(art).sort()).toEqual(['a', 'b', 'c', 'd', 'm', 't']);
    expect(findShape(art, 'a')!.fill).toEqual(red);
    expect(findShape(art, 'b')!.fill).toBeNull();
    expect(conflicts).toEqual([]);
  });

  it('gives a field that both changed to the later hand and names the shape; other fields keep both', () => {
    const mine = changed(base, styleShapes(['a'], { fill: red }), setNode('b', { name: 'Bean' }));
    const theirs = changed(base, styleShapes(['a'], { fill: blue, opacity: 0.5 }), styleShapes(['b'], { fill: blue })); // prettier-ignore
    const { art, conflicts } = merged(base, mine, theirs);
    expect(findShape(art, 'a')).toMatchObject({ fill: red, opacity: 0.5 });
    expect(findShape(art, 'b')).toMatchObject({ fill: blue, name: 'Bean' });
    expect(conflicts).toEqual(['a']);
  });

  it('keeps the other tab’s restacking, and both where each restacked something', () => {
    const theirs = changed(base, moveNodes(['a'], 'layer', 3));
    const mine = changed(base, styleShapes(['a'], { fill: red }));
    expect(idsOf(merged(base, mine, theirs).art)).toEqual(['b', 'c', 'd', 'a']);
    const moved = changed(base, moveNodes(['d'], 'g', 0));
    expect(idsOf(merged(base, moved, theirs).art)).toEqual(['b', 'd', 'c', 'a']);
  });

  it('takes a shape that one moved into a group and the other changed, once and with both', () => {
    const mine = changed(base, moveNodes(['a'], 'g', 0));
    const theirs = changed(base, styleShapes(['a'], { fill: red }), setNode('a', { name: 'Apple' }));
    for (const [one, two] of [
      [mine, theirs],
      [theirs, mine],
    ] as const) {
      // prettier-ignore
      const { art } = merged(base, one, two);
      expect(idsOf(art)).toEqual(['b', 'a', 'c', 'd']);
      expect(findNode(art, 'a')).toMatchObject({ parent: { id: 'g' }, node: { name: 'Apple', fill: red } });
    }
  });

  it('keeps a chip and a picture that only the other tab edited', () => {
    const start = changed(base, addChip({ id: 'k', name: '', hex: '#112233' }), addPicture(picture));
    const theirs = changed(start, (d) => {
      d.chips[0]!.name = 'Leaf';
      d.pictures[0]!.wash = 40;
    });
    const mine = changed(start, styleShapes(['a'], { fill: red }), (d) => {
      d.pictures[0]!.veil = true;
    });
    const { art } = merged(start, mine, theirs);
    expect(art.chips[0]!.name).toBe('Leaf');
    expect(art.pictures[0]).toMatchObject({ wash: 40, veil: true });
  });

  it('keeps a chip and a picture that one took away and the other put to use', () => {
    const start = changed(base, addChip({ id: 'k', name: 'Leaf', hex: '#112233' }), addPicture(picture));
    const without = changed(start, removeChip('k'), removePicture(picture.id));
    const node = { id: 'n', type: 'picture', name: 'Can', shown: true, locked: false, opacity: 1, picture: picture.id } as const; // prettier-ignore
    const used = changed(start, styleShapes(['a'], { fill: { chip: 'k' } }), addNode('layer', node));
    for (const [mine, theirs] of [
      [without, used],
      [used, without],
    ] as const) {
      // prettier-ignore
      const { art } = merged(start, mine, theirs);
      expect(art.chips.map((c) => c.id)).toEqual(['k']);
      expect(art.pictures.map((p) => p.id)).toEqual([picture.id]);
      expect(findShape(art, 'a')!.fill).toEqual({ chip: 'k' });
    }
  });

  it('lets a clip go where the other took the clipping shape out of the group', () => {
    const start = withShapes(groupOf('g', shapeOf('a'), shapeOf('b')));
    const clipped = changed(start, setClip('g', 'a'));
    for (const other of [removeNodes(['a']), moveNodes(['a'], 'layer')]) {
      const { art } = merged(start, clipped, changed(start, other));
      expect(findNode(art, 'g')!.node).not.toHaveProperty('clip');
    }
    const kept = merged(start, clipped, changed(start, styleShapes(['b'], { fill: red }))).art;
    expect(findNode(kept, 'g')!.node).toMatchObject({ clip: 'a' });
  });

  it('does not tear a border that one tab moved from a neighbour that the other changed', () => {
    const border = (p: Path): Path => ({
      ...p,
      anchors: p.anchors.map((a) => (a.x === 10 ? { ...a, shared: `k${a.y}` } : a)),
    });
    const start = withShapes(
      shapeOf('l', { paths: [border(squarePath(0, 0, 10, 'lp'))] }),
      shapeOf('r', { paths: [border(squarePath(10, 0, 10, 'rp'))] }),
    );
    const path = findShape(start, 'l')!.paths[0]!;
    const mine = changed(start, setPath('l', { ...path, anchors: path.anchors.map((a) => (a.shared ? { ...a, x: 14 } : a)) })); // prettier-ignore
    const right = findShape(start, 'r')!.paths[0]!;
    const otherways: Path[] = [
      { ...right, anchors: right.anchors.map((a) => (a.shared ? a : { ...a, x: 25 })) },
      { ...right, anchors: [...right.anchors.slice(0, 2), corner(23, 5), ...right.anchors.slice(2)] },
    ];
    for (const other of otherways) {
      const theirs = changed(start, setPath('r', other));
      for (const [one, two] of [
        [mine, theirs],
        [theirs, mine],
      ] as const) {
        // prettier-ignore
        const { art } = merged(start, one, two);
        const spots = (id: string): string[] =>
          findShape(art, id)!.paths[0]!.anchors.flatMap((a) => (a.shared ? [`${a.shared} ${a.x} ${a.y}`] : [])).sort(); // prettier-ignore
        expect(spots('l')).toEqual(spots('r'));
        expect(spots('l')).toHaveLength(2);
      }
    }
  });

  it('joins what both shaped of one path, anchor by anchor', () => {
    const path = findShape(base, 'a')!.paths[0]!;
    const put = (i: number, to: object): Art =>
      changed(base, setPath('a', { ...path, anchors: path.anchors.map((a, k) => (k === i ? { ...a, ...to } : a)) })); // prettier-ignore
    const { art, conflicts } = merged(base, put(0, { x: -5 }), put(2, { y: 19 }));
    expect(findShape(art, 'a')!.paths[0]!.anchors.map((a) => [a.x, a.y])).toEqual([[-5, 0], [10, 0], [10, 19], [0, 10]]); // prettier-ignore
    expect(conflicts).toEqual([]);
    expect(merged(base, put(0, { x: -5 }), put(0, { x: -9 }))).toMatchObject({ conflicts: ['a'] });
  });

  it('has a hole once that one tab freed and the other shaped', () => {
    const host = withShapes(shapeOf('h', { paths: [squarePath(0, 0, 50, 'hp'), squarePath(10, 10, 9, 'in')] }), shapeOf('z', { paths: [squarePath(60, 0, 90, 'zp')] })); // prettier-ignore
    const { paths: _paths, ...freeShape } = shapeOf('free');
    const freed = changed(host, freeHole('h', 'in', freeShape));
    const inner = findShape(host, 'h')!.paths[1]!;
    const shaped = changed(host, setPath('h', { ...inner, anchors: inner.anchors.map((a) => ({ ...a, x: a.x + 1 })) })); // prettier-ignore
    const { art } = merged(host, shaped, freed);
    expect(findShape(art, 'free')!.paths[0]!.anchors[0]!.x).toBe(11);
    expect(findShape(art, 'h')!.paths).toHaveLength(1);
    const bitten = changed(freed, makeHole('free', 'z'));
    expect(shapesOf(merged(freed, bitten, changed(freed, setNode('free', { name: 'Pip' }))).art).length).toBeGreaterThan(1); // prettier-ignore
  });

  it('takes away what one side took away, unless the other changed it', () => {
    const mine = changed(base, removeNodes(['a', 'g']), styleShapes(['b'], { fill: red }));
    const theirs = changed(base, removeNodes(['b']), styleShapes(['d'], { fill: blue }));
    const { art } = merged(base, mine, theirs);
    expect(idsOf(art)).toEqual(['b', 'd']);
    expect(findNode(art, 'd')!.parent!.id).toBe('g');
  });

  it('does not lose two groups that were each moved into the other', () => {
    const start = withShapes(groupOf('p', shapeOf('a')), groupOf('q', shapeOf('b')));
    const { art } = merged(
      start,
      changed(start, moveNodes(['p'], 'q', 0)),
      changed(start, moveNodes(['q'], 'p', 0)),
    );
    expect(idsOf(art).sort()).toEqual(['a', 'b']);
  });

  it('gives either side back when the other did nothing', () => {
    const mine = changed(base, addPicture(picture), setSheet({ ground: '#ffffff' }));
    expect(mergeArt(base, mine, base).art).toBe(mine);
    expect(mergeArt(base, base, mine).art).toBe(mine);
    expect(mergeArt(base, mine, JSON.parse(JSON.stringify(base)) as Art).art).toEqual(mine);
    expect(mergeArt(base, JSON.parse(JSON.stringify(base)) as Art, mine).art).toEqual(mine);
  });

  it('is a drawing, with every change that conflicts with none, over random changes on both sides', () => {
    for (let seed = 1; seed <= 120; seed++) {
      const random = seeded(seed);
      let n = 0;
      const side = (name: string): Art => {
        let art = base;
        for (let k = 0; k < 8; k++)
          art = changeArt(
            art,
            anyRecipe(random, art, () => `${name}${n++}`),
          ).art;
        return art;
      };
      const [mine, theirs] = [side('m'), side('t')];
      const { art, conflicts } = merged(base, mine, theirs);
      const [out, one, two] = [art, mine, theirs].map(
        (a) => new Map(shapesOf(a).map(({ shape: s }) => [s.id, s])),
      );
      for (const [id, s] of one!) {
        if (base && !findShape(base, id)) expect(out!.get(id), `seed ${seed}`).toEqual(s);
        else if (two!.get(id) === findShape(base, id)) expect(out!.get(id)).toEqual(s);
      }
      for (const [id, s] of two!) {
        if (!findShape(base, id)) expect(out!.get(id), `seed ${seed}`).toEqual(s);
        else if (one!.get(id) === findShape(base, id)) expect(out!.get(id)).toEqual(s);
      }
      expect(new Set(conflicts).size).toBe(conflicts.length);
    }
  });
});
