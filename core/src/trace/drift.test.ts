import { describe, expect, it } from 'vitest';
import { anchor, circlePath, pathOf, seeded, squarePath } from '../testing';
import { parsePathData } from '../path/data';
import { insertAnchor } from '../path/insert';
import { reversePath, transformPath } from '../path/path-map';
import type { Path } from '../path/path';
import { measureDrift } from './drift';
import { driftFigures } from './figures';
import { edgeTiles, fieldTiles } from './field-tiles';
import { EDGE_BLUR } from './field-tiles';
import { painted, photographed } from './testing';

const INK = [40, 70, 60] as const;
const PAPER = [235, 228, 210] as const;
const seen = (path: Path, size: number, grain = 0) =>
  fieldTiles(painted(size, size, [{ path, rgb: INK }], PAPER, grain), 'edge', EDGE_BLUR);
const REACH = { reach: 8 };
const middle = (v: readonly number[]): number => v.reduce((a, b) => a + b, 0) / v.length;
const measured = (value: Float64Array): number[] => [...value].filter((v) => !Number.isNaN(v));

// Truth: discs and ellipses rendered with anti-aliased borders, whose outline is known.
describe('drift on a disc', () => {
  const disc = circlePath(80.3, 79.6, 50);
  it('is nothing on its own outline, within a tenth of a pixel everywhere', () => {
    const { value } = measureDrift(disc, seen(disc, 160), REACH);
    expect(value.length).toBeGreaterThan(300);
    expect(measured(value).length).toBe(value.length);
    for (const v of value) expect(Math.abs(v)).toBeLessThan(0.1);
    expect(middle([...value].map(Math.abs))).toBeLessThan(0.05);
  });

  it('is what it was made, signed away from the fill, whichever way the path runs', () => {
    const field = seen(disc, 160);
    for (const off of [-5, -2.5, -0.4, 0.7, 3, 6]) {
      const drawn = circlePath(80.3, 79.6, 50 - off);
      for (const path of [drawn, reversePath(drawn)]) {
        const { value } = measureDrift(path, field, REACH);
        for (const v of value) expect(Math.abs(v - off)).toBeLessThan(0.1);
      }
      const { value } = measureDrift(drawn, field, { ...REACH, flip: true });
      expect(middle(measured(value))).toBeCloseTo(-off, 1);
    }
  });

  it('is the same where the path is looked at in few places', () => {
    const drawn = circlePath(80.3, 79.6, 48);
    for (const spacing of [2, 3.5]) {
      const { value } = measureDrift(drawn, seen(disc, 160), { ...REACH, spacing });
      expect(value.length).toBe(4 * Math.round((24 * Math.PI) / spacing));
      for (const v of value) expect(Math.abs(v - 2)).toBeLessThan(0.1);
    }
  });

  it('leaves out what something lies over, and measures the rest as well as ever', () => {
    const box = pathOf([anchor(100, 60), anchor(134, 60), anchor(134, 110), anchor(100, 110)], true, 'box');
    const both = fieldTiles(painted(160, 160, [{ path: disc, rgb: INK }, { path: box, rgb: [200, 90, 40] }], PAPER), 'edge', EDGE_BLUR); // prettier-ignore
    const open = driftFigures([measureDrift(disc, both, REACH)], 1);
    const drift = measureDrift(disc, both, { ...REACH, covers: [[box]] });
    const { measured: long, covered, length, mean, worst } = driftFigures([drift], 1);
    // Beneath the box lies what a circle has within it; counted along the circle.
    const inside = Array.from({ length: 3600 }, (_, i) => (i * Math.PI) / 1800).filter((a) => {
      const [x, y] = [80.3 + 50 * Math.cos(a), 79.6 + 50 * Math.sin(a)];
      return x > 101 && x < 133 && y > 61 && y < 109;
    });
    expect(Math.abs(covered / length - inside.length / 3600)).toBeLessThan(0.01);
    expect(long).toBeGreaterThan(0.9 * (length - covered) - 20);
    expect([mean < 0.05, Math.abs(worst) < 0.15, Math.abs(open.worst) > 0.5]).toEqual([true, true, true]);
    drift.covered.forEach((hidden, i) => hidden && expect(drift.value[i]).toBeNaN());
    // All of it covered, nothing is measured.
    const all = driftFigures([measureDrift(disc, both, { ...REACH, covers: [[squarePath(0, 0, 160)]] })], 1);
    expect([all.measured, all.covered / all.length]).toEqual([0, 1]);
  });

  it('measures a border that a cover shares, and through a cover’s hole', () => {
    const field = seen(disc, 160);
    const plain = measureDrift(disc, field, REACH);
    for (const covers of [
      [[circlePath(80.3, 79.6, 50, 'same')]],
      [[squarePath(0, 0, 160), circlePath(80.3, 79.6, 60, 'hole')]],
    ]) {
      // prettier-ignore
      const drift = measureDrift(disc, field, { ...REACH, covers });
      expect(drift.covered.some((v) => v === 1)).toBe(false);
      expect(drift.value).toEqual(plain.value);
    }
  });

  it('stays within a quarter of a pixel under grain', () => {
    const off = 1.5;
    const { value } = measureDrift(circlePath(80.3, 79.6, 50 - off), seen(disc, 160, 24), REACH);
    const v = measured(value);
    expect(v.length).toBeGreaterThan(0.97 * value.length);
    expect(middle(v.map((x) => Math.abs(x - off)))).toBeLessThan(0.25);
  });

  it('is found on an ellipse, turned, and cut by anchors, as on the whole', () => {
    const ellipse = transformPath(circlePath(0, 0, 1), [60, 20, -14, 35, 82, 78]);
    const cut = insertAnchor(insertAnchor(ellipse, 0, 0.3), 3, 0.6);
    const { value } = measureDrift(cut, seen(ellipse, 160), REACH);
    expect(measured(value).length).toBeGreaterThan(0.98 * value.length);
    for (const v of measured(value)) expect(Math.abs(v)).toBeLessThan(0.1);
  });
});

describe('drift where there is little to follow', () => {
  it('says no edge on a flat picture, in noise only, off the picture, and on no path at all', () => {
    const off = circlePath(400, 400, 30);
    const flat = fieldTiles(painted(120, 120, [], PAPER), 'edge', EDGE_BLUR);
    const noise = fieldTiles(painted(120, 120, [], PAPER, 30), 'edge', EDGE_BLUR);
    for (const field of [flat, noise]) {
      const { value, weight } = measureDrift(circlePath(60, 60, 40), field, REACH);
      const share = measured(value).length / value.length;
      expect(share, field === flat ? 'flat' : 'noise').toBeLessThan(0.08);
      expect(weight.length).toBeGreaterThan(200);
      expect(measured(measureDrift(off, field, REACH).value)).toEqual([]);
    }
    expect(driftFigures([measureDrift(pathOf([anchor(3, 3)]), flat, REACH)], 1)).toMatchObject({
      measured: 0,
    });
    expect(() => measureDrift(off, flat, { reach: 0 })).toThrow(RangeError);
  });

  it('keeps to one of two edges three pixels apart, the nearer', () => {
    const outer = squarePath(30, 30, 100);
    const inner = squarePath(33, 33, 94);
    const raster = painted(160, 160, [{ path: outer, rgb: [200, 60, 40] }, { path: inner, rgb: [40, 60, 160] }], PAPER); // prettier-ignore
    const field = fieldTiles(raster, 'edge', 0.8);
    // Along the upper side only, half a pixel outside the outer edge.
    const side = pathOf([anchor(50, 29.5), anchor(110, 29.5)]);
    const v = measured(measureDrift(side, field, REACH).value);
    expect(v.length).toBeGreaterThan(50);
    expect(Math.max(...v) - Math.min(...v)).toBeLessThan(0.3);
    // Left along the way is up: the edge lies below, so it is negative.
    expect(middle(v)).toBeLessThan(0);
    expect(Math.abs(middle(v) + 0.5)).toBeLessThan(0.3);
  });

  it('leaves out what a neighbour hides, and measures the rest', () => {
    const disc = circlePath(80, 80, 50);
    // The right half lies under paper.
    const raster = painted(160, 160, [{ path: disc, rgb: INK }, { path: pathOf([anchor(80, 0), anchor(160, 0), anchor(160, 160), anchor(80, 160)], true), rgb: PAPER }], PAPER); // prettier-ignore
    const drift = measureDrift(disc, fieldTiles(raster, 'edge', EDGE_BLUR), REACH);
    for (let i = 0; i < drift.value.length; i++) {
      if (drift.x[i]! > 90) expect(drift.value[i]).toBeNaN();
      if (drift.x[i]! < 70) expect(Math.abs(drift.value[i]!)).toBeLessThan(0.15);
    }
  });
});

describe('drift near corners', () => {
  // Truth: the outline, whose corners turn by 90°, 60°, 120° and 150°, photographed through lenses.
  const BOXES = ['M70 66L176 78L164 184L58 172Z', 'M120 40L204 186L36 186Z', 'M40 120L120 84L200 120L120 156Z', 'M30 120L120 100L210 120L120 144Z'] as const; // prettier-ignore
  it.each([0.7, 1.5, 2.5])('is told through a blur of %s px as near as a tenth of a pixel allows', (blur) => {
    for (const data of BOXES) {
      const truth = parsePathData(data)[0]!;
      const raster = photographed(240, 240, [{ path: truth, rgb: [46, 84, 70] }], [228, 218, 196], { blur });
      const field = edgeTiles(raster);
      const drift = measureDrift(truth, field, { reach: 12, light: 'true' });
      const [said, sought] = [drift, measureDrift(truth, field, { reach: 12, light: 'true', cornersSought: true })].map((d) => driftFigures([d], 1)); // prettier-ignore
      expect(Math.abs(said!.worst)).toBeLessThan(0.15);
      // All that is not said is near corners; where those are only sought, more is.
      expect(said!.measured + said!.nearCorners).toBeCloseTo(said!.length, 6);
      expect(sought!.measured).toBeLessThan(said!.measured - 4);
      drift.nearCorner.forEach((near, i) => {
        if (near) expect(drift.value[i]).toBeNaN();
      });
    }
  });

  it('counts as near a corner only where an edge is: a spike drawn beyond it sees none', () => {
    const truth = parsePathData(BOXES[1])[0]!;
    const spiked = { ...truth, anchors: truth.anchors.map((a, i) => (i === 0 ? { ...a, y: a.y - 34 } : a)) };
    const raster = photographed(240, 240, [{ path: truth, rgb: [46, 84, 70] }], [228, 218, 196], {
      blur: 0.7,
    });
    const drift = measureDrift(spiked, edgeTiles(raster), { reach: 6, light: 'true' });
    const tip = [...drift.x.keys()].filter((i) => drift.y[i]! < 28);
    expect(tip.length).toBeGreaterThan(30);
    for (const i of tip) expect([drift.nearCorner[i], drift.value[i]]).toEqual([0, NaN]);
  });
});

// Truth: strokes of a known middle, as in Steger (1998), who reports under a tenth of a pixel.
describe('drift to the middle of a stroke', () => {
  const bar = (y: number, w: number) => pathOf([anchor(-5, y - w / 2), anchor(205, y - w / 2), anchor(205, y + w / 2), anchor(-5, y + w / 2)], true); // prettier-ignore
  it('is a tenth of a pixel from the truth at most, dark and bright, thin and wide', () => {
    for (const [w, rgb, ground] of [
      [3, INK, PAPER],
      [6, INK, PAPER],
      [10, PAPER, INK],
    ] as const) {
      const field = fieldTiles(painted(200, 120, [{ path: bar(60.4, w), rgb }], ground), 'line', Math.max(1.2, w / (2 * Math.sqrt(3)) + 0.4)); // prettier-ignore
      const path = pathOf([anchor(20, 62), anchor(180, 62)]);
      const v = measured(measureDrift(path, field, REACH).value);
      expect(v.length).toBeGreaterThan(120);
      for (const x of v) expect(Math.abs(x - 1.6)).toBeLessThan(0.1);
    }
  });
});

describe('drift to the middle of a wide stroke', () => {
  it('is right to a tenth of a pixel where its ground is unlike on both sides', () => {
    const path = (y: number, h: number) => pathOf([anchor(-5, y), anchor(205, y), anchor(205, y + h), anchor(-5, y + h)], true); // prettier-ignore
    const raster = painted(200, 120, [{ path: path(60.4, 70), rgb: [150, 160, 150] }, { path: path(50.4, 20), rgb: [245, 240, 230] }], INK); // prettier-ignore
    const field = fieldTiles(raster, 'edge', EDGE_BLUR);
    for (const width of [20, 18, 23]) {
      const { value } = measureDrift(pathOf([anchor(20, 62), anchor(180, 62)]), field, {
        reach: 8,
        stroke: width,
      });
      const v = measured(value);
      expect(v.length).toBeGreaterThan(120);
      for (const x of v) expect(Math.abs(x - 1.6)).toBeLessThan(0.1);
    }
  });
});

describe('figures', () => {
  it('are weighted by length, for all or one segment, and say the worst', () => {
    const square = squarePath(40, 40, 80);
    const moved = { ...square, anchors: square.anchors.map((a, i) => (i === 1 || i === 2 ? { ...a, x: a.x + 3 } : a)) }; // prettier-ignore
    const drift = measureDrift(moved, seen(square, 160), REACH);
    const all = driftFigures([drift], 1);
    expect(all.worst).toBeCloseTo(-3, 1);
    expect(all.mean).toBeCloseTo(3 / 4, 1);
    expect(all.within).toBeCloseTo(3 / 4, 1);
    expect(all.p95).toBeCloseTo(3, 1);
    expect(driftFigures([drift], 1, 0).mean).toBeLessThan(0.1);
    expect(driftFigures([drift], 1, 1).mean).toBeCloseTo(3, 1);
    expect(all.length).toBeCloseTo(326, 0);
  });

  // Reference: all sizes put in order and their lengths added up.
  it('say the size that 95 % of the length stays within, however sizes are spread', () => {
    const random = seeded(5);
    const blank = (n: number) => ({ segment: new Int32Array(n), t: new Float64Array(n), x: new Float64Array(n), y: new Float64Array(n), nx: new Float64Array(n), ny: new Float64Array(n), strength: new Float64Array(n), covered: new Uint8Array(n), nearCorner: new Uint8Array(n) }); // prettier-ignore
    for (const n of [1, 2, 19, 20, 21, 500])
      for (const power of [0, 1, 6, 30]) {
        const drift = {
          ...blank(n),
          weight: Float64Array.from({ length: n }, () => 0.5 + random()),
          value: Float64Array.from({ length: n }, () => 8 * random() ** power * (random() < 0.5 ? -1 : 1)),
        };
        const sorted = [...drift.value].map((v, i) => ({ size: Math.abs(v), weight: drift.weight[i]! }));
        sorted.sort((a, b) => a.size - b.size);
        const long = sorted.reduce((s, { weight }) => s + weight, 0);
        let upTo = 0;
        const most = sorted.find(({ weight }) => (upTo += weight) >= 0.95 * long - 1e-9)!.size;
        expect(driftFigures([drift], 1).p95).toBe(most);
      }
  });
});
