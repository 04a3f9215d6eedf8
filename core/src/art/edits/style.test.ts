import { describe, expect, it } from 'vitest';
import { applyPatches, changeArt, type Recipe } from '../change';
import { readArt } from '../check';
import { shapeOf, withShapes } from '../testing';
import { shapeById } from '../tree';
import type { Art, Shape } from '../schema';
import { plainStroke } from '../paint';
import {
  addChip,
  formStrokes,
  keepColourway,
  mapShape,
  paintShapes,
  putOn,
  recolourChips,
  removeChip,
  removeColourway,
  replaceChips,
  setChip,
  setCovering,
  styleShapes,
  takeLook,
  takeOff,
  toneShapes,
  together,
} from '.';

const chips = together(
  addChip({ id: 'leaf', name: 'Leaf', hex: '#2f6b4f' }),
  addChip({ id: 'moss', name: '', hex: '#2f6b50' }),
  addChip({ id: 'night', name: '', hex: '#101020' }),
);
const art = changeArt(
  withShapes(
    shapeOf('a', { fill: { chip: 'leaf' } }),
    shapeOf('b', { fill: { chip: 'moss' }, stroke: plainStroke({ chip: 'night' }, 3) }),
  ),
  chips,
).art;

/** Carries a recipe out, sees that it can be undone and that the document is one, and gives it. */
function after(before: Art, recipe: Recipe): Art {
  const { art: next, patches, inverse } = changeArt(before, recipe);
  expect(applyPatches(before, patches)).toEqual(next);
  expect(applyPatches(next, inverse)).toEqual(before);
  return readArt(JSON.parse(JSON.stringify(next)));
}
const shape = (of: Art, id: string): Shape => shapeById(of, id)!;

describe('what is taken off', () => {
  it('comes back as it was, and follows its chip meanwhile', () => {
    const off = after(art, takeOff(['a', 'b'], 'fill'));
    expect([shape(off, 'a').fill, shape(off, 'b').fill]).toEqual([null, null]);
    const recoloured = after(off, replaceChips(['moss'], 'leaf'));
    expect(shape(recoloured, 'b').aside).toEqual({ fill: { chip: 'leaf' } });
    const on = after(recoloured, putOn(['a', 'b'], 'fill', { hex: '#ffffff' }, 2));
    expect([shape(on, 'a').fill, shape(on, 'b').fill]).toEqual([{ chip: 'leaf' }, { chip: 'leaf' }]);
    expect(shape(on, 'a').aside).toBeUndefined();
  });

  it('is kept for fill and line apart, and a line keeps its form', () => {
    const off = after(art, together(takeOff(['b'], 'stroke'), takeOff(['b'], 'fill')));
    const half = after(off, putOn(['b'], 'stroke', { hex: '#ffffff' }, 9));
    expect(shape(half, 'b').stroke).toEqual(plainStroke({ chip: 'night' }, 3));
    expect(shape(half, 'b').aside).toEqual({ fill: { chip: 'moss' } });
    expect(shape(after(art, putOn(['a'], 'stroke', { hex: '#ffffff' }, 9)), 'a').stroke?.width).toBe(9);
  });

  it('keeps its chip in the palette’s books: a chip that goes leaves its colour', () => {
    const off = after(art, takeOff(['a'], 'fill'));
    expect(shape(after(off, removeChip('leaf')), 'a').aside).toEqual({ fill: { hex: '#2f6b4f' } });
  });

  it('is forgotten once something else is put on, by hand or as a body tone', () => {
    const off = after(art, together(takeOff(['b'], 'fill'), takeOff(['b'], 'stroke')));
    const painted = after(off, paintShapes(['b'], 'fill', { hex: '#ffffff' }, 1));
    expect(shape(painted, 'b').aside).toEqual({ stroke: plainStroke({ chip: 'night' }, 3) });
    const toned = after(off, toneShapes([{ id: 'b', tone: '#2f6b51', colour: { hex: '#2f6b51' } }]));
    expect(shape(toned, 'b').aside).not.toHaveProperty('fill');
    const lined = after(painted, paintShapes(['b'], 'stroke', { hex: '#ffffff' }, 1));
    expect(shape(lined, 'b').aside).toBeUndefined();
  });

  it('goes along with a map of its shape', () => {
    const stops = [{ at: 0, colour: { hex: '#000000' }, opacity: 1 }, { at: 1, colour: { hex: '#ffffff' }, opacity: 0 }]; // prettier-ignore
    const faded = after(art, styleShapes(['a'], { fill: { kind: 'linear', placement: [10, 0, 0, 10, 0, 0], stops } })); // prettier-ignore
    const off = after(faded, takeOff(['a'], 'fill'));
    const moved = after(off, mapShape(shape(off, 'a'), [1, 0, 0, 1, 5, 6]));
    expect(shape(moved, 'a').aside?.fill).toMatchObject({ placement: [10, 0, 0, 10, 5, 6] });
  });
});

describe('a body tone', () => {
  it('is one until the fill is set by hand, and stays one when its chip is recoloured or replaced', () => {
    const toned = after(art, toneShapes([{ id: 'a', tone: '#2f6b51', colour: { chip: 'moss' } }]));
    expect(shape(toned, 'a').toned).toBe('#2f6b51');
    expect(shape(after(toned, replaceChips(['moss'], 'leaf')), 'a')).toMatchObject({ toned: '#2f6b51', fill: { chip: 'leaf' } }); // prettier-ignore
    for (const byHand of [
      paintShapes(['a'], 'fill', { hex: '#ffffff' }, 1),
      styleShapes(['a'], { fill: null }),
      takeLook(['a'], 'b'),
    ])
      expect(shape(after(toned, byHand), 'a').toned).toBeUndefined();
    expect(shape(after(toned, paintShapes(['a'], 'stroke', { hex: '#ffffff' }, 1)), 'a').toned).toBe(
      '#2f6b51',
    );
  });
});

describe('a palette', () => {
  it('of which one chip is put in the place of others has no other any more, nor has a colourway', () => {
    const way = { id: 'evening', name: 'Evening', hexes: { leaf: '#111111', moss: '#222222' } };
    const kept = after(art, keepColourway(way));
    const merged = after(kept, replaceChips(['moss', 'gone', 'leaf'], 'leaf'));
    expect(merged.chips.map(({ id }) => id)).toEqual(['leaf', 'night']);
    expect(shape(merged, 'b').fill).toEqual({ chip: 'leaf' });
    expect(merged.colourways[0]!.hexes).toEqual({ leaf: '#111111' });
    expect(after(kept, replaceChips(['moss'], 'nobody'))).toEqual(kept);
    expect(after(kept, removeColourway('evening')).colourways).toEqual([]);
    expect(after(kept, keepColourway({ ...way, name: 'Night' })).colourways).toHaveLength(1);
  });

  it('is recoloured as a whole, and says what its chips are for', () => {
    const next = after(art, recolourChips({ leaf: '#abcdef', gone: '#000000' }));
    expect(next.chips.map(({ hex }) => hex)).toEqual(['#abcdef', '#2f6b50', '#101020']);
    const named = after(next, setChip('leaf', { role: 'light', name: 'Sprout' }));
    expect(named.chips[0]).toEqual({ id: 'leaf', name: 'Sprout', hex: '#abcdef', role: 'light' });
    expect(after(named, setChip('leaf', { role: null })).chips[0]).not.toHaveProperty('role');
  });
});

it('lines are formed and shadows cast where there are some, and go again', () => {
  const formed = after(
    art,
    formStrokes(['a', 'b'], { ends: 'butt', dash: [4, 2], dashOffset: 1, under: true }),
  );
  expect(shape(formed, 'a').stroke).toBeNull();
  expect(shape(formed, 'b').stroke).toMatchObject({ ends: 'butt', dash: [4, 2], dashOffset: 1, under: true });
  const plain = after(formed, formStrokes(['b'], { dash: [], dashOffset: undefined, under: undefined }));
  expect(shape(plain, 'b').stroke).not.toHaveProperty('under');
  const shadow = { x: 2, y: 3, blur: 4, hex: '#000000', opacity: 0.5 };
  const cast = after(art, setCovering(['a', 'layer'], { shadow }));
  expect([shape(cast, 'a').shadow, cast.layers[0]!.shadow]).toEqual([shadow, shadow]);
  expect(shape(after(cast, setCovering(['a'], { shadow: null })), 'a')).not.toHaveProperty('shadow');
});
