import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { about, apply, compose, rotation, scaling, translation, type Affine } from '../geometry/affine';
import { squarePath } from '../testing';
import { writeSvg } from '../formats/svg/write';
import { changeArt } from './change';
import { readArt } from './check';
import { addChip, keepAsChip, mapShape, paintShapes, removeChip, setChip, styleShapes, together, weighStrokes } from './edits'; // prettier-ignore
import { chipsOf, flatHex, hexAt, mapColours, mapPaint, paletteOf, plainStroke, scaleStroke, seenPaint, type Gradient, type Paint } from './paint'; // prettier-ignore
import { shapeOf, withShapes } from './testing';
import { findShape } from './tree';

const red = { hex: '#ff0000' };
const gradient = (
  kind: Gradient['kind'],
  placement: Affine,
  ...stops: [number, string, number?][]
): Gradient => ({
  kind,
  placement,
  stops: stops.map(([at, hex, opacity = 1]) => ({ at, colour: { hex }, opacity })),
});
const run = gradient('linear', [40, 0, 0, 40, 5, 0], [0.1, '#ff0000'], [0.5, '#00ff00'], [0.9, '#0000ff']);

describe('paint', () => {
  it('takes its colours from chips, each recoloured by itself though they are alike', () => {
    const twins = [
      { id: 'a', name: 'Leaf', hex: '#2f6b4f' },
      { id: 'b', name: 'Stem', hex: '#2f6b4f' },
    ];
    const art = changeArt(
      withShapes(shapeOf('s', { fill: { chip: 'a' } }), shapeOf('t', { fill: { chip: 'b' } })),
      () => {},
    ).art;
    const both = { ...art, chips: twins };
    const { art: after } = changeArt(both, setChip('a', { hex: '#123456' }));
    const hexes = ['s', 't'].map((id) => flatHex(findShape(after, id)!.fill, paletteOf(after.chips)));
    expect(hexes).toEqual(['#123456', '#2f6b4f']);
  });

  it('keeps a chip’s colour as its own when that chip goes, in gradients and strokes too', () => {
    const chip = { id: 'c', name: '', hex: '#2f6b4f' };
    const mixed: Paint = { ...run, stops: [...run.stops, { at: 1, colour: { chip: 'c' }, opacity: 0.5 }] };
    const art = {
      ...withShapes(shapeOf('s', { fill: mixed, stroke: plainStroke({ chip: 'c' }, 2) }), shapeOf('t')),
      chips: [chip],
    };
    expect(chipsOf(findShape(art, 's')!)).toEqual(['c', 'c']);
    const { art: after, patches } = changeArt(art, removeChip('c'));
    const shape = findShape(after, 's')!;
    expect(chipsOf(shape)).toEqual([]);
    expect((shape.fill as Gradient).stops.at(-1)).toEqual({
      at: 1,
      colour: { hex: '#2f6b4f' },
      opacity: 0.5,
    });
    expect(shape.stroke).toEqual(plainStroke({ hex: '#2f6b4f' }, 2));
    expect(findShape(after, 't')).toBe(findShape(art, 't'));
    expect(patches.length).toBeGreaterThan(0);
    expect(readArt(JSON.parse(JSON.stringify(after)))).toEqual(after);
  });

  it('gathers equal colours of their own into a chip that is kept', () => {
    const art = withShapes(
      shapeOf('s', { fill: red, stroke: plainStroke(red, 1) }),
      shapeOf('t', { fill: { hex: '#00ff00' } }),
    );
    const { art: after } = changeArt(art, keepAsChip({ id: 'c', name: '', hex: '#ff0000' }));
    expect(findShape(after, 's')).toMatchObject({ fill: { chip: 'c' }, stroke: { paint: { chip: 'c' } } });
    expect(findShape(after, 't')!.fill).toEqual({ hex: '#00ff00' });
    // One that is only added gathers nothing.
    expect(findShape(changeArt(art, addChip({ id: 'c', name: '', hex: '#ff0000' })).art, 's')!.fill).toEqual(
      red,
    );
  });

  it('changes colours only where they change', () => {
    expect(mapColours(run, (c) => c)).toBe(run);
    expect(mapColours(red, (c) => c)).toBe(red);
    const swapped = mapColours(run, (c) =>
      'hex' in c && c.hex === '#00ff00' ? { chip: 'x' } : c,
    ) as Gradient;
    expect(swapped.stops[0]).toBe(run.stops[0]);
    expect(swapped.stops[1]).toEqual({ at: 0.5, colour: { chip: 'x' }, opacity: 1 });
  });

  it('gives a stroke its paint and leaves its form; one that comes anew has the weight given', () => {
    const own = { ...plainStroke(red, 7), ends: 'butt' as const, dash: [3, 1] };
    const art = withShapes(shapeOf('s', { stroke: own }), shapeOf('t'));
    const { art: after } = changeArt(
      art,
      together(paintShapes(['s', 't', 'nobody'], 'stroke', { hex: '#000000' }, 2), weighStrokes(['t'], 4)),
    );
    expect(findShape(after, 's')!.stroke).toEqual({ ...own, paint: { hex: '#000000' } });
    expect(findShape(after, 't')!.stroke).toEqual(plainStroke({ hex: '#000000' }, 4));
    expect(scaleStroke(own, 2)).toEqual({ ...own, width: 14, dash: [6, 2] });
  });
});

describe('a gradient', () => {
  const turn = compose(about(rotation(0.7), { x: 50, y: 40 }), scaling(1.3, 0.6));

  it.each(['linear', 'radial'] as const)('goes along with every map of its shape (%s)', (kind) => {
    const painted = gradient(kind, [30, 0, 0, 30, 50, 40], [0, '#ff0000'], [1, '#0000ff']);
    const art = withShapes(shapeOf('s', { fill: painted, paths: [squarePath(10, 10, 80, 'p')] }));
    const { art: moved } = changeArt(art, mapShape(findShape(art, 's')!, turn));
    const [before, after] = [art, moved].map((a) => seenPaint(findShape(a, 's')!.fill!, new Map()));
    for (const p of [
      { x: 15, y: 20 },
      { x: 60, y: 55 },
      { x: 88, y: 30 },
    ])
      // prettier-ignore
      expect(hexAt(after!, apply(turn, p))).toBe(hexAt(before!, p));
    expect(mapPaint(red, turn)).toBe(red);
  });

  it.each(['linear', 'radial'] as const)('has at each place the colour it is drawn with (%s)', (kind) => {
    const placement = compose(translation(30, 40), compose(rotation(0.5), scaling(50, 30)));
    const fill = gradient(
      kind,
      placement,
      [0.1, '#d4561c'],
      [0.4, '#2f6b4f'],
      [0.4, '#ffffff'],
      [0.8, '#2340c7'],
    );
    const art = withShapes(shapeOf('s', { fill, paths: [squarePath(0, 0, 200, 'p')] }));
    // Source outside: resvg.
    const { pixels, width } = new Resvg(writeSvg(art), { fitTo: { mode: 'width', value: 800 } }).render();
    const scale = width / art.sheet.width;
    let checked = 0;
    for (let x = 2; x < 98; x += 4)
      for (let y = 2; y < 78; y += 4) {
        const i = 4 * (Math.floor(y * scale) * width + Math.floor(x * scale));
        const at = { x: (Math.floor(x * scale) + 0.5) / scale, y: (Math.floor(y * scale) + 0.5) / scale };
        const hex = hexAt(seenPaint(fill, new Map()), at);
        const rgb = [1, 3, 5].map((k) => parseInt(hex.slice(k, k + 2), 16));
        const off = Math.max(...rgb.map((v, k) => Math.abs(v - pixels[i + k]!)));
        // On the hard edge between two stops a pixel may fall to either side.
        if (off <= 2) checked++;
      }
    expect(checked).toBeGreaterThan(0.97 * 24 * 19);
  });

  it.each([
    ['stops out of order', { ...run, stops: [...run.stops].reverse() }],
    ['one stop', { ...run, stops: run.stops.slice(0, 1) }],
    ['a flattened placement', { ...run, placement: [1, 0, 0, 0, 0, 0] }],
    ['a kind that is none', { ...run, kind: 'conic' }],
    ['a colour that is a chip and a hex', { chip: 'c', hex: '#ff0000' }],
  ])('with %s is refused', (_, fill) => {
    const art = withShapes(shapeOf('s'));
    const wrong = changeArt(art, styleShapes(['s'], { fill: fill as Paint })).art;
    expect(() => readArt(wrong)).toThrow(/cannot be read/);
  });
});
