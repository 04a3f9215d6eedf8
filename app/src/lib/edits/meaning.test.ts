import { beforeEach, describe, expect, it, vi } from 'vitest';
import {
  corner,
  driftFigures,
  EDGE_BLUR,
  fieldTiles,
  measureDrift,
  measureEconomy,
  meantSegments,
  readArt,
  settle,
  setUnmeasured,
  type Path,
} from '@mirrot/core';
import { chooseAnchors, chooseShapes } from '$lib/desk/choice';
import type { TraceWish } from '$lib/workers/trace';
import {
  canLeaveOut,
  canPutBack,
  isLeftOut,
  isMeant,
  leaveOutOfDrift,
  meanSo,
  putBack,
  rememberPlace,
  remembersPlace,
} from './meaning';
import { offerSettle, worstSpots, type Settler } from './settling';
import { benchWith, darkSquare, shapeWith, withPicture, type Bench } from '$lib/bed/testing';

const picture = darkSquare();
const tiles = fieldTiles(picture, 'edge', EDGE_BLUR);

// In the page workers do this; here the same is done at once.
vi.mock('$lib/workers/trace', () => {
  const work = {
    drift: async (_key: string, wishes: readonly TraceWish[]) =>
      wishes.map((w) => ({ follow: 'edge', drift: measureDrift(w.path, tiles, w) })),
    economy: async (_key: string, wishes: readonly TraceWish[], tolerance: number) =>
      wishes.map((w) => measureEconomy(w.path, measureDrift(w.path, tiles, w), tolerance)),
  };
  const ask = (_key: string, _raster: unknown, question: (work: object) => Promise<unknown>) =>
    question(work);
  return {
    measureWorker: { ask },
    reachWorker: { ask },
  };
});
const here: Settler = async (_by, wishes) => wishes.map((w) => settle(w.path, tiles, w.options));

/** The square with its left side pulled in on purpose, and an anchor too many on the right one. */
const drawn: Path = {
  id: 'p',
  closed: true,
  anchors: [
    corner(60, 60),
    corner(140, 60),
    corner(140, 100),
    corner(140, 140),
    corner(60, 140),
    corner(68, 100),
  ],
};
let b: Bench;
beforeEach(() => {
  b = benchWith([shapeWith('s', [drawn])], 'refine', 2);
  withPicture(b, 200, 200);
  b.desk.habits.set({ driftReach: 40, driftWithin: 1, driftDetail: 0, settleAnchors: true });
  b.desk.picture.inks.raster = { key: 'src', pixels: picture, step: 1 };
  b.desk.choose(chooseShapes(['s'], 'path'));
});
async function measured(): Promise<number> {
  b.desk.picture.drifts.measure(b.desk.art, b.desk.picture.driftSettings!, ['s']);
  for (let k = 0; k < 12; k++) await Promise.resolve();
  return b.desk.picture.drifts.of('s')!.figures.mean;
}
const left = (): void =>
  b.desk.choose(chooseAnchors([4, 5, 0].map((index) => ({ shape: 's', path: 'p', index }))));

describe('left out of drift', () => {
  it('a shape or the layer it is on is not measured, at once, nor settled, with the reason said; one press measures it again', async () => {
    expect(canLeaveOut(b.desk)).toBe(true);
    const before = await measured();
    leaveOutOfDrift(b.desk);
    expect(isLeftOut(b.desk)).toBe(true);
    expect(await measured()).toBeNaN();
    expect(b.desk.picture.drifts.measuredShapes).toBe(0);
    await offerSettle(b.desk, here);
    expect(b.desk.offer).toBeNull();
    expect(b.desk.notice!.text).toContain('left out of drift');
    leaveOutOfDrift(b.desk);
    expect(await measured()).toBe(before);
    const layer = b.desk.art.layers[0]!;
    b.desk.change('layer', setUnmeasured([layer.id], true));
    expect(await measured()).toBeNaN();
    expect(isLeftOut(b.desk)).toBe(false);
    b.desk.undo();
    expect(await measured()).toBe(before);
  });
});

describe('meant so', () => {
  it('leaves segments out of drift, worst spots and Settle, as one step that can be taken back', async () => {
    expect(await measured()).toBeGreaterThan(0.5);
    expect(worstSpots(b.desk).length).toBeGreaterThan(0);
    left();
    expect(isMeant(b.desk)).toBe(false);
    meanSo(b.desk);
    expect(isMeant(b.desk)).toBe(true);
    expect([...meantSegments(b.shapes[0]!.paths[0]!)]).toEqual([4, 5]);
    expect(await measured()).toBeLessThan(0.1);
    expect(worstSpots(b.desk)).toEqual([]);
    readArt(JSON.parse(JSON.stringify(b.desk.art)));
    b.desk.choose(chooseShapes(['s'], 'path'));
    await offerSettle(b.desk, here);
    expect(b.desk.offer).toBeNull();
    left();
    meanSo(b.desk);
    expect(meantSegments(b.shapes[0]!.paths[0]!).size).toBe(0);
    b.desk.undo();
    expect(meantSegments(b.shapes[0]!.paths[0]!).size).toBe(2);
  });

  it('leaves whole shapes out', async () => {
    meanSo(b.desk);
    expect(b.shapes[0]!.meant).toBe(true);
    expect(await measured()).toBeNaN();
    expect(b.desk.picture.drifts.all!.measured).toBe(0);
    b.desk.picture.drifts.count();
    for (let k = 0; k < 12; k++) await Promise.resolve();
    expect(b.desk.picture.drifts.economyOf('s')).toBeNull();
    await offerSettle(b.desk, here);
    expect(b.desk.offer).toBeNull();
    meanSo(b.desk);
    expect(b.shapes[0]!.meant).toBeUndefined();
  });
});

describe('a shape moved away on purpose', () => {
  it('is measured where it was, with whiskers where it is, and settles there; it can be put back', async () => {
    const before = await measured();
    rememberPlace(b.desk);
    expect(remembersPlace(b.desk)).toBe(true);
    b.desk.choose(chooseShapes(['s'], 'shape'));
    b.drag({ x: 100, y: 100 }, { x: 250, y: 130 });
    expect(b.shapes[0]!.paths[0]!.anchors[0]).toMatchObject({ x: 210, y: 90 });
    expect(await measured()).toBeCloseTo(before, 6);
    const { drift, map } = b.desk.picture.drifts.of('s')!.parts[0]!;
    expect(map[0] * drift.x[0]! + map[4]).toBeGreaterThan(205);
    await offerSettle(b.desk, here);
    b.desk.takeOffer();
    const settled = b.shapes[0]!.paths[0]!;
    expect(settled.anchors[1]!.x).toBeCloseTo(290, 0);
    expect(canPutBack(b.desk)).toBe(true);
    putBack(b.desk);
    expect(canPutBack(b.desk)).toBe(false);
    expect(driftFigures([measureDrift(b.shapes[0]!.paths[0]!, tiles, { reach: 12 })], 1).mean).toBeLessThan(
      0.3,
    );
    rememberPlace(b.desk);
    expect(b.shapes[0]!.place).toBeUndefined();
  });
});

describe('economy', () => {
  it('counts a shape’s anchors beside the fewest once the hand rests, and names the spare ones', async () => {
    await measured();
    expect(b.desk.picture.drifts.economyOf('s')).toBeNull();
    b.desk.picture.drifts.count();
    for (let k = 0; k < 12; k++) await Promise.resolve();
    const cost = b.desk.picture.drifts.economyOf('s')!;
    expect(cost.anchors).toBe(6);
    expect(cost.fewest).toBe(4);
    expect(cost.spare).toEqual([{ path: 'p', index: 2 }]);
  });
});
