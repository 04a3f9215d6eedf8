import { describe, expect, it } from 'vitest';
import { deltaE2000 } from '../colour/difference';
import { rgbToCielab } from '../colour/cielab';
import { circlePath } from '../testing';
import { measureDrift } from './drift';
import { EDGE_BLUR, edgeTiles } from './field-tiles';
import { edgeField } from './edge-field';
import { driftFigures } from './figures';
import { leastStrength } from './noise';
import { blurForTile } from './tile-scale';
import { photographed, type Levels } from './testing';

const SIZE = 260;
const disc = circlePath(130.3, 129.6, 80);
const shareSeen = (fill: Levels, ground: Levels, camera: Parameters<typeof photographed>[4]): number => {
  const field = edgeTiles(photographed(SIZE, SIZE, [{ path: disc, rgb: fill }], ground, camera));
  const { measured, length } = driftFigures([measureDrift(disc, field, { reach: 12 })], 1);
  return measured / length;
};
const labOf = (rgb: Levels) => rgbToCielab([rgb[0] / 255, rgb[1] / 255, rgb[2] / 255]);

describe('what counts as an edge', () => {
  // CIELAB L 60 and chroma 22 both; a lens's blur, and grain of a good camera.
  const [one, other]: [Levels, Levels] = [[179, 133, 121], [169, 138, 109]]; // prettier-ignore

  it('is seen on a border of hue alone, ΔE2000 10, sharp or soft', () => {
    const [a, b] = [labOf(one), labOf(other)];
    expect(deltaE2000(a, b)).toBeCloseTo(10, 0);
    expect(Math.abs(a[0] - b[0])).toBeLessThan(0.5);
    for (const blur of [0.8, 2])
      expect(shareSeen(one, other, { blur, grain: 1.5, colourGrain: 0.7 })).toBeGreaterThan(0.95);
  });

  it('is seen on a soft border of lightness alone, ΔE2000 3', () => {
    const [dark, pale]: [Levels, Levels] = [[172, 160, 140], [182, 170, 150]]; // prettier-ignore
    expect(deltaE2000(labOf(dark), labOf(pale))).toBeCloseTo(3, 0);
    expect(shareSeen(dark, pale, { blur: 2, grain: 1.5, colourGrain: 0.7 })).toBeGreaterThan(0.95);
  });

  it('is not found in grain, however strong', () => {
    for (const grain of [2, 10, 24])
      expect(shareSeen([190, 180, 160], [190, 180, 160], { grain, colourGrain: grain / 3 })).toBeLessThan(
        0.01,
      );
  });

  it('is not found in streaks of wood, and a true one on the same wood is', () => {
    const wood = (x: number, y: number): Levels => {
      const v = 4 * Math.sin(1.1 * (y + 5 * Math.sin(0.013 * x))) + 3 * Math.sin(0.45 * y + 1);
      return [190 + v, 158 + v, 120 + v];
    };
    const camera = { blur: 0.7, grain: 2 };
    const bare = edgeTiles(photographed(SIZE, SIZE, [], wood, camera));
    const stray = driftFigures([measureDrift(disc, bare, { reach: 12 })], 1);
    expect(stray.measured / stray.length).toBeLessThan(0.01);
    const thing = edgeTiles(photographed(SIZE, SIZE, [{ path: disc, rgb: [46, 84, 70] }], wood, camera));
    const { measured, length, mean } = driftFigures(
      [measureDrift(disc, thing, { reach: 12, light: 'true' })],
      1,
    );
    expect([measured / length > 0.99, mean < 0.15]).toEqual([true, true]);
  });

  it('asks more the grainier the ground, and the same off the picture as at its border', () => {
    const [calm, grainy] = [1, 8].map((grain) =>
      edgeTiles(photographed(SIZE, SIZE, [], [190, 180, 160], { grain })),
    );
    const at = { x: 60, y: 60 };
    expect(leastStrength(grainy!, at)).toBeGreaterThan(3 * leastStrength(calm!, at));
    expect(leastStrength(grainy!, { x: -9, y: 5 })).toBe(leastStrength(grainy!, { x: 0, y: 5 }));
  });
});

// Source: steps of known blur (Elder and Zucker 1998; Lindeberg 1998).
describe('the scale at which a tile is looked at', () => {
  const chosen = (blur: number, grain = 1): number => {
    const raster = photographed(128, 128, [{ path: circlePath(64, 64, 40), rgb: [46, 84, 70] }], [228, 218, 196], { blur, grain }); // prettier-ignore
    const { fit, seen } = blurForTile(raster, edgeField(raster, { blur: EDGE_BLUR }), EDGE_BLUR);
    // What it has seen is the blur that the picture was taken with.
    if (blur >= 0.8) expect(Math.abs(seen / blur - 1)).toBeLessThan(0.1);
    return fit;
  };
  it.each([
    [0, EDGE_BLUR],
    [0.8, EDGE_BLUR],
    [2, 2.4],
    [2.8, 3.6],
    [3.8, 5],
  ])('follows the blur of its edges: of %d px it is %d', (blur, expected) => {
    expect(chosen(blur)).toBe(expected);
  });

  it('is the usual one where a tile shows a sharp edge among soft ones, and where it shows none', () => {
    const raster = photographed(128, 128, [{ path: circlePath(64, 64, 40), rgb: [46, 84, 70] }], [228, 218, 196], { blur: (x) => (x < 64 ? 0.5 : 4), grain: 1 }); // prettier-ignore
    expect(blurForTile(raster, edgeField(raster, { blur: EDGE_BLUR }), EDGE_BLUR).fit).toBe(EDGE_BLUR);
    const bare = photographed(128, 128, [], [228, 218, 196], { grain: 3 });
    expect(blurForTile(bare, edgeField(bare, { blur: EDGE_BLUR }), EDGE_BLUR)).toMatchObject({
      fit: EDGE_BLUR,
      seen: 0,
    });
  });
});
