import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { insideEvenOdd } from '../geometry/flatten';
import { anchor, circlePath, pathOf, seeded, squarePath } from '../testing';
import { formatPathData } from './data';
import type { Path } from './path';
import { flattenPath, nearestOnPath, pathArea } from './path-measure';
import type { StrokeOutline } from './stroke-pieces';
import { strokeToShape, widen } from './stroke-to-shape';

const idOf = (n: number): string => `o${n}`;
const ROUND: StrokeOutline = { width: 8, ends: 'round', joins: 'round', miterLimit: 4 };
const SHARP: StrokeOutline = { width: 8, ends: 'butt', joins: 'miter', miterLimit: 4 };
const areaOf = (pieces: readonly (readonly Path[])[]): number =>
  pieces.flat().reduce((sum, p) => sum + pathArea(p), 0);
const anchorsOf = (pieces: readonly (readonly Path[])[]): number => pieces.flat().reduce((sum, p) => sum + p.anchors.length, 0); // prettier-ignore

const random = seeded(4042);
/** Anchors at random, with handles that run through them; some tight. */
function wander(count: number, size: number, closed = false, id = 'w'): Path {
  const points = Array.from({ length: count }, () => ({ x: size * random(), y: size * random() }));
  return pathOf(
    points.map((p, i) => {
      if (random() < 0.2) return anchor(p.x, p.y);
      const [a, b] = [points[(i + count - 1) % count]!, points[(i + 1) % count]!];
      const s = 0.05 + 0.3 * random();
      const h = [(b.x - a.x) * s, (b.y - a.y) * s] as const;
      return anchor(p.x, p.y, [-h[0], -h[1]], h, 'smooth');
    }),
    closed,
    id,
  );
}
const draw = (inner: string): Uint8Array =>
  new Resvg(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="-20 -20 140 140" width="420" height="420">${inner}</svg>`, { font: { loadSystemFonts: false } }).render().pixels; // prettier-ignore
/** Pixels of which one picture has most and the other hardly anything. */
const apart = (a: Uint8Array, b: Uint8Array): number => {
  let count = 0;
  for (let i = 3; i < a.length; i += 4) if (Math.abs(a[i]! - b[i]!) > 140) count++;
  return count;
};

describe('Stroke to shape', () => {
  it('lies 0.05 px at most off the true offset: what is nearer than half a width is in, what is farther is out', () => {
    // Source: the definition of a stroke with round joins and ends, all within half its width of the line.
    for (let round = 0; round < 18; round++) {
      const path = wander(2 + Math.floor(4 * random()), 100, round % 3 === 0);
      const width = [3, 8, 20][round % 3]!;
      const made = strokeToShape([path], { ...ROUND, width }, idOf);
      const polygons = made.flat().map((p) => flattenPath(p, 0.002));
      for (const polygon of polygons)
        for (const p of polygon.filter((_, i) => i % 3 === 0))
          expect(Math.abs(nearestOnPath(path, p)!.distance - width / 2), `round ${round}`).toBeLessThan(0.05);
      for (let k = 0; k < 250; k++) {
        const p = { x: 140 * random() - 20, y: 140 * random() - 20 };
        const far = nearestOnPath(path, p)!.distance;
        if (Math.abs(far - width / 2) > 0.05) expect(insideEvenOdd(polygons, p), `round ${round}`).toBe(far < width / 2); // prettier-ignore
      }
    }
  });

  it('is exact for straight lines and for circles', () => {
    const square = strokeToShape([squarePath(0, 0, 50)], { ...SHARP, width: 10 }, idOf);
    expect(areaOf(square)).toBeCloseTo(60 * 60 - 40 * 40, 9);
    expect(anchorsOf(square)).toBe(8);
    const bar = strokeToShape([pathOf([anchor(0, 0), anchor(30, 40)])], { ...SHARP, ends: 'square' }, idOf);
    expect(areaOf(bar)).toBeCloseTo(58 * 8, 9);
    expect(anchorsOf(bar)).toBe(4);
    const [ring] = strokeToShape([circlePath(10, 20, 50)], { ...SHARP, width: 10 }, idOf);
    expect(ring!.map((p) => p.anchors.length)).toEqual([4, 4]);
    // The standard circle of four cubics, by its own handle: 0.5522847498 of the radius.
    for (const [path, radius] of [
      [ring![0]!, 55],
      [ring![1]!, 45],
    ] as const)
      // prettier-ignore
      for (const a of path.anchors) {
        expect(Math.hypot(a.x - 10, a.y - 20)).toBeCloseTo(radius, 9);
        expect(Math.hypot(a.out!.x, a.out!.y) / radius).toBeCloseTo(0.5522847498, 8);
      }
  });

  it('paints the same pixels as the stroke, with all ends, joins, miter limits and dashes', () => {
    // Source outside: resvg draws the stroke; its outline filled is drawn by the same.
    const kinds = ['butt', 'round', 'square'] as const;
    const joins = ['miter', 'round', 'bevel'] as const;
    for (let round = 0; round < 27; round++) {
      const path = wander(3 + Math.floor(3 * random()), 100, round % 4 === 3);
      const stroke: StrokeOutline = {
        width: 2 + 10 * random(),
        ends: kinds[round % 3]!,
        joins: joins[Math.floor(round / 3) % 3]!,
        miterLimit: round % 2 === 0 ? 4 : 1.5,
        ...(round % 2 === 1 && { dash: [12, 5, 3, 7], dashOffset: 9 * round - 40 }),
      };
      const dash = stroke.dash ? `stroke-dasharray="${stroke.dash.join(' ')}" stroke-dashoffset="${stroke.dashOffset}"` : ''; // prettier-ignore
      const asStroke = draw(`<path d="${formatPathData([path])}" fill="none" stroke="#000" stroke-width="${stroke.width}" stroke-linecap="${stroke.ends}" stroke-linejoin="${stroke.joins}" stroke-miterlimit="${stroke.miterLimit}" ${dash}/>`); // prettier-ignore
      const made = strokeToShape([path], stroke, idOf);
      const asShape = draw(`<path d="${formatPathData(made.flat())}" fill="#000" fill-rule="evenodd"/>`);
      // A thousandth of the picture: where a line bends more tightly than it is wide, resvg puts rounds of its own.
      expect(apart(asStroke, asShape), `round ${round}`).toBeLessThan(420 * 0.42);
    }
  });

  it('makes a dot of a path without length, and nothing of a stroke that paints nothing', () => {
    // Source: SVG 2, 13.5.4, "zero length subpaths".
    const point = pathOf([anchor(5, 5)]);
    expect(areaOf(strokeToShape([point], ROUND, idOf))).toBeCloseTo(Math.PI * 16, 1);
    expect(areaOf(strokeToShape([point], { ...ROUND, ends: 'square' }, idOf))).toBeCloseTo(64, 9);
    expect(strokeToShape([point], SHARP, idOf)).toEqual([]);
    expect(strokeToShape([], ROUND, idOf)).toEqual([]);
    expect(strokeToShape([point], { ...ROUND, width: 0 }, idOf)).toEqual([]);
  });

  it('refuses dashes by the ten thousands, and says so', () => {
    const long = pathOf([anchor(0, 0), anchor(1e5, 0)]);
    expect(() => strokeToShape([long], { ...SHARP, dash: [1, 1] }, idOf)).toThrow(/more than 20000 dashes/);
  });

  it('is the same at every size', () => {
    for (const k of [1e-3, 1, 1e3]) {
      const bent = pathOf([
        anchor(0, 0, null, [30 * k, -60 * k]),
        anchor(100 * k, 0, [-10 * k, 40 * k], null),
      ]);
      const made = strokeToShape([bent], { ...ROUND, width: 8 * k }, idOf);
      expect(areaOf(made) / (k * k)).toBeCloseTo(areaOf(strokeToShape([pathOf([anchor(0, 0, null, [30, -60]), anchor(100, 0, [-10, 40], null)])], ROUND, idOf)), -1); // prettier-ignore
      expect(made).toHaveLength(1);
    }
  });
});

describe('Widen', () => {
  const miter = { joins: 'miter', miterLimit: 4 } as const;

  it('moves every edge by the distance, outwards and inwards', () => {
    for (const [by, side] of [
      [10, 70],
      [-10, 30],
      [-24.9, 0.2],
    ] as const) {
      const made = widen([squarePath(0, 0, 50)], by, miter, idOf);
      expect(areaOf(made)).toBeCloseTo(side * side, 6);
      expect(anchorsOf(made)).toBe(4);
    }
    expect(widen([squarePath(0, 0, 50)], -25, miter, idOf)).toEqual([]);
    expect(widen([squarePath(0, 0, 50)], -300, miter, idOf)).toEqual([]);
    expect(areaOf(widen([squarePath(0, 0, 50)], 10, { joins: 'bevel', miterLimit: 4 }, idOf))).toBeCloseTo(4900 - 200, 6); // prettier-ignore
    expect(areaOf(widen([squarePath(0, 0, 50)], 10, { joins: 'round', miterLimit: 4 }, idOf))).toBeCloseTo(2500 + 2000 + Math.PI * 100, 0); // prettier-ignore
  });

  it('leaves what is farther from the edge than the distance, to 0.05 px', () => {
    for (let round = 0; round < 6; round++) {
      const path = wander(5, 100, true);
      const own = [flattenPath(path, 0.002)];
      for (const by of [6, -4]) {
        const polygons = widen([path], by, { joins: 'round', miterLimit: 4 }, idOf).flat().map((p) => flattenPath(p, 0.002)); // prettier-ignore
        for (let k = 0; k < 150; k++) {
          const p = { x: 130 * random() - 15, y: 130 * random() - 15 };
          const far = nearestOnPath(path, p)!.distance * (insideEvenOdd(own, p) ? -1 : 1);
          if (Math.abs(far - by) > 0.05) expect(insideEvenOdd(polygons, p), `round ${round}, ${by}`).toBe(far < by); // prettier-ignore
        }
      }
    }
  });

  it('falls apart into several where a neck is narrower, and keeps holes', () => {
    const neck = pathOf([anchor(0, 0), anchor(40, 0), anchor(40, 18), anchor(60, 18), anchor(60, 0), anchor(100, 0), anchor(100, 40), anchor(60, 40), anchor(60, 22), anchor(40, 22), anchor(40, 40), anchor(0, 40)], true); // prettier-ignore
    const two = widen([neck], -3, miter, idOf);
    expect(two.map((paths) => paths.length)).toEqual([1, 1]);
    const holed = [squarePath(0, 0, 60), squarePath(20, 20, 20, 'h')];
    const [grown] = widen(holed, 5, miter, idOf);
    expect(grown!.map((p) => Math.abs(pathArea(p)))).toEqual([
      expect.closeTo(4900, 6),
      expect.closeTo(100, 6),
    ]);
    expect(widen(holed, 10, miter, idOf)[0]).toHaveLength(1);
  });

  it('makes a band of an open path, and leaves all as it is for no distance', () => {
    const line = pathOf([anchor(0, 0), anchor(50, 0)]);
    expect(areaOf(widen([line], 4, miter, idOf))).toBeCloseTo(400, 6);
    expect(widen([line], -4, miter, idOf)).toEqual([]);
    expect(widen([line], 0, miter, idOf)).toEqual([[line]]);
  });
});
