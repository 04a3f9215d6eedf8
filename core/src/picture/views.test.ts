import { describe, expect, it } from 'vitest';
import { rgbToOklab } from '../colour/oklab';
import { apply, rotation, about } from '../geometry/affine';
import { checkQuad, measuredAspect, squareUp } from '../geometry/square';
import { homography, project } from '../geometry/homography';
import { affineThrough } from '../geometry/affine-through';
import { seeded } from '../testing';
import { edgePicture, lineDrawing } from './edges';
import { levelOffer } from './level';
import { GREY_OF_LIGHTNESS, lightnessOf } from './lightness';
import type { Raster } from './raster';
import { takePhoto, takeScan } from './practice';
import { otsuLevels, toneSteps } from './tones';
import { warpRaster } from './warp';

const random = seeded(5);
const raster = (
  width: number,
  height: number,
  value: (x: number, y: number) => readonly number[],
): Raster => {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) data.set([...value(x, y), 255].slice(0, 4), (y * width + x) * 4);
  return { width, height, data };
};
const grey = (v: number): number[] => [v, v, v];

// Source: Ottosson's OKLab, checked against culori in colour.test.ts.
it('reads lightness to half a step', () => {
  const picture = raster(64, 8, () => [random() * 255, random() * 255, random() * 255].map(Math.round));
  lightnessOf(picture).forEach((l, i) => {
    const [r, g, b] = picture.data.subarray(i * 4, i * 4 + 3) as unknown as [number, number, number];
    expect(Math.abs(l - rgbToOklab([r / 255, g / 255, b / 255])[0] * 255)).toBeLessThan(0.75);
  });
  expect([GREY_OF_LIGHTNESS[0], GREY_OF_LIGHTNESS[255]]).toEqual([0, 255]);
  expect(lightnessOf(raster(1, 1, () => [0, 0, 0, 0]))[0]).toBe(255);
});

// Source: Otsu (1979): the boundaries maximise the variance between classes.
describe('tone steps', () => {
  const variance = (h: readonly number[], bounds: readonly number[]): number => {
    const edges = [-1, ...bounds, 255];
    let sum = 0;
    for (let c = 1; c < edges.length; c++) {
      let w = 0;
      let m = 0;
      for (let v = edges[c - 1]! + 1; v <= edges[c]!; v++) {
        w += h[v]!;
        m += h[v]! * v;
      }
      if (w > 0) sum += (m * m) / w;
    }
    return sum;
  };

  it('part a histogram as trying every boundary would', () => {
    for (let i = 0; i < 5; i++) {
      const h = Array.from({ length: 256 }, () => Math.floor(random() * 100));
      let [best, at] = [-1, -1];
      for (let b = 0; b < 255; b++) if (variance(h, [b]) > best) [best, at] = [variance(h, [b]), b];
      expect(otsuLevels(h, 2)).toEqual([at]);
      let three = -1;
      for (let a = 0; a < 254; a++)
        for (let b = a + 1; b < 255; b++) three = Math.max(three, variance(h, [a, b]));
      expect(variance(h, otsuLevels(h, 3))).toBeCloseTo(three, 6);
    }
  });

  it('are rising for every count, and refuse others', () => {
    const h = Array.from({ length: 256 }, (_, i) => 50 + 40 * Math.sin(i / 9));
    for (let n = 2; n <= 9; n++) {
      const bounds = otsuLevels(h, n);
      expect(bounds).toHaveLength(n - 1);
      bounds.slice(1).forEach((b, i) => expect(b).toBeGreaterThan(bounds[i]!));
    }
    expect(() => otsuLevels(h, 1)).toThrow('2 to 9');
    expect(() => otsuLevels(h, 10)).toThrow('2 to 9');
  });

  it('keep a picture of as many values as it is, whatever its grain', () => {
    const stripes = raster(90, 20, (x) => grey([40, 120, 210][Math.floor(x / 30)]! + random() * 8));
    const { raster: flat, bounds } = toneSteps(stripes, { count: 3, bounds: null, smooth: 0 });
    expect(bounds).toHaveLength(2);
    for (const x of [5, 45, 75])
      expect(Math.abs(flat.data[x * 4]! - [44, 124, 214][Math.floor(x / 30)]!)).toBeLessThan(4);
    expect(new Set(Array.from({ length: 90 }, (_, x) => flat.data[x * 4])).size).toBe(3);
  });

  it('lose specks when smoothed, not their boundaries', () => {
    const specked = raster(60, 30, (x, y) => grey((x * 7 + y * 11) % 37 === 0 ? 250 : x < 30 ? 60 : 180));
    const { raster: flat } = toneSteps(specked, { count: 2, bounds: null, smooth: 3 });
    for (let y = 2; y < 28; y++)
      for (let x = 2; x < 58; x++)
        expect(flat.data[(y * 60 + x) * 4]).toBe(flat.data[(15 * 60 + (x < 30 ? 10 : 50)) * 4]);
  });

  it('take boundaries by hand', () => {
    const ramp = raster(256, 1, (x) => grey(x));
    const { raster: flat, bounds } = toneSteps(ramp, { count: 2, bounds: [200], smooth: 0 });
    expect(bounds).toEqual([200]);
    const turn = Array.from({ length: 256 }, (_, x) => flat.data[x * 4]).findIndex(
      (v, i, all) => v !== all[0] && i > 0,
    );
    expect(lightnessOf(raster(1, 1, () => grey(turn)))[0]).toBeGreaterThan(200);
    expect(lightnessOf(raster(1, 1, () => grey(turn - 1)))[0]).toBeLessThanOrEqual(200);
  });
});

describe('edge view and line-drawing view', () => {
  it('are paper where nothing changes, ink on an edge, and quiet on grain', () => {
    const halves = raster(40, 20, (x) => grey((x < 20 ? 60 : 200) + random() * 4));
    const edges = edgePicture(halves);
    const at = (x: number): number => edges.data[(10 * 40 + x) * 4]!;
    expect(at(5)).toBeGreaterThan(245);
    expect(at(19)).toBeLessThan(60);
  });

  it('count the border of clear pixels as an edge, and what lies beyond it as nothing', () => {
    const cut = raster(40, 20, (x) => (x < 20 ? [90, 90, 90] : [random() * 255, 0, 0, 0]));
    const edges = edgePicture(cut);
    const at = (x: number): number => edges.data[(10 * 40 + x) * 4]!;
    expect(at(19)).toBeLessThan(60);
    expect(at(10)).toBeGreaterThan(245);
    expect(at(30)).toBeGreaterThan(245);
    expect(edges.data[(10 * 40 + 30) * 4 + 3]).toBe(255);
  });

  it('take the paper away from a sketch, shade and all', () => {
    // Paper that darkens from 235 to 165 with a line 40 % darker than the paper beside it.
    const paper = (x: number): number => 235 - 0.35 * x;
    const sketch = raster(200, 60, (x, y) =>
      grey(y >= 28 && y <= 31 ? paper(x) * 0.6 : paper(x) - random() * 6),
    );
    const lines = lineDrawing(sketch);
    for (const x of [20, 100, 180]) {
      expect(lines.data[(10 * 200 + x) * 4]).toBeGreaterThan(250);
      expect(lines.data[(30 * 200 + x) * 4]).toBeLessThan(40);
    }
  });
});

describe('levelling by itself', () => {
  it('finds how far a picture is off level, to a tenth of a degree', () => {
    for (const degrees of [-12.4, -3.3, 0, 1.7, 8.6]) {
      // Boards that were turned: light and dark ones, each pixel the mean of what it covers.
      const back = about(rotation((-degrees * Math.PI) / 180), { x: 150, y: 110 });
      const board = (x: number, y: number): number => {
        const p = apply(back, { x, y });
        return 70 + (Math.floor(p.x / 30) % 2 === 0 ? 110 : 0) + (Math.floor(p.y / 45) % 2 === 0 ? 40 : 0);
      };
      const turned = raster(300, 220, (x, y) => {
        let sum = 0;
        for (let j = 0; j < 16; j++) sum += board(x + (j % 4) / 4 + 0.125, y + Math.floor(j / 4) / 4 + 0.125);
        return grey(sum / 16 + random() * 6);
      });
      const offer = levelOffer(turned)!;
      expect(Math.abs(offer.degrees + degrees), `${degrees}`).toBeLessThan(0.1);
      expect(offer.certainty).toBeGreaterThan(0.3);
    }
  });

  it('offers nothing for a flat picture or a tiny one', () => {
    expect(levelOffer(raster(60, 60, () => grey(128)))).toBeNull();
    expect(levelOffer(raster(4, 4, (x) => grey(x * 60)))).toBeNull();
  });
});

describe('squaring up', () => {
  const picture = { width: 1000, height: 800 };
  /** A rectangle before a camera: focal length f, turned and tipped, seen in a picture of 1000 × 800. */
  const seen = (aspect: number, f: number, turn: number, tip: number) =>
    [[-aspect, -1], [aspect, -1], [aspect, 1], [-aspect, 1]].map(([x, y]) => {
      const [cx, sx, cy, sy] = [Math.cos(tip), Math.sin(tip), Math.cos(turn), Math.sin(turn)];
      const [X, Y, Z] = [x! * cy, y! * cx + x! * sy * sx, 6 + y! * sx - x! * sy * cx];
      return { x: 500 + (f * X) / Z, y: 400 + (f * Y) / Z };
    }); // prettier-ignore

  // Source: Zhang and He (2007); a pinhole camera made here is the truth.
  it('measures width to height from the four corners', () => {
    for (const [aspect, f, turn, tip] of [
      [1, 1200, 0.5, 0.3],
      [1.5, 900, -0.4, 0.35],
      [0.7, 1500, 0.6, -0.4],
    ] as const)
      expect(measuredAspect(seen(aspect, f, turn, tip), picture)).toBeCloseTo(aspect, 6);
    expect(measuredAspect([{ x: 0, y: 0 }, { x: 300, y: 0 }, { x: 300, y: 100 }, { x: 0, y: 100 }], picture)).toBe(3); // prettier-ignore
  });

  it('maps the corners onto the straight picture’s and keeps its pixels', () => {
    const corners = seen(1.5, 900, -0.4, 0.35);
    const { map, width, height } = squareUp(corners, 1.5);
    expect(width / height).toBeCloseTo(1.5, 2);
    [[0, 0], [width, 0], [width, height], [0, height]].forEach(([x, y], i) => {
      const p = project(map, corners[i]!);
      expect(Math.hypot(p.x - x!, p.y - y!)).toBeLessThan(1e-9 * width);
    }); // prettier-ignore
    expect(width).toBeGreaterThanOrEqual(
      Math.floor(Math.hypot(corners[1]!.x - corners[0]!.x, corners[1]!.y - corners[0]!.y)),
    );
    expect(squareUp(corners, 1.5, 200).width).toBe(200);
  });

  it('refuses corners that fold over, run backwards or lie in a line, each with a sentence', () => {
    const [a, b, c, d] = [{ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 10, y: 10 }, { x: 0, y: 10 }]; // prettier-ignore
    expect(() => checkQuad([a, b, d, c])).toThrow('fold over');
    expect(() => checkQuad([a, d, c, b])).toThrow('wrong way round');
    expect(() => checkQuad([a, b, { x: 20, y: 0 }, d])).toThrow('fold over');
    expect(() => checkQuad([a, a, a, a])).toThrow();
    expect(() => squareUp([a, b, c, d], 0)).toThrow('between 1 : 100');
    expect(homography([a, b, c, d], [a, b, c, d])[0]).toBeCloseTo(1, 12);
  });
});

it('registers by three points, and refuses three in a line', () => {
  const from = [{ x: 3, y: 4 }, { x: 50, y: 8 }, { x: 20, y: 70 }]; // prettier-ignore
  const to = [{ x: 13, y: -4 }, { x: 80, y: 18 }, { x: 40, y: 99 }]; // prettier-ignore
  const map = affineThrough(from, to);
  from.forEach((p, i) => {
    expect(apply(map, p).x).toBeCloseTo(to[i]!.x, 9);
    expect(apply(map, p).y).toBeCloseTo(to[i]!.y, 9);
  });
  expect(() => affineThrough([{ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 2, y: 2 }], to)).toThrow('in one line'); // prettier-ignore
});

describe('stand-ins for a scanner and a phone', () => {
  const board = raster(240, 180, (x, y) => grey(((Math.floor(x / 24) + Math.floor(y / 24)) % 2) * 150 + 50));

  it('take the same picture for the same seed, another for another', () => {
    expect(takeScan(board, 3).raster.data).toEqual(takeScan(board, 3).raster.data);
    expect(takePhoto(board, 3).corners).not.toEqual(takePhoto(board, 4).corners);
  });

  it('turn a scan so that levelling finds the turn again, within a tenth of a degree', () => {
    for (const seed of [1, 2, 3, 4]) {
      const { raster: scan, corners } = takeScan(board, seed);
      const [a, b] = corners as [{ x: number; y: number }, { x: number; y: number }];
      const turned = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
      expect(Math.abs(turned)).toBeGreaterThan(0.9);
      expect(Math.abs(levelOffer(scan)!.degrees + turned)).toBeLessThan(0.1);
    }
  });

  it('lean a photo so that squaring up brings the board back: its fields meet within half a pixel', () => {
    for (const seed of [5, 6, 7]) {
      const { raster: photo, corners } = takePhoto(board, seed);
      checkQuad(corners);
      const { map, width, height } = squareUp(corners, 240 / 180);
      const straight = warpRaster(photo, map, width, height);
      const k = width / 240;
      let [sum, n] = [0, 0];
      // Along the middle of each row of fields, where dark turns to light: at every 24 pixels of the board.
      for (let row = 1; row < 7; row++) {
        const y = Math.round((row + 0.5) * 24 * k);
        const at = (x: number): number => straight.data[(y * width + x) * 4]!;
        for (let field = 1; field < 10; field++) {
          const [low, high] = [Math.round((field * 24 - 8) * k), Math.round((field * 24 + 8) * k)];
          const middle = (at(low) + at(high)) / 2;
          let x = low;
          while (x < high && at(x + 1) > middle === at(low) > middle) x++;
          const edge = x + (middle - at(x)) / (at(x + 1) - at(x)) + 0.5;
          sum += Math.abs(edge - field * 24 * k);
          n++;
        }
      }
      expect(sum / n).toBeLessThan(0.5);
    }
  });
});
