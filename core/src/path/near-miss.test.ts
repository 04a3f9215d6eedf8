import { describe, expect, it } from 'vitest';
import { anchor, circlePath, pathOf, squarePath } from '../testing';
import { combine } from './combine';
import { closeNearMisses } from './near-miss';
import { pathArea } from './path-measure';

const idOf = (n: number): string => `r${n}`;

describe('near misses', () => {
  it('of squares side by side are closed, so that no sliver is left between them', () => {
    const pair = [[squarePath(0, 0, 50, 'a')], [squarePath(50.4, 0.3, 50, 'b')]];
    expect(combine(pair, 'add', idOf)).toHaveLength(2);
    const { shapes, count, widest } = closeNearMisses(pair, 1);
    expect([count, widest]).toEqual([2, expect.closeTo(0.5, 9)]);
    expect(shapes[0]).toBe(pair[0]);
    const [one, ...more] = combine(shapes, 'add', idOf);
    expect(more).toEqual([]);
    expect(combine(shapes, 'overlap', idOf)).toEqual([]);
    expect(pathArea(one!)).toBeCloseTo(50 * 50 + 50 * 50.4, 6);
  });

  it('of a curved border run along the same curve then', () => {
    const bow = [anchor(0, 0, null, [20, 20]), anchor(0, 60, [20, -20], null)] as const;
    const left = pathOf([bow[0], bow[1], anchor(-40, 60), anchor(-40, 0)], true, 'a');
    const right = pathOf([anchor(0.3, 60.2, null, [20.5, -20]), anchor(0.2, -0.1, [20.2, 20.4], null), anchor(70, 0), anchor(70, 60)], true, 'b'); // prettier-ignore
    const { shapes } = closeNearMisses([[left], [right]], 1);
    expect(combine(shapes, 'overlap', idOf)).toEqual([]);
    expect(combine(shapes, 'add', idOf)).toHaveLength(1);
    expect(shapes[1]![0]!.anchors[0]).toMatchObject({ x: 0, y: 60, out: { x: 20, y: -20 } });
  });

  it('of a line that passes a corner get an anchor there; of an end that stops short reach the line', () => {
    const tip = pathOf([anchor(0, 0), anchor(50, 25), anchor(0, 50)], true, 'a');
    const wall = pathOf([anchor(50.5, -20), anchor(50.5, 80), anchor(90, 80)], true, 'b');
    const { shapes, count } = closeNearMisses([[tip], [wall]], 1);
    expect(count).toBe(1);
    expect(shapes[1]![0]!.anchors).toHaveLength(4);
    expect(shapes[1]![0]!.anchors[1]).toMatchObject({ x: 50, y: 25 });
    const short = pathOf([anchor(0, 50), anchor(99.5, 50)], false, 'l');
    expect(closeNearMisses([[squarePath(100, 0, 100)], [short]], 1).shapes[1]![0]!.anchors[1]!.x).toBeCloseTo(100, 9); // prettier-ignore
  });

  it('are none where shapes meet exactly, are farther apart, or lie over each other', () => {
    for (const pair of [
      [[squarePath(0, 0, 50, 'a')], [squarePath(50, 0, 50, 'b')]],
      [[squarePath(0, 0, 50, 'a')], [squarePath(53, 0, 50, 'b')]],
      [[circlePath(0, 0, 50, 'a')], [circlePath(40, 0, 50, 'b')]],
      [[squarePath(0, 0, 50, 'a')]],
      [],
    ]) {
      const closed = closeNearMisses(pair, 1);
      expect(closed).toEqual({ shapes: pair, count: 0, widest: 0 });
      closed.shapes.forEach((shape, i) => expect(shape).toBe(pair[i]));
    }
  });
});
