import { bodyTone, coveredShare, fitGradient, formatHex, setMeant, styleShapes, takeOff, type Raster, type ToneWish } from '@mirrot/core'; // prettier-ignore
import { beforeEach, describe, expect, it } from 'vitest';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { chooseShapes } from '$lib/desk/choice';
import type { DriftSettings } from '$lib/desk/drifts.svelte';
import { offerDeal } from './dealing';
import {
  bareShare,
  offerAgain,
  offerBodyTone,
  offerGradient,
  offerTone,
  staleTones,
  type Toner,
} from './toning';

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
const settings = { raster: { key: 'k', step: 1, pixels: raster }, picture: { placement: [1, 0, 0, 1, 0, 0], width: 400, height: 300, square: null, crop: null } } as unknown as DriftSettings; // prettier-ignore
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

describe('Body tone once taken', () => {
  const shown = (): void => b.desk.takeOffer();
  beforeEach(async () => {
    bench(['low', 150, 20, 90], ['right', 250, 150, 60]);
    b.desk.choose(chooseShapes([]));
    await offerBodyTone(b.desk, run);
    shown();
  });

  it('is stale when a later shape covers it, asked again by itself never, and as an offer when wished', async () => {
    expect(await staleTones(b.desk, run)).toEqual([]);
    const fill = b.desk.shapeOf('low')!.fill;
    b.desk.change('Draw', (draft) => void draft.layers[0]!.children.push({ ...structuredClone(b.desk.art.layers[0]!.children[0]!), id: 'over', paths: [square('po', 140, 10, 60)] } as never)); // prettier-ignore
    expect(await staleTones(b.desk, run)).toEqual(['low']);
    expect(b.desk.shapeOf('low')!.fill).toEqual(fill);
    await offerAgain(b.desk, ['low'], run);
    expect(b.desk.offer?.text).toBe('Body tone of 1 shape, looked for anew');
    b.desk.takeOffer();
    expect(b.desk.shapeOf('low')!.fill).toEqual({ hex: CARROT });
    expect(await staleTones(b.desk, run)).toEqual([]);
  });

  it('taken off is no longer asked, and a colour taken off is not replaced among all without a fill', async () => {
    b.desk.change('Take off', takeOff(['low', 'right'], 'fill'));
    b.desk.change('Draw', (draft) => void draft.layers[0]!.children.push({ ...structuredClone(b.desk.art.layers[0]!.children[0]!), id: 'over', toned: undefined, aside: undefined, paths: [square('po', 140, 10, 60)] } as never)); // prettier-ignore
    expect(await staleTones(b.desk, run)).toEqual([]);
    b.desk.choose(chooseShapes([]));
    await offerBodyTone(b.desk, run);
    b.desk.takeOffer();
    expect([b.desk.shapeOf('low')!.fill, b.desk.shapeOf('right')!.fill]).toEqual([null, null]);
    expect(b.desk.shapeOf('over')!.fill).not.toBeNull();
  });

  it('is none any more when its fill is set by hand: it is never asked again, nor toned among several', async () => {
    b.desk.change('Fill', styleShapes(['low'], { fill: { hex: '#123456' } }));
    expect(await staleTones(b.desk, run)).toEqual([]);
    b.desk.choose(chooseShapes(['low', 'right']));
    await offerBodyTone(b.desk, run);
    expect(b.desk.shapeOf('low')!.fill).toEqual({ hex: '#123456' });
    b.desk.leaveOffer();
    // Asked for all by name, it is.
    b.desk.choose(chooseShapes(['low']));
    await offerBodyTone(b.desk, run);
    expect(b.desk.shapeOf('low')!.fill).not.toEqual({ hex: '#123456' });
  });
});

describe('a gradient from the picture', () => {
  it('is offered with how near it comes, laid on the sheet, and refused where too little is open', async () => {
    b.desk.choose(chooseShapes(['left']));
    await offerGradient(b.desk, async (_by, wishes) => wishes.map((wish) => fitGradient(raster, wish)));
    expect(b.desk.offer?.text ?? b.desk.notice?.text).toMatch(/ΔE 0\.0 from it|Too little/);
    b.desk.leaveOffer();
    b.desk.choose(chooseShapes(['beside']));
    await offerGradient(b.desk, async (_by, wishes) => wishes.map((wish) => fitGradient(raster, wish)));
    expect(b.desk.offer).toBeNull();
    expect(b.desk.notice?.text).toMatch(/Too little of it.*Nothing was changed/);
    b.desk.choose(chooseShapes([]));
    await offerGradient(b.desk, async () => null);
    expect(b.desk.notice?.text).toMatch(/Choose the shapes/);
  });
});

describe('a range', () => {
  const RANGE = ['#eeeeee', '#bbbbbb', '#888888', '#444444'];
  it('is dealt by the lightness beneath, as chips, neighbours never alike, undone at once', async () => {
    bench(['one', 20, 20, 40], ['two', 60, 20, 40], ['three', 260, 20, 40]);
    b.desk.habits.set({ dealApart: true });
    b.desk.choose(chooseShapes(['one', 'two', 'three']));
    await offerDeal(b.desk, 'Grey', RANGE, run);
    expect(b.desk.offer?.text).toBe('4 steps of Grey dealt over 3 shapes');
    b.desk.takeOffer();
    const [one, two, three] = b.shapes.map((s) => b.desk.art.chips.find((c) => s.fill && 'chip' in s.fill && c.id === s.fill.chip)!.hex); // prettier-ignore
    expect(one).not.toBe(two);
    expect(three).toBe(RANGE[0]);
    b.desk.undo();
    expect([b.desk.art.chips.length, b.shapes.some((s) => s.fill)]).toEqual([0, false]);
  });

  it('of too few colours says what stays alike; beside the picture nothing is dealt', async () => {
    bench(['one', 20, 20, 40], ['two', 60, 20, 40], ['beside', 800, 20, 40]);
    b.desk.choose(chooseShapes(['one', 'two']));
    await offerDeal(b.desk, 'Grey', ['#888888'], run);
    expect(b.desk.offer?.text).toMatch(/1 pair of neighbours stay alike/);
    b.desk.leaveOffer();
    b.desk.choose(chooseShapes(['beside', 'beside']));
    await offerDeal(b.desk, 'Grey', RANGE, run);
    expect(b.desk.offer).toBeNull();
  });
});

it('what of the picture no shape covers is a share of it', async () => {
  b.desk.change('Fill', styleShapes(['left'], { fill: { hex: '#123456' } }));
  const share = await bareShare(b.desk, async (_by, area, covers) => 1 - coveredShare(area, covers, raster)!);
  // Closed shapes without a fill yet count as well: 2 of 60 × 60 on 400 × 300.
  expect(share).toBeCloseTo(1 - (2 * 3600) / 120_000, 2);
});
