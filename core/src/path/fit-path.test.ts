import fc from 'fast-check';
import fitCurve from 'fit-curve';
import { describe, expect, it } from 'vitest';
import { cubicPoint } from '../geometry/cubic';
import { distance, type Point } from '../geometry/vector';
import { circlePath, randomCubic, seeded } from '../testing';
import { parsePathData } from './data';
import { farthestStretch, fitPath, runOfPoints } from './fit-path';
import { nearestOnPath } from './path-measure';
import { pathCubics, segmentCount, segmentIsLine, type Path } from './path';

/** Points along a path about a pixel apart, and where its corners are. */
function walked(path: Path): { points: Point[]; corners: number[] } {
  const points: Point[] = [];
  const corners: number[] = [];
  pathCubics(path).forEach((c, i) => {
    if (path.anchors[i]!.kind === 'corner') corners.push(points.length);
    for (let k = 0; k < 60; k++) points.push(cubicPoint(c, k / 60));
  });
  if (!path.closed) points.push(pathCubics(path).at(-1)![3]);
  return { points, corners };
}
const off = (path: Path, points: readonly Point[]): number =>
  Math.max(...points.map((p) => nearestOnPath(path, p)!.distance));

describe('fitting a path to points', () => {
  // Source: fit-curve, Schneider's algorithm of Graphics Gems (1990); its error is a squared distance.
  it('holds the tolerance with no more segments than Graphics Gems’ fitting', () => {
    const random = seeded(19);
    let [ours, theirs] = [0, 0];
    for (let k = 0; k < 40; k++) {
      const a = randomCubic(random);
      const b = randomCubic(random);
      // The second goes on smoothly from the first.
      const joined = [a, [a[3], { x: 2 * a[3].x - a[2].x, y: 2 * a[3].y - a[2].y }, b[2], b[3]]] as const;
      const points = joined.flatMap(([p, q, r, s]) =>
        Array.from({ length: 50 }, (_, i) => cubicPoint([p, q, r, s], i / 50)),
      );
      for (const tolerance of [0.5, 2]) {
        const path = fitPath(points, { tolerance, about: 3 });
        expect(off(path, points)).toBeLessThan(tolerance * 1.05);
        ours += segmentCount(path);
        const other = fitCurve(
          points.map((p) => [p.x, p.y]),
          tolerance ** 2,
        ).length;
        theirs += other;
        expect(segmentCount(path)).toBeLessThanOrEqual(other + 1);
      }
    }
    expect(ours).toBeLessThanOrEqual(theirs);
  });

  // Source: four cubics hold a circle to 2.7e-4 of its radius (0.016 of 60), and the error of an arc goes with the sixth
  // power of its angle (Goldapp, "Approximation of circular arcs by cubic polynomials", 1991, from memory): three 0.09.
  it.each([
    [0.12, 3],
    [0.05, 4],
  ])(
    'makes a circle within %d of %d smooth anchors or one more, and closes it smoothly',
    (tolerance, fewest) => {
      const { points } = walked(circlePath(0, 0, 60));
      const path = fitPath(points, { tolerance, closed: true });
      expect(path.closed).toBe(true);
      expect(path.anchors.length).toBeLessThanOrEqual(fewest + 1);
      expect(path.anchors.length).toBeGreaterThanOrEqual(fewest);
      expect(off(path, points)).toBeLessThan(tolerance);
      for (const a of path.anchors) {
        expect(a.kind).toBe('smooth');
        expect(Math.abs(a.in!.x * a.out!.y - a.in!.y * a.out!.x)).toBeLessThan(1e-6 * Math.hypot(a.in!.x, a.in!.y) * Math.hypot(a.out!.x, a.out!.y)); // prettier-ignore
      }
    },
  );

  it('keeps corners and straight sides', () => {
    const pot = parsePathData('M50 70L190 70L165 200C140 212 100 212 75 200Z')[0]!;
    const { points, corners } = walked(pot);
    const path = fitPath(points, { tolerance: 0.3, closed: true, corners });
    expect(path.anchors.length).toBe(4);
    expect([0, 1, 2, 3].map((i) => segmentIsLine(path, i))).toEqual([true, true, false, true]);
    for (const a of pot.anchors)
      expect(Math.min(...path.anchors.map((b) => distance(a, b)))).toBeLessThan(1e-9);
  });

  it('holds its tolerance whatever the points, and asks for two and for a tolerance', () => {
    const coordinate = fc.integer({ min: -300, max: 300 });
    fc.assert(
      fc.property(
        fc.array(fc.record({ x: coordinate, y: coordinate }), { minLength: 2, maxLength: 30 }),
        fc.boolean(),
        (points, closed) => {
          const path = fitPath(points, { tolerance: 1, closed });
          for (const a of path.anchors)
            for (const v of [a.x, a.y, a.in?.x ?? 0, a.out?.y ?? 0]) expect(Number.isFinite(v)).toBe(true);
          expect(off(path, points)).toBeLessThan(1.5);
        },
      ),
      { numRuns: 150, seed: 5 },
    );
    expect(() => fitPath([{ x: 0, y: 0 }], { tolerance: 1 })).toThrow('two points');
    const two = [{ x: 0, y: 0 }, { x: 9, y: 0 }]; // prettier-ignore
    expect(() => fitPath(two, { tolerance: 0 })).toThrow('above 0');
    expect(fitPath(two, { tolerance: 1 }).anchors.length).toBe(2);
  });

  it('goes no farther in one stretch than a corner', () => {
    const points = Array.from({ length: 41 }, (_, i) => (i < 20 ? { x: i, y: 0 } : { x: 20, y: i - 20 }));
    const s = farthestStretch(runOfPoints(points, [20]), 0, 40, { tolerance: 5 });
    expect(s.count).toBe(20);
    expect(s.worst).toBeLessThan(1e-9);
  });
});

describe('stray points', () => {
  it('do not end a stretch while they are few and not far, and do when they are many or far', () => {
    const random = seeded(8);
    const line = (stray: (i: number) => number): Point[] =>
      Array.from({ length: 201 }, (_, i) => ({ x: i, y: 0.2 * (random() - 0.5) + stray(i) }));
    const held = (points: readonly Point[], share: number): number =>
      farthestStretch(runOfPoints(points), 0, 200, { tolerance: 0.6, stray: share }).count;
    const few = line((i) => ([45, 90, 150, 175].includes(i) ? 0.75 : 0));
    expect(held(few, 0)).toBeLessThan(200);
    expect(held(few, 0.1)).toBe(200);
    expect(
      held(
        line((i) => ([45, 90, 150, 175].includes(i) ? 1.6 : 0)),
        0.06,
      ),
    ).toBeLessThan(200);
    expect(
      held(
        line((i) => (i % 6 === 3 ? 0.75 : 0)),
        0.06,
      ),
    ).toBeLessThan(200);
  });
});
