import fitCurve from 'fit-curve';
import type Paper from 'paper';
import paperCore from 'paper/dist/paper-core.js';
import { describe, expect, it } from 'vitest';
import { cubicPoint } from '../geometry/cubic';
import { anchor, circlePath, pathOf, seeded, squarePath } from '../testing';
import { parsePathData } from './data';
import { evenSpots, insertAnchors } from './spots';
import { flattenPath, nearestOnPath, pathLength } from './path-measure';
import { pathCubics, segmentCount, tangentAt, type Path } from './path';
import { transformPath } from './path-map';
import { spareAnchors, thinOut } from './thin';

const paper = paperCore as unknown as typeof Paper;
paper.setup([1, 1]);

/** Farthest that two lines lie apart, measured densely both ways. */
const farthest = (a: Path, b: Path): number => {
  const one = (p: Path, q: Path): number =>
    Math.max(
      ...pathCubics(p).flatMap((c) =>
        Array.from({ length: 40 }, (_, i) => nearestOnPath(q, cubicPoint(c, i / 39))!.distance),
      ),
    );
  return Math.max(one(a, b), one(b, a));
};
/** The same line with `count` anchors more on every segment. */
const crowded = (path: Path, count: number): Path =>
  insertAnchors(path, Array.from({ length: segmentCount(path) }, (_, i) => evenSpots(path, i, count)).flat());

// Invented outlines: a leaf, a jug's side with corners, a cloud.
const OUTLINES = [
  'M10 60C20 10 80 0 120 40C150 70 180 60 200 20C190 90 150 130 90 120C50 115 20 95 10 60Z',
  'M20 20L120 20C140 20 150 40 140 60C120 90 120 130 150 170L10 170C50 130 50 90 20 60Z',
  'M40 80C10 80 10 40 45 40C50 10 100 10 105 38C140 30 160 70 130 85C120 110 60 110 40 80Z',
].map((d) => parsePathData(d, () => 'o')[0]!);

describe('thinning out', () => {
  it.each([0.05, 0.3, 1])(
    'never goes farther than %f from the line, either way, and keeps corners',
    (tolerance) => {
      for (const outline of OUTLINES) {
        const many = crowded(outline, 12);
        const { path, removed, worst } = thinOut(many, { tolerance });
        expect(farthest(many, path)).toBeLessThanOrEqual(tolerance * 1.02);
        expect(worst.distance).toBeLessThanOrEqual(tolerance);
        expect(path.anchors.length + removed.length).toBe(many.anchors.length);
        // Back to about what it was drawn with.
        expect(path.anchors.length).toBeLessThanOrEqual(outline.anchors.length + 1);
        outline.anchors.forEach((a, k) => {
          const [arriving, leaving] = [tangentAt(outline, k, 'in')!, tangentAt(outline, k, 'out')!];
          const sharp = arriving.x * leaving.x + arriving.y * leaving.y < Math.cos((12 * Math.PI) / 180);
          if (sharp) expect(path.anchors.some((b) => b.x === a.x && b.y === a.y)).toBe(true);
        });
      }
    },
  );

  it('makes no more anchors than Graphics Gems’ fitting (fit-curve), and fewer than paper’s simplify', () => {
    const random = seeded(6);
    for (const outline of OUTLINES)
      for (const tolerance of [0.3, 0.8]) {
        // The same outline as points, as a quick hand leaves them: a little off.
        const points = flattenPath(outline, 0.02).map(
          (p) => [p.x + 0.2 * (random() - 0.5), p.y + 0.2 * (random() - 0.5)] as [number, number],
        );
        const ours = thinOut(crowded(outline, 10), { tolerance });
        // Both packages take the square of the distance.
        expect(ours.path.anchors.length).toBeLessThanOrEqual(fitCurve(points, tolerance * tolerance).length);
        const theirs = new paper.Path({ segments: points, closed: true, insert: false });
        theirs.simplify(tolerance * tolerance);
        expect(ours.path.anchors.length).toBeLessThan(theirs.segments.length);
      }
  });

  it('keeps straight runs straight and takes their middles', () => {
    const square = crowded(squarePath(0, 0, 100), 4);
    const { path } = thinOut(square, { tolerance: 0.01 });
    expect(path.anchors).toHaveLength(4);
    expect(path.anchors.every((a) => a.in === null && a.out === null)).toBe(true);
    expect(pathLength(path)).toBeCloseTo(400, 9);
  });

  it('spares what is protected or shared, and leaves the rest of the path alone', () => {
    const many = crowded(OUTLINES[0]!, 8);
    const some = Array.from({ length: 14 }, (_, i) => i + 3);
    const { path, removed } = thinOut(many, { tolerance: 0.5, only: some });
    expect(removed.length).toBeGreaterThan(5);
    expect(removed.every((i) => some.includes(i))).toBe(true);
    expect(path.anchors.at(-1)).toEqual(many.anchors.at(-1));
    const shared: Path = {
      ...many,
      anchors: many.anchors.map((a, i) => (i === 5 ? { ...a, shared: 'k' } : a)),
    };
    expect(spareAnchors(shared, { tolerance: 5 })).not.toContain(5);
  });

  it('leaves protected anchors where they are', () => {
    const many = crowded(circlePath(0, 0, 100), 6);
    const guarded = {
      ...many,
      anchors: many.anchors.map((a, i) => (i % 5 === 2 ? { ...a, protected: true as const } : a)),
    };
    const kept = guarded.anchors.filter((a) => a.protected);
    const { path, removed } = thinOut(guarded, { tolerance: 0.5 });
    expect(removed.length).toBeGreaterThan(8);
    for (const a of kept)
      expect(path.anchors.some((b) => b.protected && b.x === a.x && b.y === a.y)).toBe(true);
    expect(farthest(path, many)).toBeLessThanOrEqual(0.5);
  });

  it('gives a path back itself where nothing can go: two anchors, one, a circle of four at a fine tolerance', () => {
    for (const path of [pathOf([anchor(0, 0)]), pathOf([anchor(0, 0), anchor(9, 9)]), circlePath(0, 0, 50)]) {
      const thinned = thinOut(path, { tolerance: 0.001 });
      expect(thinned.path).toBe(path);
      expect(thinned.removed).toEqual([]);
    }
    expect(() => thinOut(circlePath(0, 0, 5), { tolerance: -1 })).toThrowError(RangeError);
    expect(() => thinOut(circlePath(0, 0, 5), { tolerance: 1, only: [9] })).toThrowError(RangeError);
  });

  it('brings a crowded circle back to four anchors or fewer, at any size', () => {
    for (const size of [1e-3, 1, 1e4]) {
      const many = transformPath(crowded(circlePath(0, 0, 1), 15), [size, 0, 0, size, 0, 0]);
      const { path } = thinOut(many, { tolerance: 0.002 * size });
      expect(path.anchors.length).toBeLessThanOrEqual(4);
      expect(path.anchors.length).toBeGreaterThanOrEqual(2);
      expect(farthest(many, path)).toBeLessThanOrEqual(0.00204 * size);
    }
  });
});
