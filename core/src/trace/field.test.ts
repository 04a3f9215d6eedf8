import { describe, expect, it } from 'vitest';
import { rgbToOklab } from '../colour/oklab';
import { anchor, circlePath, pathOf } from '../testing';
import type { Raster } from '../picture/raster';
import { fieldTiles, tileAt, tilesOf, warmTile } from './field-tiles';
import { formBetween, formsAlong } from './field-form';
import { likelyFollow } from './follow';
import { BINOMIAL_BLUR } from './blur-planes';
import { edgeField } from './edge-field';
import { lineField } from './line-field';
import { seeded } from '../seed';
import { painted, photographed } from './testing';
import { measureWeight } from './weight';

const raster = (
  width: number,
  height: number,
  at: (x: number, y: number) => readonly [number, number, number, number?],
): Raster => {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [r, g, b, o = 255] = at(x, y);
      data.set([r, g, b, o], (y * width + x) * 4);
    }
  return { width, height, data };
};
const noise = raster(150, 140, (x, y) => [(x * 37 + y * 91) % 256, (x * x + 13 * y) % 256, (x * y) % 256]);

describe('the edge field', () => {
  // Reference: Di Zenzo (1986), written out naively: OKLab by the colour module, one two-dimensional sum a pixel.
  // The binomial in a Gaussian's place (the central limit; Wells, 1986) is a little off it.
  it.each([
    [1.5, 0.02],
    [2, 0.02],
    [BINOMIAL_BLUR, 0.03],
  ])('is the colour structure tensor of Gaussian derivatives of %d px in OKLab', (blur, within) => {
    const soft = raster(40, 40, (x, y) => [128 + 60 * Math.sin(x / 6), 128 + 50 * Math.cos(y / 7), 128 + 40 * Math.sin((x + y) / 9)]); // prettier-ignore
    const field = edgeField(soft, { blur });
    for (const [px, py] of [
      [15, 20],
      [22, 17],
      [20, 25],
    ] as const) {
      // prettier-ignore
      const g = [0, 0, 0, 0, 0, 0];
      for (let v = -8; v <= 8; v++)
        for (let u = -8; u <= 8; u++) {
          const i = ((py + v) * 40 + px + u) * 4;
          const lab = rgbToOklab([soft.data[i]! / 255, soft.data[i + 1]! / 255, soft.data[i + 2]! / 255]);
          const w = Math.exp(-(u * u + v * v) / (2 * blur * blur)) / (2 * Math.PI * blur * blur);
          lab.forEach((c, k) => {
            g[k]! += (c * w * u) / (blur * blur);
            g[k + 3]! += (c * w * v) / (blur * blur);
          });
        }
      const k = py * 40 + px;
      const xx = g[0]! ** 2 + 4 * (g[1]! ** 2 + g[2]! ** 2);
      const yy = g[3]! ** 2 + 4 * (g[4]! ** 2 + g[5]! ** 2);
      expect(Math.abs(field.xx[k]! / xx - 1)).toBeLessThan(within);
      expect(Math.abs(field.yy[k]! / yy - 1)).toBeLessThan(within);
    }
  });

  it.each([1.2, BINOMIAL_BLUR])('is the same in tiles as whole, at %d px', (blur) => {
    const whole = edgeField(noise, { blur });
    const tiles = fieldTiles(noise, 'edge', blur);
    for (const { i, j } of tilesOf(noise)) {
      const t = tileAt(tiles, i, j);
      for (let k = 0; k < t.xx.length; k += 7) {
        const at = (t.y0 + Math.floor(k / t.width)) * noise.width + t.x0 + (k % t.width);
        expect(t.xx[k]).toBeCloseTo(whole.xx[at]!, 6);
        expect(t.xy[k]).toBeCloseTo(whole.xy[at]!, 6);
      }
    }
  });

  it('sees two colours as light as each other, and the border of clear pixels, and nothing on flat ground', () => {
    const red = [200, 80, 80] as const;
    const alike = raster(30, 20, (x) => (x < 15 ? red : [60, 138, 90]));
    const middle = formBetween(fieldTiles(alike, 'edge', 1.2), 15, 10, 1, 0);
    expect(Math.sqrt(middle)).toBeGreaterThan(0.05);
    const clear = raster(30, 20, (x) => [255, 255, 255, x < 15 ? 0 : 255]);
    expect(Math.sqrt(formBetween(fieldTiles(clear, 'edge', 1.2), 15, 10, 1, 0))).toBeGreaterThan(0.05);
    expect(
      Math.max(
        ...edgeField(
          raster(20, 20, () => red),
          { blur: 2 },
        ).xx,
      ),
    ).toBeLessThan(1e-9);
    expect(() => edgeField(clear, { blur: 0 })).toThrow(RangeError);
  });
});

describe('the line field', () => {
  // Source: Steger (1998): across a stroke the second derivative is extreme in its middle.
  it('bends most in the middle of a stroke, across it and not along it', () => {
    const bar = pathOf([anchor(-5, 28), anchor(105, 28), anchor(105, 34), anchor(-5, 34)], true);
    const field = lineField(painted(100, 60, [{ path: bar, rgb: [40, 40, 40] }], [220, 220, 220]), {
      blur: 2,
    });
    const column = Array.from({ length: 60 }, (_, y) => field.yy[y * 100 + 50]!);
    const top = column.indexOf(Math.max(...column));
    expect([30, 31]).toContain(top);
    expect(Math.abs(field.xx[top * 100 + 50]!)).toBeLessThan(1e-6);
  });
});

describe('what a path follows', () => {
  it('is a stroke’s middle on a stroke, dark or bright, and the border of an area', () => {
    const disc = circlePath(60, 60, 40);
    const ring = painted(120, 120, [{ path: circlePath(60, 60, 42.5), rgb: [40, 40, 40] }, { path: circlePath(60, 60, 37.5), rgb: [220, 215, 200] }], [220, 215, 200]); // prettier-ignore
    const area = painted(120, 120, [{ path: disc, rgb: [40, 90, 60] }], [220, 215, 200]);
    expect(likelyFollow(disc, fieldTiles(ring, 'line', 2.5), 8)).toBe('middle');
    expect(likelyFollow(disc, fieldTiles(area, 'line', 2.5), 8)).toBe('edge');
  });
});

describe('the weight of a stroke', () => {
  const bar = (y: number, w: number) => pathOf([anchor(-5, y - w / 2), anchor(205, y - w / 2), anchor(205, y + w / 2), anchor(-5, y + w / 2)], true); // prettier-ignore
  it('is right within three in a hundred from four pixels on, also where the path is not in the middle', () => {
    for (const w of [4, 6, 9, 14, 24])
      for (const off of [0, w / 5]) {
        const field = fieldTiles(painted(200, 100, [{ path: bar(50.3, w), rgb: [40, 45, 60] }], [230, 225, 210], 8), 'edge', 1.2); // prettier-ignore
        const found = measureWeight(pathOf([anchor(10, 50.3 + off), anchor(190, 50.3 + off)]), field, 30);
        expect(Math.abs(found!.width! / w - 1), `${w} px, ${off} aside`).toBeLessThan(0.03);
        expect(found!.share).toBeGreaterThan(0.8);
      }
  });

  it('is right within five in a hundred through a lens, down to where it is too thin to tell', () => {
    const told: string[] = [];
    for (const blur of [0.7, 1.5, 2.5])
      for (const w of [2, 3, 4, 6, 8, 14, 20])
        for (const [ink, paper] of [
          [
            [40, 45, 60],
            [230, 225, 210],
          ],
          [
            [230, 225, 210],
            [40, 45, 60],
          ],
        ] as const) {
          // prettier-ignore
          const raster = photographed(200, 100, [{ path: bar(50.3, w), rgb: ink }], paper, { blur, grain: 3 });
          const found = measureWeight(pathOf([anchor(10, 50.6), anchor(190, 50.6)]), fieldTiles(raster, 'edge', 1.2), 30)!; // prettier-ignore
          if (found.width === null) continue;
          expect(Math.abs(found.width / w - 1), `${w} px through ${blur}`).toBeLessThan(0.05);
          told.push(`${w}@${blur}`);
        }
    // Both dark and bright, of each width that is three blurs wide (with a pixel's own of about half a pixel).
    for (const wide of ['3@0.7', '4@0.7', '6@1.5', '8@2.5', '20@2.5']) expect(told.filter((t) => t === wide)).toHaveLength(2); // prettier-ignore
    for (const thin of ['2@1.5', '3@2.5', '4@2.5']) expect(told).not.toContain(thin);
  });

  it('is right within one in ten where a stroke is full of holes, as chalk and pencil are', () => {
    for (const w of [5, 8, 14]) {
      const random = seeded(40 + w);
      // Two in five grains of the paper stay bare.
      const bare = Array.from({ length: 200 * 100 }, () => random() < 0.4);
      const chalk = (x: number, y: number) => (bare[y * 200 + x] ? ([60, 62, 58] as const) : ([235, 232, 220] as const)); // prettier-ignore
      const raster = photographed(200, 100, [{ path: bar(50.3, w), rgb: chalk }], [60, 62, 58], { blur: 0.8, grain: 3 }); // prettier-ignore
      const found = measureWeight(pathOf([anchor(10, 50.3), anchor(190, 50.3)]), fieldTiles(raster, 'edge', 1.2), 30)!; // prettier-ignore
      expect(Math.abs(found.width! / w - 1), `${w} px`).toBeLessThan(0.1);
    }
  });

  it('is none on flat ground, beside one border only, and for one anchor', () => {
    const flat = fieldTiles(painted(100, 100, [], [230, 225, 210]), 'edge', 1.2);
    const path = pathOf([anchor(10, 50), anchor(90, 50)]);
    expect(measureWeight(path, flat, 20)).toBeNull();
    const half = fieldTiles(painted(100, 100, [{ path: bar(90, 60), rgb: [40, 45, 60] }], [230, 225, 210]), 'edge', 1.2); // prettier-ignore
    expect(measureWeight(path, half, 20)).toBeNull();
    expect(measureWeight(pathOf([anchor(5, 5)]), flat, 20)).toBeNull();
    expect(() => measureWeight(path, flat, 0)).toThrow(RangeError);
  });
});

describe('the field along a line', () => {
  const field = fieldTiles(noise, 'edge', BINOMIAL_BLUR);
  // Reference: the same places one by one, which is the sum written out.
  it.each([
    ['in one tile', 40, 50, 0],
    ['across a tile’s side', 126, 60, 0.3],
    ['across a tile’s corner', 127, 127, 2.4],
    ['from the picture out', 146, 8, -0.7],
    ['outside', -30, 170, 1],
  ])('%s is what it is at each place', (_, x, y, turn) => {
    const n = { x: Math.cos(turn), y: Math.sin(turn) };
    const out = new Float64Array(45).fill(7);
    formsAlong(field, { x, y }, n, -10, 0.5, 41, out, 2);
    for (let k = 0; k < 41; k++) {
      const o = -10 + k / 2;
      expect(out[2 + k]).toBeCloseTo(formBetween(field, x + o * n.x, y + o * n.y, n.x, n.y), 9);
    }
    expect([out[1], out[43]]).toEqual([7, 7]);
  });
  it('of no places asks nothing', () => {
    const out = new Float64Array(1).fill(7);
    formsAlong(field, { x: 5, y: 5 }, { x: 1, y: 0 }, 0, 1, 0, out);
    expect(out[0]).toBe(7);
  });
});

describe('tiles made beforehand', () => {
  it('are those about a place, the nearest first, until there are none', () => {
    const wide = raster(400, 300, () => [9, 9, 9]);
    const field = fieldTiles(wide, 'edge', BINOMIAL_BLUR);
    const made = (): string[] => [...field.tiles.values()].map((t) => `${t.x0} ${t.y0}`);
    const at = { x: 140, y: 60 };
    expect(warmTile(field, at, 80)).toBe(true);
    expect(made()).toEqual(['128 0']);
    while (warmTile(field, at, 80));
    expect(new Set(made())).toEqual(new Set(['128 0', '0 0', '128 128', '0 128']));
    // Off the picture there is nothing to look at.
    expect(warmTile(field, { x: -500, y: 60 }, 80)).toBe(false);
    expect(warmTile(field, { x: 390, y: 290 }, 0)).toBe(true);
    expect(made().at(-1)).toBe('384 256');
  });

  it('are kept, but never more than a picture of some megapixels has', () => {
    const long = raster(128 * 520, 1, (x) => [x % 256, 0, 0]);
    const field = fieldTiles(long, 'edge', BINOMIAL_BLUR);
    for (const { i, j } of tilesOf(long)) tileAt(field, i, j);
    expect(field.tiles.size).toBe(512);
    const kept = tileAt(field, 519, 0);
    expect(tileAt(field, 519, 0)).toBe(kept);
    // One that went is made again, the same.
    expect(formBetween(field, 64.5, 0.5, 1, 0)).toBe(formBetween(fieldTiles(long, 'edge', BINOMIAL_BLUR), 64.5, 0.5, 1, 0)); // prettier-ignore
    expect(field.tiles.size).toBe(512);
  });
});
