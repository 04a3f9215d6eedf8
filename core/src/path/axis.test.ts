import { describe, expect, it } from 'vitest';
import { addNode, makeHole, mapShape, releaseAxis, setAxis, setPath } from '../art/edits';
import { changeArt } from '../art/change';
import { shapeBounds } from '../art/bounds';
import { shapeHas } from '../art/inside';
import { drawnData } from '../art/line-data';
import { readArt } from '../art/check';
import type { Shape } from '../art/schema';
import { emptyArt } from '../art/blank';
import { findShape, wholePaths } from '../art/tree';
import { rotation, scaling, translation } from '../geometry/affine';
import { anchor, pathOf, squarePath } from '../testing';
import { axisMaps, mirrorPath, deriveAbout, spreadPath, type Axis, type MirrorAxis } from './axis';
import { pathArea, pathLength } from './path-measure';
import { pathCubics } from './path';
import { reversePath } from './path-map';

const upright: MirrorAxis = { kind: 'mirror', x: 50, y: 0, angle: Math.PI / 2 };
const shapeOf = (path: Shape['paths'][number], axis?: Axis): Shape => ({
  id: 's', type: 'shape', name: 's', shown: true, locked: false, opacity: 1, fill: null, stroke: null, paths: [path], ...(axis && { axis }),
}); // prettier-ignore

describe('mirrored about an axis', () => {
  const half = pathOf([
    anchor(50, 10, null, [20, 0], 'smooth'),
    anchor(80, 50, [0, -10], [0, 10], 'smooth'),
    anchor(50, 90),
  ]);

  it('an open half that begins and ends on the axis is one closed outline of twice its area', () => {
    const [whole, ...rest] = spreadPath(half, upright);
    expect(rest).toEqual([]);
    expect(whole!.closed).toBe(true);
    expect(whole!.anchors).toHaveLength(4);
    expect(whole!.anchors[3]!.x).toBeCloseTo(20, 12);
    expect(pathArea(whole!)).toBeCloseTo(2 * pathArea(half), 9);
    // Smooth across the axis: both handles in one line, equally long.
    expect(whole!.anchors[0]!.in!.x).toBeCloseTo(-20, 12);
    expect(whole!.anchors[0]!.in!.y).toBeCloseTo(0, 12);
  });

  it('with one end on it runs on through; with none, or closed, there are two', () => {
    const one = pathOf([anchor(80, 10), anchor(60, 30), anchor(50, 40)]);
    for (const path of [one, reversePath(one)]) {
      const [whole, ...rest] = spreadPath(path, upright);
      expect(rest).toEqual([]);
      expect(whole!.closed).toBe(false);
      expect(whole!.anchors).toHaveLength(5);
      expect(pathLength(whole!)).toBeCloseTo(2 * pathLength(one), 9);
    }
    expect(spreadPath(pathOf([anchor(60, 0), anchor(70, 5)]), upright)).toHaveLength(2);
    const [a, b] = spreadPath(squarePath(60, 10, 20), upright);
    expect(pathArea(b!)).toBeCloseTo(-pathArea(a!), 9);
    expect(new Set([a!.id, b!.id]).size).toBe(2);
    expect(spreadPath(pathOf([anchor(50, 5)]), upright)).toHaveLength(1);
  });

  it('mirrorPath twice is the path itself', () => {
    const axis: MirrorAxis = { kind: 'mirror', x: 3, y: 7, angle: 0.4 };
    const twice = mirrorPath(mirrorPath(half, axis), axis);
    twice.anchors.forEach((a, i) => {
      expect(a.x).toBeCloseTo(half.anchors[i]!.x, 10);
      expect(a.y).toBeCloseTo(half.anchors[i]!.y, 10);
    });
  });

  it('turns a smooth end’s handle square to the axis, and leaves a corner there alone', () => {
    const slanted = pathOf([
      anchor(50, 10, null, [20, 15], 'smooth'),
      anchor(80, 50),
      anchor(50, 90, [5, -5]),
    ]);
    const settled = deriveAbout(slanted, upright);
    expect(settled.anchors[0]!.out!.y).toBeCloseTo(0, 12);
    expect(Math.hypot(settled.anchors[0]!.out!.x, settled.anchors[0]!.out!.y)).toBeCloseTo(25, 12);
    expect(settled.anchors[2]!.in).toEqual({ x: 5, y: -5 });
  });

  it('flowing anchors flow round the whole outline, the same on both sides', () => {
    const flowing = pathOf(
      [
        [50, 10],
        [80, 30],
        [85, 70],
        [50, 90],
      ].map(([x, y]) => anchor(x!, y!, null, null, 'flowing')),
    );
    const settled = deriveAbout(flowing, upright);
    expect(settled.anchors[0]!.out!.y).toBeCloseTo(0, 9);
    expect(settled.anchors[3]!.in!.y).toBeCloseTo(0, 9);
    const [whole] = spreadPath(settled, upright);
    const [a, b] = [whole!.anchors[1]!, whole!.anchors[5]!];
    expect(a.out!.x).toBeCloseTo(-b.in!.x, 9);
    expect(a.out!.y).toBeCloseTo(b.in!.y, 9);
  });
});

describe('turned about a centre', () => {
  const petal = pathOf([anchor(50, 40), anchor(55, 10, [-5, 3], [5, 3], 'smooth'), anchor(60, 42)]);
  const turn = (parts: number): Axis => ({ kind: 'turn', x: 50, y: 50, parts });

  it('an open path is one closed outline round all N parts', () => {
    for (const parts of [2, 3, 7]) {
      const [whole, ...rest] = spreadPath(petal, turn(parts));
      expect(rest).toEqual([]);
      expect(whole!.closed).toBe(true);
      expect(whole!.anchors).toHaveLength(3 * parts);
      // Copies round a centre stand at 360°/n (common practice, no source).
      const at = (i: number): number => Math.atan2(whole!.anchors[i]!.y - 50, whole!.anchors[i]!.x - 50);
      const step = (at(4) - at(1) + 4 * Math.PI) % (2 * Math.PI);
      expect(step).toBeCloseTo((2 * Math.PI) / parts, 9);
    }
    expect(spreadPath(squarePath(60, 60, 5), turn(5))).toHaveLength(5);
  });

  it('where a part ends on the next part’s beginning, they are one anchor', () => {
    const third = axisMaps(turn(3))[1]!;
    const end = { x: third[0] * 50 + third[2] * 20 + third[4], y: third[1] * 50 + third[3] * 20 + third[5] };
    const arc = pathOf([
      anchor(50, 20, null, [10, 0], 'smooth'),
      anchor(end.x, end.y, [-3, -9], null, 'smooth'),
    ]);
    const settled = deriveAbout(arc, turn(3));
    const [whole] = spreadPath(settled, turn(3));
    expect(whole!.anchors).toHaveLength(3);
    for (const a of whole!.anchors) expect(a.in!.x * a.out!.y - a.in!.y * a.out!.x).toBeCloseTo(0, 9);
    const areas = pathCubics(whole!).length;
    expect(areas).toBe(3);
  });
});

describe('shapes about an axis', () => {
  const half = pathOf([anchor(50, 10), anchor(80, 50), anchor(50, 90)], false, 'h');
  const start = changeArt(
    emptyArt({ width: 100, height: 100, unit: 'px' }, 'l'),
    addNode('l', shapeOf(half, upright)),
  ).art;

  it('are drawn, bounded and hit as a whole, and released into one path that looks the same', () => {
    const shape = findShape(start, 's')!;
    expect(shapeBounds(shape)).toMatchObject({ x0: 20, x1: 80 });
    expect(shapeHas(shape, { x: 30, y: 50 })).toBe(true);
    const released = findShape(changeArt(start, releaseAxis(['s'])).art, 's')!;
    expect(released.axis).toBeUndefined();
    expect(drawnData(wholePaths(released))).toBe(drawnData(wholePaths(shape)));
    expect(readArt(JSON.parse(JSON.stringify(start)))).toEqual(start);
  });

  it('take their axis along when moved or turned, and are released when stretched', () => {
    const shape = findShape(start, 's')!;
    const moved = findShape(changeArt(start, mapShape(shape, translation(10, 5))).art, 's')!;
    expect(moved.axis).toMatchObject({ x: 60, y: 5 });
    expect(shapeBounds(moved)).toMatchObject({ x0: 30, x1: 90 });
    const turned = findShape(changeArt(start, mapShape(shape, rotation(0.3))).art, 's')!;
    expect(wholePaths(turned)).toHaveLength(1);
    expect(pathArea(wholePaths(turned)[0]!)).toBeCloseTo(pathArea(wholePaths(shape)[0]!), 9);
    const wide = findShape(changeArt(start, mapShape(shape, scaling(2, 1))).art, 's')!;
    expect(wide.axis).toBeUndefined();
    expect(shapeBounds(wide)).toMatchObject({ x0: 40, x1: 160 });
  });

  it('become holes as a whole, and hosts are made whole for them, unless both are about one axis', () => {
    const inner = pathOf([anchor(50, 40), anchor(60, 50), anchor(50, 60)], false, 'i');
    const hole: Shape = { ...shapeOf(inner, upright), id: 'i-shape' };
    const both = changeArt(start, addNode('l', hole)).art;
    const kept = findShape(changeArt(both, makeHole('i-shape', 's')).art, 's')!;
    expect(kept.axis).toEqual(upright);
    expect(kept.paths).toHaveLength(2);
    const turned = changeArt(both, setAxis(['i-shape'], { kind: 'turn', x: 55, y: 50, parts: 2 })).art;
    const whole = findShape(changeArt(turned, makeHole('i-shape', 's')).art, 's')!;
    expect(whole.axis).toBeUndefined();
    expect(whole.paths.map((p) => p.anchors.length)).toEqual([4, 6]);
    expect(
      readArt(JSON.parse(JSON.stringify(changeArt(turned, makeHole('i-shape', 's')).art))),
    ).toBeDefined();
  });

  it('follow an edit of the drawn part, and can be given another count', () => {
    const edited = changeArt(
      start,
      setPath('s', pathOf([anchor(50, 10), anchor(95, 50), anchor(50, 90)], false, 'h')),
    ).art;
    expect(shapeBounds(findShape(edited, 's')!)).toMatchObject({ x0: 5, x1: 95 });
    const ring = changeArt(start, setAxis(['s'], { kind: 'turn', x: 50, y: 50, parts: 5 })).art;
    expect(wholePaths(findShape(ring, 's')!)[0]!.anchors).toHaveLength(15);
  });
});
