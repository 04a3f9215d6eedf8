import { expect, it } from 'vitest';
import { seeded } from '../seed';
import type { Point } from '../geometry/vector';
import { evenSidesMeet, sidesMeet, type OnSide } from './sides-meet';

const side = (points: readonly Point[], i: number, way: 1 | -1, near: number, count: number): OnSide[] =>
  Array.from({ length: count }, (_, k) => ({ s: way * (near + k), p: points[i + way * (near + k)]! }));

it('finds where two straight sides meet, and how much the way turns there', () => {
  const before = [10, 8, 6, 4].map((s) => ({ s: -s, p: { x: 100 - s, y: 50 } }));
  const after = [4, 6, 8, 10].map((s) => ({ s, p: { x: 100, y: 50 + s } }));
  const met = sidesMeet(before.toReversed(), after)!;
  expect(met.at.x).toBeCloseTo(100, 9);
  expect(met.at.y).toBeCloseTo(50, 9);
  expect(met.turn).toBeCloseTo(Math.PI / 2, 9);
});

it('finds none where the sides run side by side', () => {
  const along = (y: number, way: 1 | -1): OnSide[] =>
    [4, 5, 6, 7].map((s) => ({ s: way * s, p: { x: s, y } }));
  expect(sidesMeet(along(0, -1), along(3, 1))).toBeNull();
});

it('tells the same for many points of a line at once as for each by itself', () => {
  const random = seeded(17);
  let way = 0;
  const points: Point[] = [{ x: 1800, y: 950 }];
  for (let i = 0; i < 400; i++) {
    way += i % 70 === 0 ? 1.2 : 0.1 * (random() - 0.5);
    const { x, y } = points.at(-1)!;
    points.push({ x: x + Math.cos(way), y: y + Math.sin(way) });
  }
  for (const [near, count] of [
    [2, 5],
    [7, 16],
    [12, 4],
    [9, 2],
  ] as const) {
    // prettier-ignore
    const meet = evenSidesMeet(near, count, 1);
    for (let i = near + count; i + near + count < points.length; i += 7) {
      const whole = sidesMeet(side(points, i, -1, near, count), side(points, i, 1, near, count));
      const even = meet(points, i);
      expect(even === null).toBe(whole === null);
      if (!whole || !even) continue;
      expect(even.turn).toBeCloseTo(whole.turn, 6);
      // Nearly parallel sides meet far off: what is left of the digits grows as far.
      const far = Math.hypot(whole.at.x - points[i]!.x, whole.at.y - points[i]!.y);
      expect(Math.hypot(even.at.x - whole.at.x, even.at.y - whole.at.y)).toBeLessThan(1e-9 * (1 + far ** 2));
    }
  }
});
