import { describe, expect, it } from 'vitest';
import { MirrotError } from '../error';
import { circlePath, seeded, squarePath } from '../testing';
import { anyRecipe, blank, idsOf as ids, shapeOf as shape, withShapes } from './testing';
import { artText } from './write';
import { changeArt } from './change';
import { artSchema, readArt } from './check';
import { pathInside, shapeHas } from './inside';
import { drawnData, lineRuns } from './line-data';
import { plainStroke } from './paint';
import { paintedBox, paintList } from './paint-list';
import { pathCubics, type Path } from '../path/path';
import { parsePathData } from '../path/data';
import { addChip, addLayer, addNode, addPicture, freeHole, makeHole, removeChip, removeNodes, releaseAxis, removePicture, restack, setAxis, setLayerInk, setNode, setPath, setPaths, setPicture, setSheet, styleShapes, together, traceFrom } from './edits'; // prettier-ignore
import type { Art, PlacedPicture, Shape } from './schema';
import { emptyArt, placedPicture } from './blank';
import { ART_VERSION } from './limits';
import { anchorCount, findNode, findShape, layerOf, shapesOf, tracedPicture } from './tree'; // prettier-ignore
import { formatLength, fromPx, PX_PER, toPx } from './units';

const picture: PlacedPicture = placedPicture({
  id: 'pic', source: 'abc', name: 'can.jpg', width: 100, height: 50, placement: [1, 0, 0, 1, 0, 0],
}); // prettier-ignore

describe('the document', () => {
  it('is written as JSON writes it, also after changes', () => {
    const random = seeded(5);
    let n = 0;
    let art = withShapes(shape('a'));
    for (let k = 0; k < 60; k++) {
      art = changeArt(
        art,
        anyRecipe(random, art, () => `n${n++}`),
      ).art;
      expect(JSON.parse(artText(art))).toEqual(JSON.parse(JSON.stringify(art)));
    }
  });

  it('takes what it writes', () => {
    const art = changeArt(withShapes(shape('a')), addPicture(picture)).art;
    expect(readArt(JSON.parse(JSON.stringify(art)))).toEqual(art);
  });

  const bad = (change: (art: ReturnType<typeof structuredClone>) => void): unknown => {
    const art = structuredClone(changeArt(withShapes(shape('a')), addPicture(picture)).art);
    change(art);
    return art;
  };
  it.each([
    [
      'a coordinate that is not a number',
      (a: Art) => Object.assign((a.layers[0]!.children[0] as Shape).paths[0]!.anchors[0]!, { x: NaN }),
    ],
    ['an infinite one', (a: Art) => Object.assign(a.sheet, { width: Infinity })],
    [
      'one of 1e300',
      (a: Art) => Object.assign((a.layers[0]!.children[0] as Shape).paths[0]!.anchors[0]!, { y: 1e300 }),
    ],
    ['an id used twice', (a: Art) => Object.assign(a.layers[0]!.children[0]!, { id: 'layer' })],
    ['a traced picture that is not there', (a: Art) => Object.assign(a, { traced: 'nobody' })],
    ['a colour in words', (a: Art) => Object.assign(a.layers[0]!.children[0]!, { fill: { hex: 'red' } })],
    ['a flattening placement', (a: Art) => Object.assign(a.pictures[0]!, { placement: [1, 1, 1, 1, 0, 0] })],
    ['another version', (a: Art) => Object.assign(a, { version: 99 })],
    ['an unknown field', (a: Art) => Object.assign(a, { script: 'x' })],
    ['a shape without paths', (a: Art) => Object.assign(a.layers[0]!.children[0]!, { paths: [] })],
    ['no layer', (a: Art) => Object.assign(a, { layers: [] })],
  ])('refuses %s with a sentence', (_what, change) => {
    const value = bad(change as never);
    expect(artSchema.safeParse(value).success).toBe(false);
    expect(() => readArt(value)).toThrowError(MirrotError);
    expect(() => readArt(value)).toThrow(/cannot be read at .+/);
  });

  it('takes names of any script up to 500 characters, and refuses longer or control characters', () => {
    const named = (name: string): boolean =>
      artSchema.safeParse(changeArt(withShapes(shape('a')), setNode('a', { name })).art).success;
    for (const name of ['a/b\\c', '🌱🥕', 'שתיל ירוק', 'x'.repeat(500)]) expect(named(name)).toBe(true);
    for (const name of ['', '   ', 'x'.repeat(501), 'a\u0000b']) expect(named(name)).toBe(false);
  });
});

// Source: CSS Values 4 (96 px to the inch, 2.54 cm to the inch); ISO 216 (A6 is 105 mm × 148 mm).
it('converts units exactly', () => {
  expect(PX_PER).toEqual({ px: 1, in: 96, cm: 96 / 2.54, mm: 96 / 25.4 });
  expect(toPx(1, 'in')).toBe(96);
  expect(fromPx(toPx(105, 'mm'), 'mm')).toBeCloseTo(105, 12);
  expect(formatLength(96, 'mm')).toBe('25.40 mm');
  expect(formatLength(12.34, 'px')).toBe('12.3 px');
});

describe('finding things', () => {
  const grouped = changeArt(
    withShapes(shape('a')),
    addNode('layer', {
      id: 'g', type: 'group', name: 'Group', shown: false, locked: true, opacity: 1, children: [shape('b')],
    }),
  ).art; // prettier-ignore

  it('lists shapes bottom first with what they inherit', () => {
    expect(shapesOf(grouped).map(({ shape: s, shown, locked }) => [s.id, shown, locked])).toEqual([
      ['a', true, false],
      ['b', false, true],
    ]);
  });

  it('finds nodes, layers and shapes, or says there is none', () => {
    expect(findNode(grouped, 'b')).toMatchObject({ index: 0, parent: { id: 'g' } });
    expect(findNode(grouped, 'layer')).toMatchObject({ parent: null });
    expect(findShape(grouped, 'g')).toBeNull();
    expect(findNode(grouped, 'zz')).toBeNull();
    expect(layerOf(grouped, 'b')!.id).toBe('layer');
    expect(layerOf(grouped, 'zz')).toBeNull();
  });

  it('measures what is drawn, strokes included, and leaves out what is hidden', () => {
    const stroked = withShapes(shape('a', { stroke: plainStroke({ hex: '#000000' }, 4) }));
    expect(paintedBox(paintList(stroked))).toEqual({ x0: -2, y0: -2, x1: 12, y1: 12 });
    expect(paintedBox(paintList(changeArt(stroked, setNode('a', { shown: false })).art)).x0).toBe(Infinity);
  });

  it('knows inside from hole', () => {
    const ring = shape('r', { paths: [squarePath(0, 0, 10, 'o'), squarePath(3, 3, 4, 'h')] });
    expect(shapeHas(ring, { x: 1, y: 1 })).toBe(true);
    expect(shapeHas(ring, { x: 5, y: 5 })).toBe(false);
    expect(anchorCount(ring)).toBe(8);
    expect(pathInside(circlePath(5, 5, 2), squarePath(0, 0, 10))).toBe(true);
    expect(pathInside(circlePath(5, 5, 6), squarePath(0, 0, 10))).toBe(false);
  });
});

describe('changing the document', () => {
  const art = withShapes(shape('a'), shape('b'), shape('c'));

  it('leaves the original and shares what did not change', () => {
    const { art: next, patches } = changeArt(art, styleShapes(['b'], { fill: null }));
    expect(findShape(art, 'b')!.fill).not.toBeNull();
    expect(findShape(next, 'b')!.fill).toBeNull();
    expect(next.layers[0]!.children[0]).toBe(art.layers[0]!.children[0]);
    expect(patches).toEqual([{ op: 'replace', path: '/layers/0/children/1/fill', value: null }]);
  });

  it('does nothing for names that are not there', () => {
    const nothing = together(
      removeNodes(['zz']), styleShapes(['zz'], { fill: null }), setPath('zz', squarePath(0, 0, 1)),
      setPath('a', squarePath(0, 0, 1, 'zz')), restack(['zz'], 'up'), makeHole('zz', 'a'), setNode('zz', { name: 'x' }),
      freeHole('a', 'zz', shape('n')), setPicture('zz', { wash: 5 }), traceFrom('zz'), setLayerInk('a', null),
    ); // prettier-ignore
    expect(changeArt(art, nothing)).toMatchObject({ art, patches: [] });
  });

  it.each([
    ['up', ['b', 'a', 'c']],
    ['down', ['a', 'b', 'c']],
    ['top', ['b', 'c', 'a']],
    ['bottom', ['a', 'b', 'c']],
  ] as const)('moves a shape %s in the stack', (move, order) => {
    expect(ids(changeArt(art, restack(['a'], move)).art)).toEqual(order);
  });

  it.each([
    ['up', ['c', 'a', 'b', 'd'], ['a', 'b']],
    ['down', ['a', 'b', 'c', 'd'], ['a', 'b']],
    ['down', ['b', 'c', 'a', 'd'], ['b', 'c']],
    ['up', ['b', 'a', 'c', 'd'], ['a', 'c', 'd']],
    ['bottom', ['b', 'd', 'a', 'c'], ['b', 'd']],
    ['top', ['b', 'd', 'a', 'c'], ['a', 'c']],
  ] as const)('moves several %s in the stack, in their own order: %j', (move, order, chosen) => {
    const four = withShapes(shape('a'), shape('b'), shape('c'), shape('d'));
    expect(ids(changeArt(four, restack(chosen, move)).art)).toEqual(order);
  });

  it('refuses what is no number, and changes nothing', () => {
    const path = findShape(art, 'a')!.paths[0]!;
    const bad = { ...path, anchors: path.anchors.map((a) => ({ ...a, x: a.x / 0 })) };
    expect(() => changeArt(art, setPath('a', bad))).toThrow('leads beyond all numbers');
  });

  it('leaves no key behind with a neighbour that is alone with it', () => {
    const border = (id: string, x: number): Shape => {
      const path = squarePath(x, 0, 10, `${id}-p`);
      return shape(id, { paths: [{ ...path, anchors: path.anchors.map((a) => (a.x === 10 ? { ...a, shared: `k${a.y}` } : a)) }] }); // prettier-ignore
    };
    const two = withShapes(border('l', 0), border('r', 10));
    const keys = (drawing: Art, id: string): number => findShape(drawing, id)!.paths.flatMap((p) => p.anchors.filter((a) => a.shared)).length; // prettier-ignore
    expect(keys(changeArt(two, removeNodes(['l'])).art, 'r')).toBe(0);
    expect(keys(changeArt(two, setNode('l', { name: 'Left' })).art, 'r')).toBe(2);
    const left = findShape(two, 'l')!.paths[0]!;
    const without = { ...left, anchors: left.anchors.filter((a) => a.shared !== 'k10') };
    const less = changeArt(two, setPath('l', without)).art;
    expect([keys(less, 'l'), keys(less, 'r')]).toEqual([1, 1]);
    // A third neighbour still shares it; a hole takes its keys along.
    const three = changeArt(two, addNode('layer', shape('t', { paths: [{ ...squarePath(10, 10, 5, 't-p'), anchors: [{ ...squarePath(10, 10, 5).anchors[0]!, shared: 'k10' }, ...squarePath(10, 10, 5).anchors.slice(1)] }] }))).art; // prettier-ignore
    expect(keys(changeArt(three, removeNodes(['l'])).art, 'r')).toBe(1);
    expect(keys(changeArt(two, makeHole('l', 'r')).art, 'r')).toBe(4);
  });

  it('releases a shape about an axis twice without one id for two paths, and shares with where it was drawn only', () => {
    const axis = { kind: 'mirror', x: 40, y: 0, angle: Math.PI / 2 } as const;
    const path = squarePath(0, 0, 10, 'a-p');
    const drawn = shape('a', { paths: [{ ...path, anchors: path.anchors.map((p, i) => (i === 0 ? { ...p, shared: 'k' } : p)) }], axis }); // prettier-ignore
    const neighbour = shape('n', { paths: [{ ...squarePath(-10, -10, 10, 'n-p'), anchors: squarePath(-10, -10, 10).anchors.map((p) => (p.x === 0 && p.y === 0 ? { ...p, shared: 'k' } : p)) }] }); // prettier-ignore
    const once = changeArt(withShapes(drawn, neighbour), releaseAxis(['a'])).art;
    const twice = changeArt(changeArt(once, setAxis(['a'], { ...axis, x: 90 })).art, releaseAxis(['a'])).art;
    const paths = findShape(twice, 'a')!.paths;
    expect(new Set(paths.map((p) => p.id)).size).toBe(4);
    expect(readArt(JSON.parse(JSON.stringify(twice)))).toEqual(twice);
    expect(paths.flatMap((p) => p.anchors.filter((q) => q.shared))).toHaveLength(1);
  });

  it('makes a hole of a shape and frees it again', () => {
    const hole = shape('h', { paths: [{ ...squarePath(3, 3, 2, 'hp'), closed: false }] });
    const holed = changeArt(withShapes(shape('a'), hole), makeHole('h', 'a')).art;
    expect(ids(holed)).toEqual(['a']);
    expect(findShape(holed, 'a')!.paths[1]).toMatchObject({ id: 'hp', closed: true });
    const { paths: _, ...rest } = shape('again');
    const freed = changeArt(holed, freeHole('a', 'hp', rest)).art;
    expect(ids(freed)).toEqual(['a', 'again']);
    expect(findShape(freed, 'a')!.paths).toHaveLength(1);
    expect(readArt(freed)).toEqual(freed);
  });

  it('takes a shape away with its last path, and keeps the last layer', () => {
    expect(ids(changeArt(art, setPaths('b', [])).art)).toEqual(['a', 'c']);
    const emptied = changeArt(art, removeNodes(['layer'])).art;
    expect(emptied.layers).toHaveLength(1);
    expect(ids(emptied)).toEqual([]);
  });

  it('adds layers above the one named, and sets their ink', () => {
    const layer = { ...blank.layers[0]!, id: 'two' };
    const two = changeArt(art, together(addLayer(layer, 'layer'), addLayer({ ...layer, id: 'mid' }, 'layer'), setLayerInk('mid', '#22252b'))).art; // prettier-ignore
    expect(two.layers.map((l) => l.id)).toEqual(['layer', 'mid', 'two']);
    expect(two.layers[1]!.ink).toBe('#22252b');
    expect(changeArt(two, removeNodes(['mid'])).art.layers).toHaveLength(2);
  });

  it('keeps one picture traced while there is one', () => {
    const two = changeArt(blank, together(addPicture(picture), addPicture({ ...picture, id: 'p2' }), traceFrom('p2'))).art; // prettier-ignore
    expect(tracedPicture(two)!.id).toBe('p2');
    const one = changeArt(two, together(removePicture('p2'), setPicture('pic', { wash: 40 }))).art;
    expect(tracedPicture(one)).toMatchObject({ id: 'pic', wash: 40 });
    expect(changeArt(one, removePicture('pic')).art.traced).toBeNull();
  });

  it('keeps chips and sheet', () => {
    const chip = { id: 'c1', name: 'Leaf', hex: '#2f6b4f' };
    const next = changeArt(blank, together(addChip(chip), setSheet({ ground: '#ffffff' }))).art;
    expect(next).toMatchObject({ chips: [chip], sheet: { ground: '#ffffff', unit: 'mm' } });
    expect(changeArt(next, removeChip('c1')).art.chips).toEqual([]);
  });
});

describe('a long line in runs', () => {
  const wave = (closed: boolean): Path => ({
    id: 'w',
    closed,
    anchors: Array.from({ length: 500 }, (_, i) => ({
      x: i, y: Math.sin(i), kind: 'smooth' as const, in: { x: -0.3, y: 0 }, out: { x: 0.3, y: 0 },
    })),
  }); // prettier-ignore

  it('is the line: every segment once, in order, closed or open', () => {
    for (const closed of [false, true]) {
      const path = wave(closed);
      const drawn = lineRuns([path]).flatMap((d) => pathCubics(parsePathData(d)[0]!));
      expect(drawn).toHaveLength(closed ? 500 : 499);
      pathCubics(path).forEach((c, i) =>
        c.forEach((p, k) =>
          expect(Math.hypot(p.x - drawn[i]![k]!.x, p.y - drawn[i]![k]!.y)).toBeLessThan(1e-3),
        ),
      );
    }
  });

  it('changes only where an anchor does, and is one run where it is short', () => {
    const path = wave(false);
    const moved = { ...path, anchors: path.anchors.map((a, i) => (i === 300 ? { ...a, y: a.y + 5 } : a)) };
    const [before, after] = [lineRuns([path]), lineRuns([moved])];
    expect(after.filter((d, i) => d !== before[i])).toHaveLength(1);
    const square = [squarePath(0, 0, 10)];
    expect(lineRuns(square)).toEqual([drawnData(square)]);
  });
});

describe('a document of version 2', () => {
  it('gets a grid that is not shown, and no axis', () => {
    const {
      grid: _g,
      axis: _a,
      ...old
    } = JSON.parse(JSON.stringify(emptyArt({ width: 9, height: 9, unit: 'px' }, 'l'))) as Art;
    const now = readArt({ ...old, version: 2 });
    expect(now.version).toBe(ART_VERSION);
    expect(now.grid.shown).toBe(false);
    expect(now.grid.step).toBeCloseTo(toPx(5, 'mm'), 9);
    expect(now.axis).toBeNull();
  });
  it.each([
    { kind: 'turn', x: 0, y: 0, parts: 1 },
    { kind: 'turn', x: 0, y: 0, parts: 2.5 },
    { kind: 'mirror', x: 0, y: 0 },
    { kind: 'spiral', x: 0, y: 0 },
  ])('with an axis that is none is refused: %j', (axis) => {
    expect(() => readArt({ ...emptyArt({ width: 9, height: 9, unit: 'px' }, 'l'), axis })).toThrowError(
      /cannot be read at axis/,
    );
  });
});
