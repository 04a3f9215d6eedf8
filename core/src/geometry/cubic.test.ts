import { Bezier } from 'bezier-js';
import type Paper from 'paper';
import paperCore from 'paper/dist/paper-core.js';
import { describe, expect, it } from 'vitest';
import { randomCubic, seeded } from '../testing';
import {
  CIRCLE_HANDLE,
  cubicArea,
  cubicBounds,
  cubicDerivative,
  cubicLength,
  cubicPoint,
  cubicTangent,
  isStraight,
  lineCubic,
  selfCrossing,
  splitCubic,
  type Cubic,
} from './cubic';
import { flattenCubic, insideEvenOdd } from './flatten';
import { GAUSS_16, integrate } from './gauss';
import { nearestOnCubic } from './nearest';

const paper = paperCore as unknown as typeof Paper;
paper.setup([1, 1]);
const toBezier = (c: Cubic): Bezier => new Bezier(c.map((p) => ({ x: p.x, y: p.y })));
const toPaper = (c: Cubic): InstanceType<typeof Paper.Curve> =>
  new paper.Curve(
    new paper.Point(c[0].x, c[0].y),
    new paper.Point(c[1].x - c[0].x, c[1].y - c[0].y),
    new paper.Point(c[2].x - c[3].x, c[2].y - c[3].y),
    new paper.Point(c[3].x, c[3].y),
  );
const random = seeded(7);
const curves = Array.from({ length: 300 }, () => randomCubic(random));

// Reference: bezier-js and paper (open-source libraries) on 300 random curves.
describe('a cubic against bezier-js and paper', () => {
  it('has the same points and derivatives to 1e-9', () => {
    for (const c of curves) {
      for (const t of [0, 0.1, 0.37, 0.5, 0.99, 1]) {
        const b = toBezier(c);
        expect(cubicPoint(c, t).x).toBeCloseTo(b.get(t).x, 9);
        expect(cubicPoint(c, t).y).toBeCloseTo(b.get(t).y, 9);
        expect(cubicDerivative(c, t).x).toBeCloseTo(b.derivative(t).x, 9);
        const p = toPaper(c).getPointAtTime(t);
        expect(cubicPoint(c, t).y).toBeCloseTo(p.y, 9);
      }
    }
  });

  it('parts into the same halves to 1e-9', () => {
    for (const c of curves) {
      const t = random();
      const parts = splitCubic(c, t);
      const { left, right } = toBezier(c).split(t);
      left.points.forEach((p, i) => expect(parts[0][i]!.x).toBeCloseTo(p.x, 9));
      right.points.forEach((p, i) => expect(parts[1][i]!.y).toBeCloseTo(p.y, 9));
    }
  });

  it('has the same bounds to 1e-9', () => {
    for (const c of curves) {
      const { x, y } = toBezier(c).bbox();
      const b = cubicBounds(c);
      const strict = toPaper(c).bounds;
      for (const [ours, theirs] of [
        [b.x0, x.min], [b.x1, x.max], [b.y0, y.min], [b.y1, y.max],
        [b.x0, strict.left], [b.y1, strict.bottom],
      ] as const) expect(ours).toBeCloseTo(theirs, 9); // prettier-ignore
    }
  });

  it('has the same length to 1e-6', () => {
    // Both libraries use one quadrature of fixed order, too coarse near a cusp: they are asked piece by piece.
    for (const c of curves) {
      let rest = c;
      let paperLength = 0;
      let bezierLength = 0;
      for (let pieces = 64; pieces >= 1; pieces--) {
        const [piece, after] = splitCubic(rest, 1 / pieces);
        paperLength += toPaper(piece).length;
        bezierLength += toBezier(piece).length();
        rest = after;
      }
      expect(Math.abs(cubicLength(c) / paperLength - 1)).toBeLessThan(1e-6);
      expect(Math.abs(cubicLength(c) / bezierLength - 1)).toBeLessThan(1e-6);
    }
  });

  it('is never farther from a point than paper or bezier-js find it', () => {
    for (const c of curves) {
      const p = { x: random() * 140 - 20, y: random() * 140 - 20 };
      const ours = nearestOnCubic(c, p);
      const theirs = toPaper(c).getNearestLocation(new paper.Point(p.x, p.y)).distance;
      expect(ours.distance).toBeLessThanOrEqual(theirs + 1e-9);
      const foot = toBezier(c).project(p);
      expect(ours.distance).toBeLessThanOrEqual(Math.hypot(foot.x - p.x, foot.y - p.y) + 1e-9);
      expect(cubicPoint(c, ours.t).x).toBeCloseTo(ours.point.x, 12);
    }
  });

  it('is as near as the densest search finds, to 1e-6 of the curve’s size, tiny, huge, looped, cusped or collapsed', () => {
    const odd: Cubic[] = [
      ...curves.slice(0, 60),
      lineCubic({ x: 0, y: 0 }, { x: 90, y: 40 }),
      [{ x: 0, y: 0 }, { x: 100, y: 100 }, { x: 0, y: 100 }, { x: 100, y: 0 }],
      [{ x: 0, y: 0 }, { x: 100, y: 60 }, { x: 0, y: 60 }, { x: 100, y: 0 }],
      [{ x: 10, y: 10 }, { x: 10, y: 10 }, { x: 80, y: 40 }, { x: 80, y: 40 }],
      [{ x: 50, y: 50 }, { x: 50, y: 50 }, { x: 50, y: 50 }, { x: 50, y: 50 }],
    ]; // prettier-ignore
    for (const size of [1e-6, 1, 1e6])
      for (const c of odd) {
        const big = c.map((q) => ({ x: q.x * size, y: q.y * size })) as unknown as Cubic;
        const p = { x: (random() * 140 - 20) * size, y: (random() * 140 - 20) * size };
        const off = (t: number): number => {
          const q = cubicPoint(big, t);
          return Math.hypot(q.x - p.x, q.y - p.y);
        };
        let dense = Infinity;
        for (let i = 0; i <= 4000; i++) dense = Math.min(dense, off(i / 4000));
        const ours = nearestOnCubic(big, p);
        expect(ours.distance).toBeLessThanOrEqual(dense + 1e-6 * 100 * size);
        expect(Math.abs(off(ours.t) - ours.distance)).toBeLessThan(1e-9 * 100 * size);
      }
  });

  it('has the same area under it as paper', () => {
    for (const c of curves.slice(0, 50)) {
      const closed = new paper.Path({ closed: true });
      closed.addSegments([
        new paper.Segment(
          new paper.Point(c[0].x, c[0].y),
          undefined,
          new paper.Point(c[1].x - c[0].x, c[1].y - c[0].y),
        ),
        new paper.Segment(new paper.Point(c[3].x, c[3].y), new paper.Point(c[2].x - c[3].x, c[2].y - c[3].y)),
      ]);
      expect(cubicArea(c) + cubicArea(lineCubic(c[3], c[0]))).toBeCloseTo(closed.area, 6);
    }
  });
});

describe('a cubic at its edges', () => {
  it('stands for a circle within 2.73e-4 of the radius (published constant 0.5522847498)', () => {
    expect(CIRCLE_HANDLE).toBeCloseTo(0.5522847498, 10);
    const quarter: Cubic = [
      { x: 1, y: 0 },
      { x: 1, y: CIRCLE_HANDLE },
      { x: CIRCLE_HANDLE, y: 1 },
      { x: 0, y: 1 },
    ];
    let worst = 0;
    for (let i = 0; i <= 1000; i++) {
      const p = cubicPoint(quarter, i / 1000);
      worst = Math.max(worst, Math.abs(Math.hypot(p.x, p.y) - 1));
    }
    expect(worst).toBeLessThanOrEqual(2.73e-4);
    expect(worst).toBeGreaterThan(2.7e-4);
  });

  it('has no length and a defined nearest point when it is a single spot', () => {
    const p = { x: 3, y: 4 };
    const spot: Cubic = [p, p, p, p];
    expect(cubicLength(spot)).toBe(0);
    expect(nearestOnCubic(spot, { x: 0, y: 0 })).toMatchObject({ t: 0, distance: 5 });
  });

  it('has a tangent where a handle lies in its anchor', () => {
    const c: Cubic = [
      { x: 0, y: 0 },
      { x: 0, y: 0 },
      { x: 5, y: 5 },
      { x: 10, y: 0 },
    ];
    const t = cubicTangent(c, 0);
    expect(Math.atan2(t.y, t.x)).toBeCloseTo(Math.PI / 4, 9);
    const line = cubicTangent(
      [
        { x: 0, y: 0 },
        { x: 0, y: 0 },
        { x: 9, y: 0 },
        { x: 9, y: 0 },
      ],
      1,
    );
    expect(line.x).toBeGreaterThan(0);
  });

  it('keeps its relative exactness when huge or tiny', () => {
    for (const size of [1e-4, 1e6]) {
      const c = randomCubic(seeded(3), size);
      expect(cubicLength(c) / size).toBeCloseTo(cubicLength(randomCubic(seeded(3), 1)), 8);
    }
  });

  it('knows a line by its control points', () => {
    expect(isStraight(lineCubic({ x: 0, y: 0 }, { x: 7, y: 3 }))).toBe(true);
    expect(
      isStraight([
        { x: 0, y: 0 },
        { x: -1, y: 0 },
        { x: 2, y: 0 },
        { x: 3, y: 0 },
      ]),
    ).toBe(false);
    expect(
      isStraight([
        { x: 0, y: 0 },
        { x: 1, y: 0.1 },
        { x: 2, y: 0 },
        { x: 3, y: 0 },
      ]),
    ).toBe(false);
  });

  it('flattens within the tolerance asked', () => {
    for (const c of curves.slice(0, 60)) {
      const points = [c[0], ...flattenCubic(c, 0.05)];
      for (let i = 0; i <= 200; i++) {
        const p = cubicPoint(c, i / 200);
        const off = Math.min(
          ...points.slice(1).map((b, k) => nearestOnCubic(lineCubic(points[k]!, b), p).distance),
        );
        expect(off).toBeLessThanOrEqual(0.05);
      }
    }
  });
});

it('uses the abscissae and weights of Abramowitz & Stegun, table 25.4 (n = 16)', () => {
  // Cross-checked by what defines them: weights add up to 2, and x^k is integrated exactly up to k = 31.
  expect(2 * GAUSS_16.reduce((s, [, w]) => s + w, 0)).toBeCloseTo(2, 14);
  expect(GAUSS_16[0]).toEqual([0.095012509837637, 0.189450610455069]);
  expect(GAUSS_16[7]).toEqual([0.98940093499165, 0.027152459411754]);
  for (let k = 0; k <= 31; k++) expect(integrate((x) => x ** k, 0, 1)).toBeCloseTo(1 / (k + 1), 13);
});

it('tells inside from outside under the even-odd rule, holes out', () => {
  const square = (a: number, b: number): { x: number; y: number }[] => [
    { x: a, y: a }, { x: b, y: a }, { x: b, y: b }, { x: a, y: b },
  ]; // prettier-ignore
  const ring = [square(0, 10), square(3, 7)];
  expect(insideEvenOdd(ring, { x: 1, y: 1 })).toBe(true);
  expect(insideEvenOdd(ring, { x: 5, y: 5 })).toBe(false);
  expect(insideEvenOdd(ring, { x: 11, y: 5 })).toBe(false);
  expect(insideEvenOdd([], { x: 0, y: 0 })).toBe(false);
});

describe('where a cubic crosses itself', () => {
  it('is as paper.js finds it, both passages at one place', () => {
    // Source outside: paper.js, Curve.classify (after Loop and Blinn, 2005).
    type Classified = { classify(): { type: string; roots: number[] | null } };
    let loops = 0;
    for (let i = 0; i < 2000; i++) {
      const c = randomCubic(random);
      const own = selfCrossing(c);
      const { type, roots } = (toPaper(c) as unknown as Classified).classify();
      const theirs = type === 'loop' && roots && roots.every((t) => t >= 0 && t <= 1) ? [...roots].sort((a, b) => a - b) : null; // prettier-ignore
      if (own) {
        loops++;
        const [a, b] = own.map((t) => cubicPoint(c, t));
        expect(Math.hypot(a!.x - b!.x, a!.y - b!.y)).toBeLessThan(1e-9 * 100);
      }
      expect(own === null, `curve ${i}`).toBe(theirs === null);
      own?.forEach((t, k) => expect(t).toBeCloseTo(theirs![k]!, 6));
    }
    expect(loops).toBeGreaterThan(50);
  });

  it('is told where the handles’ lines do not cross, and is nowhere on a straight or simple one', () => {
    const hook: Cubic = [{ x: 70, y: 80 }, { x: 69, y: 92.9 }, { x: 76.4, y: 77.1 }, { x: 60, y: 80 }]; // prettier-ignore
    expect(selfCrossing(hook)).not.toBeNull();
    expect(selfCrossing(lineCubic({ x: 0, y: 0 }, { x: 9, y: 3 }))).toBeNull();
    expect(
      selfCrossing([
        { x: 0, y: 0 },
        { x: 0, y: 5 },
        { x: 5, y: 10 },
        { x: 10, y: 10 },
      ]),
    ).toBeNull();
  });
});
