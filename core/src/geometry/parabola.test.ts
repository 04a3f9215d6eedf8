import { describe, expect, it } from 'vitest';
import { seeded } from '../seed';
import { solveLinear } from './linear';
import { nearestParabola } from './parabola';

describe('the parabola nearest to points', () => {
  it('is the one they lie on, far from the origin too', () => {
    const at = (s: number) => ({ x: 5e5 + 2 * s - 0.03 * s * s, y: -3e5 + 0.5 * s + 0.1 * s * s });
    const { curve } = nearestParabola([3, 5, 6, 9, 11].map((s) => ({ s, p: at(s) })));
    expect(curve.at.x).toBeCloseTo(5e5, 6);
    expect(curve.slope.x).toBeCloseTo(2, 6);
    expect(curve.slope.y).toBeCloseTo(0.5, 6);
    expect(curve.bend.y).toBeCloseTo(0.1, 6);
  });

  // Reference: the normal equations solved by elimination.
  it('has the least squares, as the line has', () => {
    const random = seeded(61);
    const rows = Array.from({ length: 14 }, (_, k) => ({ s: k - 4 + random(), p: { x: 9 * random(), y: 9 * random() } })); // prettier-ignore
    const sum = (f: (s: number, y: number) => number): number =>
      rows.reduce((t, { s, p }) => t + f(s, p.y), 0);
    const power = (k: number): number => sum((s) => s ** k);
    const moment = (k: number): number => sum((s, y) => y * s ** k);
    const [c, b, a] = solveLinear(
      [0, 1, 2].map((i) => [0, 1, 2].map((j) => power(i + j))),
      [0, 1, 2].map(moment),
    )!;
    const [d, e] = solveLinear(
      [0, 1].map((i) => [0, 1].map((j) => power(i + j))),
      [0, 1].map(moment),
    )!;
    const { line, curve } = nearestParabola(rows);
    [curve.at.y, curve.slope.y, curve.bend.y].forEach((v, i) => expect(v).toBeCloseTo([c!, b!, a!][i]!, 8));
    [line.at.y, line.slope.y].forEach((v, i) => expect(v).toBeCloseTo([d!, e!][i]!, 8));
  });

  it('is a line where there is no more to go by', () => {
    const two = nearestParabola([{ s: 0, p: { x: 1, y: 1 } }, { s: 2, p: { x: 5, y: 1 } }]); // prettier-ignore
    expect(two.curve).toEqual(two.line);
    expect(two.line).toMatchObject({ at: { x: 1, y: 1 }, slope: { x: 2, y: 0 } });
    const heap = nearestParabola(Array.from({ length: 6 }, () => ({ s: 3, p: { x: 7, y: 8 } })));
    expect(heap.curve.at).toEqual({ x: 7, y: 8 });
  });
});
