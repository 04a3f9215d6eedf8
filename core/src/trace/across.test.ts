import { describe, expect, it } from 'vitest';
import { transformPath } from '../path/path-map';
import { parsePathData } from '../path/data';
import { squarePath } from '../testing';
import { crossedEdges } from './across';
import { fieldTiles } from './field-tiles';
import { painted } from './testing';

const fieldOf = (bar: ReturnType<typeof squarePath>, grain = 0) =>
  fieldTiles(painted(160, 160, [{ path: bar, rgb: [40, 70, 60] }], [235, 228, 210], grain), 'edge', 1.2);

// Truth: bars of a known width, level and turned, as they were painted.
describe('a line drawn across the picture', () => {
  it.each([3, 5, 8.4, 20])('tells the width of a stroke %d px wide, straight over it or aslant', (wide) => {
    const bar = parsePathData(
      `M10 ${80 - wide / 2}L150 ${80 - wide / 2}L150 ${80 + wide / 2}L10 ${80 + wide / 2}Z`,
    )[0]!;
    for (const angle of [0, 0.4, 1.1])
      for (const aslant of [0, 0.5]) {
        const turned = transformPath(bar, [Math.cos(angle), Math.sin(angle), -Math.sin(angle), Math.cos(angle), 80 - 80 * Math.cos(angle) + 80 * Math.sin(angle), 80 - 80 * Math.sin(angle) - 80 * Math.cos(angle)]); // prettier-ignore
        const a = angle + Math.PI / 2 + aslant;
        const d = { x: 30 * Math.cos(a), y: 30 * Math.sin(a) };
        const got = crossedEdges(
          fieldOf(turned, 6),
          { x: 80 - d.x, y: 80 - d.y },
          { x: 80 + d.x, y: 80 + d.y },
        );
        expect(got.edges.length).toBe(2);
        // 3 % of it, or a fifth of a pixel where that is more.
        expect(Math.abs(got.width! - wide)).toBeLessThan(Math.max(0.2, 0.03 * wide));
      }
  });

  it('counts all edges, and takes the two about its middle', () => {
    const field = fieldTiles(painted(160, 60, [20, 60, 110].map((x) => ({ path: transformPath(squarePath(0, 0, 10), [1, 0, 0, 4, x, 10]), rgb: [40, 70, 60] as const })), [235, 228, 210]), 'edge', 1.2); // prettier-ignore
    const got = crossedEdges(field, { x: 5, y: 30 }, { x: 130, y: 30 });
    expect(got.edges.map((e) => Math.round(e + 5))).toEqual([20, 30, 60, 70, 110, 120]);
    expect(got.between).toEqual([2, 3]);
    expect(got.width).toBeCloseTo(10, 1);
  });

  it('finds nothing on flat ground, outside, or along no line', () => {
    const field = fieldOf(squarePath(60, 60, 40));
    expect(crossedEdges(field, { x: 5, y: 5 }, { x: 40, y: 9 })).toEqual({
      edges: [],
      width: null,
      between: null,
    });
    expect(crossedEdges(field, { x: 500, y: 5 }, { x: 900, y: 9 }).edges).toEqual([]);
    expect(crossedEdges(field, { x: 5, y: 5 }, { x: 5, y: 5 }).edges).toEqual([]);
    // One edge alone has no width.
    expect(crossedEdges(field, { x: 40, y: 80 }, { x: 80, y: 80 })).toMatchObject({
      width: null,
      between: null,
    });
  });
});
