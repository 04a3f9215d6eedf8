import { bodyTone, formatHex, setMeant, styleShapes, type Raster, type ToneWish } from '@mirrot/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { chooseShapes } from '$lib/desk/choice';
import type { DriftSettings } from '$lib/desk/drifts.svelte';
import { offerBodyTone, offerTone, type Toner } from './toning';

// A picture of two flat halves, a sheet pixel each: leaf at the left, carrot at the right.
const LEAF = '#2f6b4f';
const CARROT = '#d4561c';
const raster: Raster = (() => {
  const [width, height] = [400, 300];
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < width * height; i++) data.set([...(i % width < 200 ? [0x2f, 0x6b, 0x4f] : [0xd4, 0x56, 0x1c]), 255], i * 4); // prettier-ignore
  return { width, height, data };
})();
let asked: readonly ToneWish[] = [];
const run: Toner = async (_by, wishes) => {
  asked = wishes;
  return wishes.map((wish) => bodyTone(raster, wish));
};
let b: Bench;
const settings = { raster: { key: 'k', step: 1, pixels: raster }, picture: { placement: [1, 0, 0, 1, 0, 0] } } as unknown as DriftSettings; // prettier-ignore
const bench = (...ids: [string, number, number, number][]): void => {
  b = benchWith(
    ids.map(([id, x, y, size]) => shapeWith(id, [square(`p-${id}`, x, y, size)])),
    'colour',
  );
  Object.defineProperty(b.desk.picture, 'driftSettings', { get: () => settings, configurable: true });
};
const fills = (): (string | null)[] =>
  b.desk.art.layers[0]!.children.map((n) =>
    n.type === 'shape' && n.fill && 'hex' in n.fill ? n.fill.hex : null,
  );

beforeEach(() => bench(['left', 20, 20, 60], ['right', 250, 20, 60], ['beside', 600, 20, 60]));

describe('Body tone', () => {
  it('is offered for all without a fill, shown, taken as one step, and says what stays', async () => {
    b.desk.change('Fill', styleShapes(['right'], { fill: { hex: '#123456' } }));
    await offerBodyTone(b.desk, run);
    expect(b.desk.offer?.text).toBe('Body tone of 1 shape; 1 covered or beside the picture stay as they are');
    expect(fills()).toEqual([LEAF, '#123456', null]);
    b.desk.takeOffer();
    b.desk.undo();
    expect(fills()).toEqual([null, '#123456', null]);
  });

  it('of the one that is chosen replaces its fill, and tells its light and shade', async () => {
    b.desk.change('Fill', styleShapes(['right'], { fill: { hex: '#123456' } }));
    b.desk.choose(chooseShapes(['right']));
    await offerBodyTone(b.desk, run);
    expect(b.desk.offer?.text).toBe(`Body tone of right: ${CARROT.toUpperCase()}`);
    expect(formatHex(b.desk.colouring.tone!.tone.light!)).toBe(CARROT);
    offerTone(b.desk, b.desk.shapeOf('right')!, '#ffffff', 'Light tone');
    b.desk.takeOffer();
    expect(fills()).toEqual([null, '#ffffff', null]);
  });

  it('does not look where another shape lies above, unless that is a line, meant so, or hidden', async () => {
    bench(['low', 150, 20, 100], ['high', 200, 0, 200]);
    b.desk.choose(chooseShapes(['low']));
    await offerBodyTone(b.desk, run);
    expect(b.desk.offer?.text).toMatch(/^Body tone of low: #2F6B4F, from the 50 % of it in sight$/);
    expect(asked[0]!.covers).toHaveLength(1);
    b.desk.leaveOffer();
    b.desk.change('Mean it', setMeant(['high'], true));
    await offerBodyTone(b.desk, run);
    expect(asked[0]!.covers).toHaveLength(0);
    expect(b.desk.colouring.tone!.tone.groups).toHaveLength(2);
  });

  it('wholly covered or beside the picture says so, changes nothing, and offers Disc', async () => {
    bench(['low', 20, 20, 40], ['high', 0, 0, 100]);
    b.desk.choose(chooseShapes(['low']));
    await offerBodyTone(b.desk, run);
    expect(b.desk.offer).toBeNull();
    expect(b.desk.notice?.text).toMatch(/low shows nothing of the picture.*Nothing was changed/);
    b.desk.notice!.action!.run();
    expect(b.desk.colouring.sampling).toBe('disc');
    b.desk.change('Fill', styleShapes(['low', 'high'], { fill: { hex: '#123456' } }));
    b.desk.choose(chooseShapes([]));
    await offerBodyTone(b.desk, run);
    expect(b.desk.notice?.text).toMatch(/Every closed shape has its fill/);
  });

  it('of a drawing that was changed meanwhile, stopped, or without a picture is none', async () => {
    await offerBodyTone(b.desk, async (by, wishes) => {
      b.desk.change('Fill', styleShapes(['left'], { fill: { hex: '#123456' } }));
      return run(by, wishes);
    });
    expect(b.desk.offer).toBeNull();
    await offerBodyTone(b.desk, async () => null);
    expect(b.desk.offer).toBeNull();
    Object.defineProperty(b.desk.picture, 'driftSettings', { get: () => null });
    await offerBodyTone(b.desk, run);
    expect(b.desk.notice?.text).toMatch(/no picture in sight/);
  });
});
