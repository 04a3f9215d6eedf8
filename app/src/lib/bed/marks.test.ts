import { describe, expect, it } from 'vitest';
import { corner, type Anchor, type Path, type Point } from '@mirrot/core';
import { anchorMark, handleMark } from './marks';
import { smooth, square } from './testing';

/** All points of a mark's path data. */
const pointsOf = (d: string): Point[] =>
  [...d.matchAll(/(-?\d+\.\d+) (-?\d+\.\d+)/g)].map(([, x, y]) => ({ x: Number(x), y: Number(y) }));
const far = (d: string, p: Point): number[] => pointsOf(d).map((q) => Math.hypot(q.x - p.x, q.y - p.y));
const at = { x: 300, y: 200 };
const path = (...anchors: Anchor[]): Path => ({ id: 'p', closed: false, anchors });
const line = (kind: Anchor['kind']): Path =>
  path(corner(0, 0), { ...smooth(50, 0, { x: 20, y: 0 }), kind }, corner(100, 0));

// DESIGN, Marks on the bed: beside the line, 5 px clear at the anchor, 11 px long, form tells the kind.
describe('marks of anchors', () => {
  it('stand beside the line and leave the anchor clear', () => {
    for (const kind of ['smooth', 'flowing'] as const) {
      const d = anchorMark(line(kind), 1, at);
      expect(Math.min(...far(d, at))).toBeGreaterThan(5);
      // The line runs level through the anchor: nothing of the mark lies on it.
      for (const p of pointsOf(d)) expect(Math.abs(p.y - at.y)).toBeGreaterThanOrEqual(5);
    }
    expect(Math.min(...far(anchorMark(square('s', 0, 0, 80), 0, at), at))).toBeGreaterThan(5);
  });

  it('tell the kind by their form: straight rails, bowed rails, a chevron', () => {
    expect(anchorMark(line('smooth'), 1, at)).toMatch(/^M[^Q]*L[^Q]*M[^Q]*L[^Q]*$/);
    expect(anchorMark(line('flowing'), 1, at).match(/Q/g)).toHaveLength(2);
    expect(pointsOf(anchorMark(square('s', 0, 0, 80), 0, at))).toHaveLength(3);
  });

  it('have smooth rails 11 px long, one each side, along the tangent', () => {
    const slanted = path(corner(0, 0), smooth(50, 50, { x: 10, y: 10 }), corner(100, 100));
    const [a, b, c, d] = pointsOf(anchorMark(slanted, 1, at)) as [Point, Point, Point, Point];
    for (const [p, q] of [
      [a, b],
      [c, d],
    ] as const) {
      expect(Math.hypot(q.x - p.x, q.y - p.y)).toBeCloseTo(11, 1);
      expect(q.x - p.x).toBeCloseTo(q.y - p.y, 1);
    }
    // Opposite each other about the anchor.
    expect((a.x + b.x + c.x + d.x) / 4).toBeCloseTo(at.x, 1);
    expect((a.y + b.y + c.y + d.y) / 4).toBeCloseTo(at.y, 1);
  });

  it('put a corner’s chevron on its outer side, opened by a right angle', () => {
    // The top left corner of a square: outside is up and left.
    const [arm, tip, other] = pointsOf(anchorMark(square('s', 0, 0, 80), 0, at)) as [Point, Point, Point];
    expect(tip.x).toBeLessThan(at.x);
    expect(tip.y).toBeLessThan(at.y);
    const u = { x: arm.x - tip.x, y: arm.y - tip.y };
    const v = { x: other.x - tip.x, y: other.y - tip.y };
    expect(Math.abs(u.x * v.x + u.y * v.y)).toBeLessThan(0.2);
  });

  it('close their rails when handles are equal, and are doubled when shared with a neighbour', () => {
    const of = (values: Partial<Anchor>): string =>
      anchorMark(path(corner(0, 0), { ...smooth(50, 0, { x: 20, y: 0 }), ...values }, corner(100, 0)), 1, at);
    const plain = of({});
    const equal = of({ equal: true });
    expect(plain.match(/M/g)).toHaveLength(2);
    expect(equal.match(/M/g)).toHaveLength(6);
    // The ticks point away from the line.
    for (const p of pointsOf(equal)) expect(Math.abs(p.y - at.y)).toBeGreaterThanOrEqual(5);
    const shared = of({ shared: 'k' });
    expect(shared.startsWith(plain)).toBe(true);
    expect(pointsOf(shared)).toHaveLength(8);
    expect(Math.max(...pointsOf(shared).map((p) => Math.abs(p.y - at.y)))).toBeGreaterThan(
      Math.max(...pointsOf(plain).map((p) => Math.abs(p.y - at.y))) + 3,
    );
  });

  it('are shorter rails in a straight run, and grow under the pointer', () => {
    const straight = path(corner(0, 0), corner(50, 0), corner(100, 0));
    const [a, b] = pointsOf(anchorMark(straight, 1, at)) as [Point, Point];
    expect(Math.hypot(b.x - a.x, b.y - a.y)).toBeCloseTo(7, 1);
    const small = far(anchorMark(line('smooth'), 1, at), at);
    const large = far(anchorMark(line('smooth'), 1, at, 1.25), at);
    small.forEach((r, i) => expect(large[i]! / r).toBeCloseTo(1.25, 1));
  });

  it('are there for a lone anchor and for ends, beyond the line', () => {
    expect(anchorMark(path(corner(5, 5)), 0, at)).toMatch(/^M/);
    const ends = path(corner(0, 0), corner(100, 0));
    for (const p of pointsOf(anchorMark(ends, 1, at))) expect(p.x).toBeGreaterThanOrEqual(at.x - 0.5);
    for (const p of pointsOf(anchorMark(ends, 0, at))) expect(p.x).toBeLessThanOrEqual(at.x + 0.5);
  });

  it('are there where two anchors lie on one spot, of any kind', () => {
    for (const kind of ['corner', 'smooth', 'flowing'] as const) {
      const doubled = path(
        corner(0, 0),
        { ...corner(50, 0), kind },
        { ...corner(50, 0), kind },
        corner(100, 30),
      );
      for (const i of [1, 2]) expect(anchorMark(doubled, i, at)).toMatch(/^M[-\d]/);
    }
  });
});

describe('marks of handles', () => {
  it('are a hairline from beside the anchor and a 9 px crossbar at right angles', () => {
    const { line: hair, bar } = handleMark(at, { x: 340, y: 200 });
    const [from, to] = pointsOf(hair) as [Point, Point];
    expect(from.x - at.x).toBeCloseTo(5.5, 1);
    expect(to).toEqual({ x: 340, y: 200 });
    const [a, b] = pointsOf(bar) as [Point, Point];
    expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeCloseTo(9, 1);
    expect(a.x).toBeCloseTo(b.x, 6);
  });

  it('are defined for a handle of no length', () => {
    expect(handleMark(at, at).bar).not.toContain('NaN');
  });
});
