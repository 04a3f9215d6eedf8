import { describe, expect, it } from 'vitest';
import { circlePath, seeded, squarePath } from '../testing';
import type { Point } from '../geometry/vector';
import { nearestOnPath } from '../path/path-measure';
import type { Raster } from '../picture/raster';
import { fieldTiles } from './field-tiles';
import { painted } from './testing';
import {
  edgeAsLearnt,
  isLeftOf,
  isOpen,
  nearestEdgePixel,
  startWire,
  stepCost,
  strongestNear,
  wireCost,
  wireTo,
  type Wire,
} from './live-wire';
import type { Training } from './learnt-edge';

const WAYS = [[1, 0], [1, 1], [0, 1], [-1, 1], [-1, 0], [-1, -1], [0, -1], [1, -1]] as const; // prettier-ignore

/** What a step onto a pixel costs that way. */
function stepOnto(
  wire: Pick<Wire, 'field' | 'half' | 'training'>,
  x: number,
  y: number,
  way: number,
): number {
  const { left, right, nx, ny } = edgeAsLearnt(wire, x, y);
  return stepCost(isLeftOf(nx, ny, way) ? left : right, nx, ny, way);
}

/** Source: Dijkstra, "A note on two problems in connexion with graphs" (1959), as plainly as can be. */
function plainly(wire: Pick<Wire, 'field' | 'half' | 'training'>, from: Point): Float64Array {
  const { width, height } = wire.field.raster;
  const cost = new Float64Array(width * height).fill(Infinity);
  const done = new Uint8Array(width * height);
  cost[from.y * width + from.x] = 0;
  for (;;) {
    let at = -1;
    for (let i = 0; i < cost.length; i++) if (!done[i] && cost[i]! < Infinity && (at < 0 || cost[i]! < cost[at]!)) at = i; // prettier-ignore
    if (at < 0) return cost;
    done[at] = 1;
    WAYS.forEach(([dx, dy], way) => {
      const [x, y] = [(at % width) + dx, Math.floor(at / width) + dy];
      if (x < 0 || y < 0 || x >= width || y >= height) return;
      const c = cost[at]! + stepOnto(wire, x, y, way);
      if (c < cost[y * width + x]!) cost[y * width + x] = c;
    });
  }
}

function noisy(width: number, height: number, seed: number): Raster {
  const random = seeded(seed);
  const data = new Uint8ClampedArray(width * height * 4).map((_, i) => (i % 4 === 3 ? 255 : 255 * random()));
  return { width, height, data };
}

describe('a live wire', () => {
  it.each([
    ['noise', noisy(25, 21, 3)],
    ['a disc', painted(30, 26, [{ path: circlePath(14, 13, 8), rgb: [40, 70, 60] }], [230, 220, 200], 10)],
    ['flat ground', painted(16, 12, [], [200, 200, 200])],
  ])('finds ways as cheap as plain Dijkstra on %s, whose steps add up', (_what, raster) => {
    for (const [kind, trained] of [
      ['edge', false],
      ['edge', true],
      ['line', false],
    ] as const) {
      const field = fieldTiles(raster, kind, 1.2);
      const from = { x: 5, y: 11 };
      // Trained by colours of no meaning, unlike on both sides: there and back cost another price then.
      const training: Training = {
        beside: 2,
        left: (x, y) => ((7 * x + 3 * y) % 10) / 10,
        right: (x, y) => ((2 * x + 5 * y) % 10) / 10,
        oriented: true,
      };
      const wire = startWire(field, from, 0.01, [], undefined, trained ? training : null);
      const cost = plainly(wire, from);
      for (let y = 0; y < raster.height; y++)
        for (let x = 0; x < raster.width; x++) {
          // A few pixels at a time, as moves of the pointer ask for them.
          let way = wireTo(wire, { x, y }, 7);
          while (!way) way = wireTo(wire, { x, y }, 7);
          expect(wireCost(wire, { x, y })).toBe(cost[y * raster.width + x]);
          expect(way[0]).toEqual(from);
          expect(way.at(-1)).toEqual({ x, y });
          let sum = 0;
          way.slice(1).forEach((p, i) => {
            const [dx, dy] = [p.x - way[i]!.x, p.y - way[i]!.y];
            sum += stepOnto(
              wire,
              p.x,
              p.y,
              WAYS.findIndex((w) => w[0] === dx && w[1] === dy),
            );
          });
          expect(sum).toBe(cost[y * raster.width + x]);
        }
    }
  });

  it('keeps to the border of a disc instead of cutting across', () => {
    const disc = circlePath(100, 100, 60);
    const field = fieldTiles(
      painted(200, 200, [{ path: disc, rgb: [40, 70, 60] }], [230, 220, 200], 12),
      'edge',
      1.5,
    );
    const from = strongestNear(field, { x: 163, y: 101 }, 6)!;
    const way = wireTo(startWire(field, from, 0.01), strongestNear(field, { x: 100, y: 37 }, 6)!)!;
    for (const p of way)
      expect(nearestOnPath(disc, { x: p.x + 0.5, y: p.y + 0.5 })!.distance).toBeLessThan(2);
    expect(way.length).toBeGreaterThan(60);
  });

  it('begins on the nearest edge, though a stronger one runs close by, or on none', () => {
    const bars = [
      { path: squarePath(40, -10, 200), rgb: [150, 150, 140] },
      { path: squarePath(52, -10, 200), rgb: [40, 40, 40] },
    ] as const;
    const field = fieldTiles(painted(100, 60, bars, [200, 200, 195]), 'edge', 1.5);
    expect(strongestNear(field, { x: 43, y: 30 }, 12)!.x).toBeGreaterThan(49);
    expect([39, 40]).toContain(nearestEdgePixel(field, { x: 43, y: 30 }, 12)!.x);
    expect([51, 52]).toContain(nearestEdgePixel(field, { x: 49, y: 30 }, 12)!.x);
    expect(nearestEdgePixel(field, { x: 10, y: 30 }, 12)).toBeNull();
    expect(nearestEdgePixel(field, { x: -50, y: 30 }, 12)).toBeNull();
  });

  it('has no way out of the picture nor out of its room', () => {
    const field = fieldTiles(painted(900, 20, [], [200, 200, 200]), 'edge', 1.5);
    const wire = startWire(field, { x: 10, y: 10 }, 0.01);
    expect(wireTo(wire, { x: 880, y: 10 })).toBeNull();
    expect(wireTo(wire, { x: 10, y: -3 })).toBeNull();
    expect(isOpen(wire, { x: 880, y: 10 })).toBe(false);
    // What is not worked out yet is open until it is, or nothing is left to work out.
    const other = startWire(field, { x: 10, y: 10 }, 0.01);
    expect(wireTo(other, { x: 90, y: 5 }, 3)).toBeNull();
    expect(isOpen(other, { x: 90, y: 5 })).toBe(true);
    wireTo(other, { x: 90, y: 5 });
    expect(isOpen(other, { x: 90, y: 5 })).toBe(false);
    expect(strongestNear(field, { x: -50, y: 10 }, 5)).toBeNull();
  });
});
