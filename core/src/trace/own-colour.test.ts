import { describe, expect, it } from 'vitest';
import { rgbToOklab } from '../colour/oklab';
import { transformPath } from '../path/path-map';
import { nearestOnPath } from '../path/path-measure';
import { circlePath, squarePath } from '../testing';
import { pointsAlong } from './clicking';
import { edgeTiles } from './field-tiles';
import { ownColour } from './own-colour';
import { settle } from './settle';
import { photographed, type Levels } from './testing';

const INK: Levels = [46, 84, 70];
const RIM: Levels = [96, 128, 108];
const PAPER: Levels = [228, 218, 196];
const disc = (radius: number) => circlePath(100, 100, radius);
const raster = photographed(200, 200, [{ path: disc(64), rgb: RIM }, { path: disc(60), rgb: INK }], PAPER, { blur: 0.7, grain: 1 }); // prettier-ignore
const ink = rgbToOklab(INK.map((v) => v / 255) as unknown as [number, number, number]);
const far = (a: readonly number[], b: readonly number[]): number => Math.hypot(...a.map((v, c) => v - b[c]!));

// Truth: the colours and outlines that the picture was painted with.
describe('the colour of a shape without a fill', () => {
  it('is what most of it shows, though it was drawn roughly, or something lies over half of it', () => {
    for (const path of [disc(60), disc(66), disc(40), transformPath(disc(60), [1.04, 0, 0, 1.03, -1, -4.5])])
      expect(far(ownColour(path, raster)!, ink)).toBeLessThan(0.01);
    const half = squarePath(-100, -180, 300);
    expect(far(ownColour(disc(60), raster, [[half]])!, ink)).toBeLessThan(0.01);
  });

  it('is none where the area is of many colours, too small, beside the picture, or open', () => {
    const striped = photographed(200, 200, [], (x) => (Math.floor(x / 9) % 2 ? INK : PAPER), {});
    for (const path of [disc(60), disc(1.5), circlePath(500, 500, 60)])
      expect(ownColour(path, striped)).toBeNull();
    expect(ownColour({ ...disc(60), closed: false }, raster)).toBeNull();
    expect(ownColour({ ...disc(60), anchors: [] }, raster)).toBeNull();
  });

  it('keeps a rough outline to its own edge, though a stronger one lies four pixels off', () => {
    const rough = transformPath(disc(60), [1.04, 0, 0, 1.03, -1, -4.5]);
    const { path } = settle(rough, edgeTiles(raster), { reach: 12, light: 'true', own: ownColour(rough, raster)! }); // prettier-ignore
    const offs = pointsAlong(path).map((p) => nearestOnPath(disc(60), p)!.distance);
    expect(offs.reduce((s, v) => s + v, 0) / offs.length).toBeLessThan(0.2);
  });
});
