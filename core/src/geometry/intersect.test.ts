import { Bezier } from 'bezier-js';
import * as kld from 'kld-intersections';
import type Paper from 'paper';
import paperCore from 'paper/dist/paper-core.js';
import { describe, expect, it } from 'vitest';
import { randomCubic, seeded } from '../testing';
import { cubicPoint, lineCubic, splitCubic, type Cubic } from './cubic';
import {
  cubicIntersections,
  cubicLineIntersections,
  lineCircleIntersections,
  lineIntersection,
} from './intersect';
import { cubicOverlap } from './overlap';
import { solveLinear } from './linear';
import { solveCyclic, solveTridiagonal } from './tridiagonal';
import { unit } from './vector';

const paper = paperCore as unknown as typeof Paper;
paper.setup([1, 1]);
const { Intersection, ShapeInfo } = kld;

const paperCurve = (c: Cubic): InstanceType<typeof paper.Curve> =>
  new paper.Curve(
    new paper.Point(c[0].x, c[0].y),
    new paper.Point(c[1].x - c[0].x, c[1].y - c[0].y),
    new paper.Point(c[2].x - c[3].x, c[2].y - c[3].y),
    new paper.Point(c[3].x, c[3].y),
  );

describe('crossings of two cubics', () => {
  it('are those that paper and kld-intersections find on random pairs', () => {
    const random = seeded(11);
    let crossings = 0;
    for (let i = 0; i < 120; i++) {
      const [a, b] = [randomCubic(random), randomCubic(random)];
      const ours = cubicIntersections(a, b);
      const theirs = Intersection.intersect(
        ShapeInfo.cubicBezier(...a.flatMap((p) => [p.x, p.y])),
        ShapeInfo.cubicBezier(...b.flatMap((p) => [p.x, p.y])),
      ).points;
      const papers = paperCurve(a).getIntersections(paperCurve(b));
      expect(ours.length, `pair ${i}`).toBe(papers.length);
      expect(ours.length, `pair ${i}`).toBe(theirs.length);
      for (const { point, t, u } of ours) {
        expect(
          Math.min(...papers.map((p) => Math.hypot(p.point.x - point.x, p.point.y - point.y))),
        ).toBeLessThan(1e-6);
        const q = cubicPoint(b, u);
        expect(Math.hypot(q.x - point.x, q.y - point.y)).toBeLessThan(1e-8);
        expect(cubicPoint(a, t)).toEqual(point);
      }
      crossings += ours.length;
    }
    expect(crossings).toBeGreaterThan(60);
  });

  it('are the ends of the stretch on which two lie on each other', () => {
    const random = seeded(23);
    for (let i = 0; i < 60; i++) {
      const whole = randomCubic(random);
      // Two pieces of one curve (de Casteljau), of which the second begins before the first ends.
      const [from, to] = [0.2 + 0.2 * random(), 0.6 + 0.2 * random()];
      const a = splitCubic(whole, to)[0];
      const piece = splitCubic(whole, from)[1];
      const b = i % 2 === 0 ? piece : ([...piece].reverse() as unknown as Cubic);
      const { t, u } = cubicOverlap(a, b)!;
      expect(t[0]).toBeCloseTo(from / to, 6);
      expect(t[1]).toBe(1);
      const middle = (to - from) / (1 - from);
      expect(u[0]).toBeCloseTo(i % 2 === 0 ? 0 : 1, 9);
      expect(u[1]).toBeCloseTo(i % 2 === 0 ? middle : 1 - middle, 6);
      expect(cubicIntersections(a, b).map((c) => c.t)).toEqual([...t]);
    }
    const [line, further] = [
      lineCubic({ x: 0, y: 0 }, { x: 10, y: 5 }),
      lineCubic({ x: 20, y: 10 }, { x: 4, y: 2 }),
    ];
    expect(cubicIntersections(line, further).map(({ point }) => [point.x, point.y])).toEqual([[expect.closeTo(4, 6), expect.closeTo(2, 6)], [10, 5]]); // prettier-ignore
    expect(cubicOverlap(line, line)).toEqual({ t: [0, 1], u: [0, 1] });
    // One beside the other, and two that share their ends only, do not.
    const beside = line.map((p) => ({ x: p.x, y: p.y + 1e-3 })) as unknown as Cubic;
    expect(cubicOverlap(line, beside)).toBeNull();
    const bow = [line[0], { x: 3, y: 8 }, { x: 6, y: 8 }, line[3]] as Cubic;
    expect(cubicOverlap(line, bow)).toBeNull();
    expect(cubicIntersections(line, bow)).toHaveLength(2);
  });

  it('are both of two that lie two ten-thousandths apart', () => {
    // A parabola cut just under its top by a level line: by symmetry their parameters add up to one.
    const arch = [{ x: 0, y: 0 }, { x: 10 / 3, y: 10 }, { x: 20 / 3, y: 10 }, { x: 10, y: 0 }] as const; // prettier-ignore
    const top = cubicPoint(arch, 0.5).y;
    for (const under of [3e-8, 1e-6, 1e-4]) {
      const y = top - under;
      const level = lineCubic({ x: -1, y }, { x: 11, y });
      const met = cubicIntersections(arch, level);
      expect(met, `${under}`).toHaveLength(2);
      expect(met[0]!.t + met[1]!.t).toBeCloseTo(1, 6);
      expect(cubicPoint(arch, met[0]!.t).y).toBeCloseTo(y, 9);
    }
  });

  it('are none for curves apart, one for ends that meet at an angle, none where curves run hardly beside each other', () => {
    const a = lineCubic({ x: 0, y: 0 }, { x: 10, y: 0 });
    expect(cubicIntersections(a, lineCubic({ x: 0, y: 1 }, { x: 10, y: 1 }))).toEqual([]);
    expect(cubicIntersections(a, lineCubic({ x: 10, y: 0 }, { x: 10, y: 10 }))).toMatchObject([
      { t: 1, u: 0 },
    ]);
    expect(cubicIntersections(a, lineCubic({ x: 0, y: 1e-7 }, { x: 10, y: 1e-7 }))).toEqual([]);
    expect(cubicIntersections(a, [a[0], a[0], a[0], a[0]])).toEqual([]);
  });
});

describe('crossings with lines and circles', () => {
  it('of a cubic and a line are those of bezier-js', () => {
    const random = seeded(5);
    for (let i = 0; i < 200; i++) {
      const c = randomCubic(random);
      const p = { x: random() * 100, y: random() * 100 };
      const u = unit({ x: random() - 0.5, y: random() - 0.5 })!;
      const far = 1000;
      const line = {
        p1: { x: p.x - u.x * far, y: p.y - u.y * far },
        p2: { x: p.x + u.x * far, y: p.y + u.y * far },
      };
      const theirs = (new Bezier(...c).lineIntersects(line) as number[]).sort((x, y) => x - y);
      const ours = cubicLineIntersections(c, p, u);
      expect(ours.length).toBe(theirs.length);
      ours.forEach(({ t }, k) => expect(t).toBeCloseTo(theirs[k]!, 6));
    }
  });

  it('of lines and circles are where school geometry has them', () => {
    expect(lineIntersection({ x: 0, y: 1 }, { x: 1, y: 0 }, { x: 2, y: 9 }, { x: 0, y: 1 })).toEqual({
      x: 2,
      y: 1,
    });
    expect(lineIntersection({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 0, y: 1 }, { x: 1, y: 0 })).toBeNull();
    expect(lineCircleIntersections({ x: 0, y: 3 }, { x: 1, y: 0 }, { x: 0, y: 0 }, 5)).toEqual([
      { x: -4, y: 3 },
      { x: 4, y: 3 },
    ]);
    expect(lineCircleIntersections({ x: 0, y: 6 }, { x: 1, y: 0 }, { x: 0, y: 0 }, 5)).toEqual([]);
  });
});

describe('tridiagonal systems', () => {
  const random = seeded(3);
  const dense = (
    b: ArrayLike<number>,
    o: ArrayLike<number>,
    a: ArrayLike<number>,
    round: boolean,
  ): number[][] => {
    const n = o.length;
    const rows = Array.from({ length: n }, () => new Array<number>(n).fill(0));
    for (let i = 0; i < n; i++) {
      rows[i]![i]! += o[i]!;
      if (round || i > 0) rows[i]![(i - 1 + n) % n]! += b[i]!;
      if (round || i < n - 1) rows[i]![(i + 1) % n]! += a[i]!;
    }
    return rows;
  };
  it('are solved as Gaussian elimination of the whole matrix solves them, open and cyclic', () => {
    for (const n of [1, 2, 3, 4, 17])
      for (const round of [false, true]) {
        if (round && n === 1) continue;
        const before = Float64Array.from({ length: n }, () => random());
        const after = Float64Array.from({ length: n }, () => random());
        const on = Float64Array.from({ length: n }, () => 2.5 + random());
        const right = Array.from({ length: n }, () => random());
        const x = (round ? solveCyclic : solveTridiagonal)({ before, on, after }, right)!;
        solveLinear(dense(before, on, after, round), right)!.forEach((v, i) =>
          expect(x[i]).toBeCloseTo(v, 12),
        );
      }
  });
  it('have no answer when a row says nothing', () => {
    const zero = new Float64Array(3);
    expect(solveTridiagonal({ before: zero, on: zero, after: zero }, [1, 1, 1])).toBeNull();
  });
});
