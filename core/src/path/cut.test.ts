import { Bezier } from 'bezier-js';
import { describe, expect, it } from 'vitest';
import { cubicCurvature, cubicInflections, cubicLength, cubicPoint, lineCubic } from '../geometry/cubic';
import { anchor, circlePath, pathOf, randomCubic, seeded, squarePath } from '../testing';
import { cutAt, mergeAnchors, startAt } from './cut';
import { pathLength } from './path-measure';
import { segmentCubic } from './path';
import { evenSpots, extremeSpots, inflectionSpots, insertAnchors } from './spots';

const bow = pathOf([
  anchor(0, 0, null, [10, -40]),
  anchor(60, 0, [-10, 40], [10, -40], 'smooth'),
  anchor(120, 0, [-10, 40]),
]);
describe('cutting', () => {
  it('opens a closed path where it is cut; the line stays', () => {
    const circle = circlePath(0, 0, 10);
    const [open, ...none] = cutAt(circle, 2, 'q');
    expect(none).toEqual([]);
    expect(open).toMatchObject({ closed: false, id: 'p' });
    expect(open!.anchors).toHaveLength(5);
    expect([open!.anchors[0]!.x, open!.anchors[4]!.x]).toEqual([-10, -10]);
    expect([open!.anchors[0]!.in, open!.anchors[4]!.out]).toEqual([null, null]);
    expect(pathLength(open!)).toBeCloseTo(pathLength(circle), 9);
  });
  it('parts an open path in two that meet; at its ends nothing happens', () => {
    const parts = cutAt(bow, 1, 'q');
    expect(parts.map((p) => [p.id, p.anchors.length])).toEqual([
      ['p', 2],
      ['q', 2],
    ]);
    expect(parts.reduce((s, p) => s + pathLength(p), 0)).toBeCloseTo(pathLength(bow), 9);
    expect(cutAt(bow, 0, 'q')).toEqual([bow]);
    expect(cutAt(bow, 2, 'q')).toEqual([bow]);
    expect(() => cutAt(bow, 3, 'q')).toThrowError(RangeError);
    expect(cutAt(pathOf([anchor(0, 0)], true), 0, 'q')).toHaveLength(1);
  });
  it('begins a closed path elsewhere', () => {
    const square = squarePath(0, 0, 10);
    expect(startAt(square, 2).anchors[0]).toMatchObject({ x: 10, y: 10 });
    expect(pathLength(startAt(square, 2))).toBe(pathLength(square));
    expect(startAt(bow, 1)).toBe(bow);
    expect(startAt(square, 9)).toBe(square);
  });
});

describe('merging neighbours', () => {
  it('makes one anchor halfway, with the outer handles', () => {
    const merged = mergeAnchors(
      pathOf([anchor(0, 0), anchor(10, 0, [-2, 0], [1, 1]), anchor(14, 0, [1, 1], [3, 0]), anchor(30, 0)]),
      1,
    );
    expect(merged.anchors).toHaveLength(3);
    expect(merged.anchors[1]).toMatchObject({
      x: 12,
      y: 0,
      in: { x: -2, y: 0 },
      out: { x: 3, y: 0 },
      kind: 'corner',
    });
    const round = mergeAnchors(squarePath(0, 0, 10), 3);
    expect(round.anchors.map((a) => [a.x, a.y])).toEqual([
      [10, 0],
      [10, 10],
      [0, 5],
    ]);
    expect(mergeAnchors(circlePath(0, 0, 10), 0).anchors[0]!.kind).toBe('corner');
    const flat = pathOf([
      anchor(0, 0),
      anchor(10, 0, [-2, 0], [2, 0], 'smooth'),
      anchor(14, 0, [-1, 0], [3, 0], 'smooth'),
      anchor(30, 0),
    ]);
    expect(mergeAnchors(flat, 1).anchors[1]!.kind).toBe('smooth');
  });
  it('leaves a path alone that has no next anchor, or only two', () => {
    expect(mergeAnchors(bow, 2)).toBe(bow);
    expect(mergeAnchors(pathOf([anchor(0, 0), anchor(1, 0)]), 0).anchors).toHaveLength(2);
  });
});

it('curvature is that of bezier-js, a circle’s is one over its radius, a line’s is none', () => {
  const random = seeded(4);
  for (let i = 0; i < 100; i++) {
    const c = randomCubic(random);
    const t = 0.05 + 0.9 * random();
    const k = cubicCurvature(c, t);
    // The package's types leave this out.
    const reference = new Bezier(...c) as unknown as { curvature(t: number): { k: number } };
    const { k: theirs } = reference.curvature(t);
    expect(Math.abs(Math.abs(k) - Math.abs(theirs))).toBeLessThan(1e-9 * Math.max(1, Math.abs(k)));
  }
  for (let i = 0; i < 4; i++)
    expect(Math.abs(cubicCurvature(segmentCubic(circlePath(0, 0, 20), i), 0.5) * 20 - 1)).toBeLessThan(0.01);
  expect(cubicCurvature(lineCubic({ x: 0, y: 0 }, { x: 9, y: 9 }), 0.4)).toBeCloseTo(0, 12);
  expect(cubicCurvature(lineCubic({ x: 1, y: 1 }, { x: 1, y: 1 }), 0.4)).toBe(0);
});

describe('places to add anchors', () => {
  it('inflections are those of bezier-js on random curves; a straight line has none', () => {
    const random = seeded(8);
    for (let i = 0; i < 200; i++) {
      const c = randomCubic(random);
      const theirs = new Bezier(...c)
        .inflections()
        .filter((t) => t > 1e-6 && t < 1 - 1e-6)
        .sort((a, b) => a - b);
      const ours = cubicInflections(c)
        .filter((t) => t > 1e-6 && t < 1 - 1e-6)
        .sort((a, b) => a - b);
      expect(ours.length).toBe(theirs.length);
      ours.forEach((t, k) => expect(t).toBeCloseTo(theirs[k]!, 6));
    }
    expect(cubicInflections(lineCubic({ x: 0, y: 0 }, { x: 9, y: 9 }))).toEqual([]);
  });
  it('extremes, inflections and even parts go in without changing the line, to 1e-9', () => {
    for (const spots of [
      extremeSpots(bow),
      inflectionSpots(bow),
      evenSpots(bow, 0, 3),
      [...evenSpots(bow, 1, 4), ...extremeSpots(bow)],
    ]) {
      const grown = insertAnchors(bow, spots);
      expect(grown.anchors.length).toBe(3 + spots.length);
      // Each new segment is the old one between two of its places.
      const stops = [0, 1].flatMap((segment) => {
        const ts = [
          0,
          ...spots
            .filter((q) => q.segment === segment)
            .map((q) => q.t)
            .sort((a, b) => a - b),
          1,
        ];
        return ts.slice(1).map((t, k) => ({ segment, from: ts[k]!, to: t }));
      });
      stops.forEach(({ segment, from, to }, k) => {
        for (const u of [0, 0.3, 0.7, 1]) {
          const [p, q] = [
            cubicPoint(segmentCubic(grown, k), u),
            cubicPoint(segmentCubic(bow, segment), from + (to - from) * u),
          ];
          expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeLessThan(1e-9);
        }
      });
      expect(pathLength(grown)).toBeCloseTo(pathLength(bow), 6);
    }
    expect(extremeSpots(squarePath(0, 0, 10))).toEqual([]);
    expect(
      insertAnchors(bow, [
        { segment: 0, t: 0.5 },
        { segment: 0, t: 0.5 },
      ]).anchors,
    ).toHaveLength(4);
    expect(insertAnchors(bow, [])).toBe(bow);
  });
  it('even parts are equally long', () => {
    const grown = insertAnchors(bow, evenSpots(bow, 0, 3));
    const lengths = [0, 1, 2, 3].map((i) => cubicLength(segmentCubic(grown, i)));
    for (const l of lengths) expect(l).toBeCloseTo(lengths[0]!, 6);
    // At the extremes the tangent runs level or upright.
    const [spot] = extremeSpots(bow);
    expect(spot).toBeDefined();
  });
});
