import { describe, expect, it } from 'vitest';
import { distance, type Point } from '../geometry/vector';
import { parsePathData } from '../path/data';
import { pointsAlong } from './clicking';
import { sharpenCorners } from './edge-corners';

/** Points along both sides of a wedge, a pixel apart, its tip rounded off by an arc. */
function wedge(apex: Point, degrees: number, radius: number): Point[] {
  const half = ((degrees / 2) * Math.PI) / 180;
  const side = (s: number): Point => ({ x: -Math.cos(half), y: s * Math.sin(half) });
  const [a, b] = [side(-1), side(1)];
  const cut = radius / Math.tan(half);
  const at = (d: Point, far: number): string => `${apex.x + far * d.x} ${apex.y + far * d.y}`;
  const data = `M${at(a, 90)}L${at(a, cut)}${cut > 0 ? `A${radius} ${radius} 0 0 1 ${at(b, cut)}` : ''}L${at(b, 90)}`;
  return pointsAlong(parsePathData(data)[0]!);
}

/** Standard deviation with which the edge was read, pixels. */
const SOFT = 1.5;

describe('where an edge’s track turns sharply', () => {
  it.each([60, 90, 120])('is a corner where blur alone took its tip off, at %d°', (degrees) => {
    const apex = { x: 100, y: 100 };
    // A radius that takes as much off as blur does: one softness over the tangent of half the angle.
    const half = ((degrees / 2) * Math.PI) / 180;
    const blunted = SOFT / Math.tan(half);
    const radius = blunted / (1 / Math.sin(half) - 1);
    const { corners, points } = sharpenCorners(wedge(apex, degrees, radius), SOFT);
    expect(corners).toHaveLength(1);
    expect(distance(points[corners[0]!]!, apex)).toBeLessThan(0.4);
  });

  it.each([80, 90, 110])('is none where the edge itself is round there, at %d°', (degrees) => {
    // Five times as much is taken off as blur takes.
    const half = ((degrees / 2) * Math.PI) / 180;
    const radius = (5 * SOFT) / Math.tan(half) / (1 / Math.sin(half) - 1);
    expect(sharpenCorners(wedge({ x: 100, y: 100 }, degrees, radius), SOFT).corners).toEqual([]);
  });

  it('is nowhere on a line that is straight, short, or empty', () => {
    const line = Array.from({ length: 80 }, (_, i) => ({ x: i, y: 0.5 * i }));
    for (const points of [line, line.slice(0, 3), []])
      expect(sharpenCorners(points, SOFT)).toEqual({ points, corners: [] });
  });
});
