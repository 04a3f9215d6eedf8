import { describe, expect, it } from 'vitest';
import { rgbToOklab, type Oklab } from '../colour/oklab';
import { transformPath } from '../path/path-map';
import { parsePathData } from '../path/data';
import { nearestOnPath } from '../path/path-measure';
import { circlePath } from '../testing';
import { pointsAlong } from './clicking';
import { measureDrift } from './drift';
import { edgeTiles } from './field-tiles';
import { driftFigures } from './figures';
import { settle } from './settle';
import { photographed, type Camera, type Levels } from './testing';

const INK: Levels = [46, 84, 70];
const RIM: Levels = [96, 128, 108];
const PAPER: Levels = [228, 218, 196];
const okOf = (rgb: Levels): Oklab =>
  rgbToOklab(rgb.map((v) => v / 255) as unknown as [number, number, number]);
const disc = (radius: number) => circlePath(100, 100, radius);
const seen = (rim: number, camera: Camera = {}) => edgeTiles(photographed(200, 200, [{ path: disc(60 + rim), rgb: RIM }, { path: disc(60), rgb: INK }], PAPER, { blur: 0.7, grain: 1, ...camera })); // prettier-ignore
const off = (path: ReturnType<typeof disc>): number => {
  const all = pointsAlong(path).map((p) => nearestOnPath(disc(60), p)!.distance);
  return all.reduce((s, v) => s + v, 0) / all.length;
};
/** The disc moved and grown a little, as a hand draws it. */
const drawn = transformPath(disc(60), [1.04, 0, 0, 1.03, -1, -4.5]);

// Truth: the outlines that the picture was painted from. What an edge looks like is told by what lies beside it: Mortensen and
// Barrett (1995, 1998).
describe('one’s own edge of two', () => {
  it('is the one with the shape’s colour within, though another four pixels off is stronger', () => {
    for (const rim of [4, 6]) {
      const field = seen(rim);
      const where = { reach: 12, light: 'true' as const };
      expect(off(settle(drawn, field, where).path)).toBeGreaterThan(1);
      expect(off(settle(drawn, field, { ...where, own: okOf(INK) }).path)).toBeLessThan(0.5);
      // The rim's own outline is the outer one.
      const outer = settle(disc(60), field, { ...where, own: okOf(RIM) }).path;
      expect(Math.abs(off(outer) - rim)).toBeLessThan(0.5);
    }
  });

  it('is told of a shape in any colour near the picture’s; one in colours of its own is measured as one without', () => {
    const field = seen(4);
    const where = { reach: 12, light: 'true' as const };
    const plain = measureDrift(disc(60), field, where);
    const near = driftFigures([measureDrift(disc(60), field, { ...where, own: okOf([56, 78, 76]) })], 1);
    expect(near.mean).toBeLessThan(0.3);
    const loud = measureDrift(disc(60), field, { ...where, own: okOf([240, 60, 200]) });
    expect([...loud.value]).toEqual([...plain.value]);
  });

  it('is none where the shape’s colour goes on beyond it, though a hole in the shape has an edge close by', () => {
    // A dark hole in a disc that on the right, over a fifth of its way round, cannot be told from its ground.
    const like = parsePathData('M147 0L200 0L200 200L147 200Z')[0]!;
    const areas = [
      { path: like, rgb: RIM },
      { path: disc(60), rgb: RIM },
      { path: disc(48), rgb: INK },
    ];
    const field = edgeTiles(photographed(200, 200, areas, PAPER, { blur: 0.7, grain: 1 }));
    const where = { reach: 20, light: 'true' as const };
    const beyond = (drift: ReturnType<typeof measureDrift>): number[] => [...drift.value].filter((_, i) => drift.x[i]! > 150); // prettier-ignore
    const without = measureDrift(disc(60), field, where);
    expect(beyond(without).filter((v) => v < -8).length).toBeGreaterThan(40);
    const own = measureDrift(disc(60), field, { ...where, own: okOf(RIM) });
    expect(beyond(own).filter((v) => v < -8)).toEqual([]);
    const { mean, measured } = driftFigures([own], 1);
    expect(mean).toBeLessThan(0.15);
    expect(measured).toBeGreaterThan(240);
    // Filled with the hole’s colour all of it is the other way round: the colour tells nothing then.
    const turned = measureDrift(disc(60), field, { ...where, own: okOf(PAPER) });
    expect(driftFigures([turned], 1).measured).toBeGreaterThan(240);
  });

  it('moves nothing where there is one edge only, sharp, soft, faint or grainy', () => {
    for (const camera of [{}, { blur: 1.5 }, { blur: 2.5 }, { grain: 8 }] as Camera[])
      for (const ink of [INK, [214, 206, 184] as const]) {
        const field = edgeTiles(photographed(200, 200, [{ path: disc(60), rgb: ink }], PAPER, { blur: 0.7, grain: 1, ...camera })); // prettier-ignore
        const [a, b] = [{}, { own: okOf(ink) }].map((own) => driftFigures([measureDrift(disc(60), field, { reach: 12, light: 'true', ...own })], 1)); // prettier-ignore
        expect(b!.measured).toBeGreaterThanOrEqual(0.97 * a!.measured);
        if (a!.measured > 0) expect(b!.mean).toBeLessThan(a!.mean + 0.03);
      }
  });

  it('is told by the paper where the picture is clear', () => {
    const raster = photographed(200, 200, [{ path: disc(60), rgb: INK }], PAPER, { blur: 0.7 });
    const data = raster.data.slice();
    for (let i = 0; i < data.length; i += 4)
      if (Math.hypot(((i >> 2) % 200) + 0.5 - 100, Math.floor((i >> 2) / 200) + 0.5 - 100) > 60) data.fill(0, i, i + 4); // prettier-ignore
    const drift = measureDrift(disc(60), edgeTiles({ ...raster, data }), { reach: 12, own: okOf(INK) });
    // Its pixels are cut hard: the border itself runs in steps.
    expect(driftFigures([drift], 1).mean).toBeLessThan(0.35);
  });
});
