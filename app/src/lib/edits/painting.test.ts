import { addChip, isGradient, plainStroke, styleShapes, together, type Shape } from '@mirrot/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { chooseShapes } from '$lib/desk/choice';
import { readDashes } from '$lib/steps/colour/dashes';
import { chooseByFill } from './choosing-kin';
import { addColours, hexesById, keepAllAsChips, mergeNear, putOnColourway } from './palette';
import { applyColour, applySample, currentHex, setKind } from './painting';

let b: Bench;
const shape = (id: string): Shape => b.desk.shapeOf(id)!;
beforeEach(() => {
  b = benchWith(
    [
      shapeWith('a', [square('pa', 0, 0, 40)], { fill: { hex: '#2f6b4f' } }),
      shapeWith('b', [square('pb', 50, 0, 40)], { stroke: plainStroke({ hex: '#101010' }, 3) }),
      shapeWith('c', [square('pc', 100, 0, 40)], { fill: { hex: '#2f6b52' } }),
    ],
    'colour',
  );
  b.desk.habits.set({ keepToPalette: false, recentColours: [], fillWithin: 0 });
});

describe('how a shape is painted', () => {
  it('taken off and put on again it has the colour it had', () => {
    b.desk.choose(chooseShapes(['a']));
    setKind(b.desk, 'none');
    expect(shape('a').fill).toBeNull();
    expect(b.desk.choice.shapes).toEqual(['a']);
    setKind(b.desk, 'flat');
    expect(shape('a').fill).toEqual({ hex: '#2f6b4f' });
  });

  it('taken off, it gives a gradient the colour it had', () => {
    b.desk.choose(chooseShapes(['a']));
    setKind(b.desk, 'none');
    setKind(b.desk, 'linear');
    const { fill } = shape('a');
    expect(fill && isGradient(fill) && fill.stops[0]!.colour).toEqual({ hex: '#2f6b4f' });
    expect(shape('a').aside).toBeUndefined();
  });

  it('turns from a colour to a gradient and back, and between the kinds, about where it is', () => {
    b.desk.choose(chooseShapes(['a']));
    setKind(b.desk, 'linear');
    const linear = shape('a').fill!;
    expect(isGradient(linear) && linear.stops[0]!.colour).toEqual({ hex: '#2f6b4f' });
    setKind(b.desk, 'radial');
    expect(isGradient(shape('a').fill!)).toBe(true);
    setKind(b.desk, 'flat');
    expect(shape('a').fill).toEqual({ hex: '#2f6b4f' });
    for (let i = 0; i < 3; i++) b.desk.undo();
    expect(shape('a').fill).toEqual({ hex: '#2f6b4f' });
    // A shape without any extent gets one that can be undone.
    b = benchWith([shapeWith('dot', [square('pd', 5, 5, 0)])], 'colour');
    b.desk.choose(chooseShapes(['dot']));
    setKind(b.desk, 'radial');
    expect(isGradient(shape('dot').fill!)).toBe(true);
  });

  it('of a gradient the chosen stop gets the colour', () => {
    b.desk.choose(chooseShapes(['a']));
    setKind(b.desk, 'linear');
    b.desk.colouring.stop = 1;
    applyColour(b.desk, { hex: '#ff0000' });
    const { fill } = shape('a');
    expect(fill && isGradient(fill) && fill.stops.map((s) => s.colour)).toEqual([{ hex: '#2f6b4f' }, { hex: '#ff0000' }]); // prettier-ignore
    expect(currentHex(b.desk)).toBe('#ff0000');
  });

  it('a stroke is painted likewise and keeps its weight', () => {
    b.desk.choose(chooseShapes(['b']));
    b.desk.colouring.receiving = 'stroke';
    setKind(b.desk, 'linear');
    expect(shape('b').stroke).toMatchObject({ width: 3, paint: { kind: 'linear' } });
    setKind(b.desk, 'none');
    expect(shape('b').stroke).toBeNull();
    setKind(b.desk, 'flat');
    expect(shape('b').stroke).toMatchObject({ width: 3, paint: { kind: 'linear' } });
  });
});

describe('colours that are given', () => {
  it('are remembered, newest first, each once', () => {
    b.desk.choose(chooseShapes(['a']));
    for (const hex of ['#111111', '#222222', '#111111']) applyColour(b.desk, { hex });
    expect(b.desk.habits.recentColours).toEqual(['#111111', '#222222']);
    for (let i = 10; i < 40; i++) applyColour(b.desk, { hex: `#0000${i}` });
    expect(b.desk.habits.recentColours).toHaveLength(12);
  });

  it('as samples come to the nearest chip where the palette is kept to, and it is said how far off that is', () => {
    b.desk.change('Chips', together(addChip({ id: 'leaf', name: 'Leaf', hex: '#2f6b4f' }), addChip({ id: 'ink', name: '', hex: '#000000' }))); // prettier-ignore
    b.desk.choose(chooseShapes(['c']));
    applySample(b.desk, { hex: '#306b50' });
    expect(shape('c').fill).toEqual({ hex: '#306b50' });
    b.desk.habits.set({ keepToPalette: true });
    applySample(b.desk, { hex: '#306b50' });
    expect(shape('c').fill).toEqual({ chip: 'leaf' });
    expect(b.desk.notice?.text).toMatch(/Kept to the palette: Leaf, ΔE 0\.\d from #306B50/);
    // A colour that is written is taken as it is.
    applyColour(b.desk, { hex: '#123456' });
    expect(shape('c').fill).toEqual({ hex: '#123456' });
  });
});

describe('the palette', () => {
  it('takes colours as chips, those it has left out, and no more than it may hold', () => {
    addColours(b.desk, 'Take', [{ hex: '#111111', name: 'Night' }, { hex: '#111111', name: '' }, { hex: '#222222', name: '' }]); // prettier-ignore
    expect(b.desk.art.chips.map(({ hex, name }) => [hex, name])).toEqual([['#111111', 'Night'], ['#222222', '']]); // prettier-ignore
    expect(b.desk.notice?.text).toBe('2 chips were added. 1 colour was there already.');
    addColours(b.desk, 'Take', Array.from({ length: 1100 }, (_, i) => ({ hex: `#a${String(i).padStart(5, '0')}`, name: '' }))); // prettier-ignore
    expect(b.desk.art.chips).toHaveLength(1000);
    expect(b.desk.notice?.text).toMatch(/998 chips were added.*102 stay out/);
  });

  it('makes chips of all colours, merges near ones as an offer, the most used stays', () => {
    b.desk.change('Fill', styleShapes(['b'], { fill: { hex: '#2f6b52' } }));
    keepAllAsChips(b.desk);
    expect(b.desk.art.chips.map((c) => c.hex).sort()).toEqual(['#101010', '#2f6b4f', '#2f6b52']);
    expect(b.shapes.every((s) => !s.fill || 'chip' in s.fill)).toBe(true);
    mergeNear(b.desk);
    expect(b.desk.offer?.text).toBe('Merge 2 chips into 1');
    b.desk.takeOffer();
    expect(b.desk.art.chips.map((c) => c.hex).sort()).toEqual(['#101010', '#2f6b52']);
    expect(new Set(b.shapes.map((s) => JSON.stringify(s.fill))).size).toBe(1);
    b.desk.undo();
    expect(b.desk.art.chips).toHaveLength(3);
    mergeNear(b.desk);
    b.desk.leaveOffer();
    expect(b.desk.art.chips).toHaveLength(3);
  });

  it('is recoloured by a colourway at one step', () => {
    keepAllAsChips(b.desk);
    const ids = b.desk.art.chips.map((c) => c.id);
    putOnColourway(b.desk, 'Evening', hexesById(ids, ['#aa0000', '#00aa00', '#0000aa']));
    expect(b.desk.art.chips.map((c) => c.hex)).toEqual(['#aa0000', '#00aa00', '#0000aa']);
    b.desk.undo();
    expect(b.desk.art.chips.map((c) => c.hex)).not.toContain('#aa0000');
  });
});

it('shapes are chosen by their fill, within a tolerance', () => {
  chooseByFill(b.desk, '#2f6b4f');
  expect(b.desk.choice.shapes).toEqual(['a']);
  b.desk.habits.set({ fillWithin: 3 });
  chooseByFill(b.desk, '#2f6b4f');
  expect(b.desk.choice.shapes).toEqual(['a', 'c']);
  chooseByFill(b.desk, '#ffffff');
  expect(b.desk.choice.shapes).toEqual(['a', 'c']);
  expect(b.desk.notice?.text).toMatch(/No shape in reach/);
});

it('dashes are read as people write them', () => {
  expect(readDashes('4 2', 2)).toEqual([8, 4]);
  expect(readDashes('4, 2; 1', 1)).toEqual([4, 2, 1, 4, 2, 1]);
  expect(readDashes('  ', 1)).toEqual([]);
  expect(readDashes('0 3', 1)).toEqual([0.001, 3]);
  for (const bad of ['x', '4 -1', '0 0', '1e400 2'])
    expect(readDashes(bad, 1)).toMatch(/Nothing was changed/);
  expect(readDashes('1 '.repeat(33), 1)).toMatch(/32 dashes/);
});
