import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { anchor, circlePath, seeded, squarePath } from '../testing';
import { formatPathData } from './data';
import { nearestOnPath, pathLength } from './path-measure';

import type { Path } from './path';
import { seenLines, type LaidLines } from './seen-lines';
import { blob } from './testing';

const area = (...paths: Path[]): LaidLines => ({ paths, hides: true });
const line = (...paths: Path[]): LaidLines => ({ paths, hides: false });
const open = (id: string, ...points: readonly (readonly [number, number])[]): Path => ({ id, closed: false, anchors: points.map(([x, y]) => anchor(x, y)) }); // prettier-ignore
const see = (...laid: LaidLines[]): readonly Path[][] => seenLines(laid, (n) => `new${n}`);
const lengths = (paths: readonly (readonly Path[])[]): number[] =>
  paths.map((own) => Number(own.reduce((sum, path) => sum + pathLength(path), 0).toFixed(6)));

describe('the lines that are seen', () => {
  it('are all of them, and the very paths, where nothing lies over anything', () => {
    const [a, b] = [squarePath(0, 0, 10, 'a'), circlePath(30, 5, 5)];
    const seen = see(area(a), area(b), line(open('l', [0, 20], [30, 20])));
    expect(seen[0]![0]).toBe(a);
    expect(seen[1]![0]).toBe(b);
    expect(see()).toEqual([]);
    expect(see(area({ id: 'one', closed: false, anchors: [anchor(1, 1)] }))).toHaveLength(1);
  });

  it('end where an area above them begins; an area beneath takes nothing', () => {
    const [low, high] = [squarePath(0, 0, 10, 'low'), squarePath(5, 5, 10, 'high')];
    expect(lengths(see(area(low), area(high)))).toEqual([30, 40]);
    expect(see(area(low), area(high))[0]).toMatchObject([{ id: 'low', closed: false }]);
    expect(lengths(see(line(open('l', [-5, 8], [20, 8])), area(high)))).toEqual([15, 40]);
    expect(lengths(see(area(high), line(open('l', [-5, 8], [20, 8]))))).toEqual([40, 25]);
    expect(lengths(see(area(squarePath(6, 6, 2, 'in')), area(high)))).toEqual([0, 40]);
  });

  it('show through holes, and are cut into pieces with names of their own', () => {
    const ring = area(squarePath(0, 0, 30, 'outer'), squarePath(10, 10, 10, 'hole'));
    const [crossing] = see(line(open('l', [-5, 15], [35, 15])), ring);
    const whole = (v: number): number => Number(v.toFixed(9)) || 0;
    expect(crossing!.map(({ id, anchors }) => [id, whole(anchors[0]!.x), whole(anchors.at(-1)!.x)])).toEqual([['l', -5, 0], ['new0', 10, 20], ['new1', 30, 35]]); // prettier-ignore
  });

  it('are drawn once where borders are in common, by the topmost', () => {
    expect(lengths(see(area(squarePath(0, 0, 10, 'a')), area(squarePath(10, 0, 10, 'b'))))).toEqual([30, 40]);
    expect(lengths(see(area(squarePath(0, 0, 10, 'a')), area(squarePath(0, 0, 10, 'b'))))).toEqual([0, 40]);
    expect(lengths(see(line(open('a', [0, 0], [10, 0])), line(open('b', [4, 0], [20, 0]))))).toEqual([4, 16]);
  });

  it('leaves the line that only a fill closes undrawn, as it was', () => {
    const bent = open('u', [0, 0], [0, 10], [10, 10], [10, 0]);
    expect(see(area(bent))[0]![0]).toBe(bent);
    expect(lengths(see(area(bent), area(squarePath(-5, 8, 30, 'over'))))[0]).toBe(16);
  });

  // Source outside: resvg, which paints the areas one over another; where its colours change there is a seen line, and
  // nowhere else.
  it('are where painted areas border on each other', () => {
    const random = seeded(5);
    const SIZE = 300;
    for (let round = 0; round < 6; round++) {
      const laid = Array.from({ length: 6 }, (_, k) => {
        const path = blob(random, `p${k}`, 160 + 60 * random());
        const [dx, dy] = [60 + 180 * random(), 60 + 180 * random()];
        return { ...path, anchors: path.anchors.map((a) => ({ ...a, x: a.x + dx, y: a.y + dy })) };
      });
      const seen = see(...laid.map((path) => area(path))).flat();
      const shapes = laid.map((path, k) => `<path d="${formatPathData([path])}" fill="#${(0x202020 * (k + 1)).toString(16)}" fill-rule="evenodd"/>`); // prettier-ignore
      const { pixels, width } = new Resvg(`<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE}" height="${SIZE}"><rect width="100%" height="100%" fill="#fff"/>${shapes.join('')}</svg>`, { shapeRendering: 1 }).render(); // prettier-ignore
      const at = (x: number, y: number): number => pixels[4 * (y * width + x)]!;
      let [missed, borders] = [0, 0];
      for (let y = 1; y < SIZE; y++)
        for (let x = 1; x < SIZE; x++) {
          if (at(x, y) === at(x - 1, y)) continue;
          borders++;
          if (!seen.some((path) => nearestOnPath(path, { x, y: y + 0.5 }, 1.5))) missed++;
        }
      expect(borders).toBeGreaterThan(200);
      expect(missed / borders).toBeLessThan(0.01);
      // No seen line runs where the colours on both of its sides are the same.
      let [idle, looked] = [0, 0];
      for (const path of seen)
        for (const { x, y } of path.anchors) {
          const [px, py] = [Math.round(x), Math.round(y)];
          if (px < 4 || py < 4 || px > SIZE - 5 || py > SIZE - 5) continue;
          looked++;
          const around = Array.from({ length: 25 }, (_, k) =>
            at(px - 2 + (k % 5), py - 2 + Math.floor(k / 5)),
          );
          if (new Set(around).size === 1) idle++;
        }
      expect(looked).toBeGreaterThan(10);
      expect(idle).toBe(0);
    }
  });
});
