import paperCore from 'paper/dist/paper-core.js';
import type Paper from 'paper';
import { describe, expect, it } from 'vitest';
import { insideEvenOdd } from '../geometry/flatten';
import { circlePath, seeded, squarePath } from '../testing';
import { formatPathData, parsePathData } from './data';
import { evenOddPaths } from './even-odd';
import type { Path } from './path';
import { reversePath } from './path-map';
import { flattenPath } from './path-measure';

const paper = paperCore as unknown as typeof Paper;
paper.setup([1, 1]);
const idOf = (n: number): string => `new${n}`;

describe('the nonzero rule turned into the even-odd rule', () => {
  it('leaves outlines that neither cross nor stand in each other as they are, the same objects', () => {
    for (const paths of [
      [],
      [circlePath(0, 0, 5)],
      [circlePath(0, 0, 5), circlePath(20, 0, 5, 'q')],
      [squarePath(0, 0, 10), reversePath(squarePath(2, 2, 3, 'q'))],
    ])
      // prettier-ignore
      expect(evenOddPaths(paths, idOf)).toBe(paths);
    // They touch at a point, at an anchor and beside one: nothing changes sides.
    const touching = parsePathData('M10 0H0V10H10zM5 10a2 2 0 1 0 0 4 2 2 0 0 0 0-4zM0 4l-3 2v-4z');
    expect(evenOddPaths(touching, idOf)).toBe(touching);
  });

  it('drops outlines across which nothing changes, and keeps the others anchor for anchor', () => {
    const [outer, inner, innermost] = [
      squarePath(0, 0, 30),
      squarePath(5, 5, 20, 'q'),
      squarePath(10, 10, 10, 'r'),
    ];
    expect(evenOddPaths([outer, inner], idOf)).toEqual([outer]);
    expect(evenOddPaths([outer, inner, reversePath(innermost)], idOf)).toEqual([outer]);
    expect(evenOddPaths([outer, reversePath(inner), innermost], idOf)).toHaveLength(3);
  });

  it('draws outlines that cross anew along what they enclose', () => {
    const loop = parsePathData('M0 0C40 0 40 30 20 30S0 0 40 0V-10H0z');
    for (const paths of [
      [squarePath(0, 0, 10), squarePath(5, 5, 10, 'q')],
      loop,
      parsePathData('M10 0L16 20 0 8H20L4 20z'),
    ]) {
      // prettier-ignore
      const made = evenOddPaths(paths, idOf);
      expect(made).not.toBe(paths);
      expect(made.every((p) => p.closed)).toBe(true);
    }
  });

  it('encloses the same points as the nonzero rule does, for any outlines', () => {
    const random = seeded(1604);
    const any = (k: number): number => Math.round(random() * k * 8) / 8;
    const blob = (id: string): Path =>
      random() < 0.5
        ? (random() < 0.5 ? reversePath : (p: Path) => p)(squarePath(any(60), any(60), 4 + any(40), id))
        : parsePathData(`M${any(90)} ${any(90)}C${any(90)} ${any(90)} ${any(90)} ${any(90)} ${any(90)} ${any(90)}S${any(90)} ${any(90)} ${any(90)} ${any(90)}z`, () => id)[0]!; // prettier-ignore
    let checked = 0;
    const wrong = new Set<number>();
    for (let round = 0; round < 150; round++) {
      const paths = Array.from({ length: 1 + Math.floor(random() * 4) }, (_, i) => blob(`b${i}`));
      const polygons = evenOddPaths(paths, idOf).map((p) => flattenPath(p, 0.001));
      // Source outside: paper.js counts the winding of each point.
      const whole = new paper.CompoundPath(formatPathData(paths, 6));
      whole.fillRule = 'nonzero';
      for (let k = 0; k < 40; k++) {
        const [x, y] = [random() * 100, random() * 100];
        const p = new paper.Point(x, y);
        if (whole.getNearestPoint(p).getDistance(p) < 0.05) continue;
        if (insideEvenOdd(polygons, { x, y }) !== whole.contains(p)) wrong.add(round);
        checked++;
      }
      whole.remove();
    }
    expect(checked).toBeGreaterThan(4000);
    expect([...wrong]).toEqual([]);
  });
});
