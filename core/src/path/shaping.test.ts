import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { describe, expect, it } from 'vitest';
import { CIRCLE_HANDLE, cubicPoint, isStraight, type Cubic } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { cross, distance, dot, length, subtract, unit } from '../geometry/vector';
import { anchor, circlePath, pathOf, randomCubic, seeded, squarePath } from '../testing';
import { fitCubic } from './fit';
import { moveHandle, setAnchorKind, setEqualLengths, turnHandles } from './handle';
import { insertAnchor } from './insert';
import { joinEnds } from './join';
import { flattenPath, nearestOnPath, pathArea, pathBounds, pathLength } from './path-measure';
import { pathCubics, segmentCount, segmentCubic, tangentAt, type Path } from './path';
import { reversePath, transformPath } from './path-map';
import { pullSegment } from './pull';
import { openSegment } from './open-segment';
import { removeAnchors } from './remove';

const random = seeded(5);

/** Farthest distance from any point of `a` to the line of `b`. */
const farthest = (a: Path, b: Path): number =>
  Math.max(
    ...pathCubics(a).flatMap((c) =>
      Array.from({ length: 60 }, (_, i) => nearestOnPath(b, cubicPoint(c, i / 59))!.distance),
    ),
  );

const arch = pathOf([
  anchor(0, 0, null, [0, -40]),
  anchor(60, -50, [-30, 0], [30, 0], 'smooth'),
  anchor(120, 0, [0, -40], null),
]);

describe('a path as a whole', () => {
  it('has a circle’s measures', () => {
    const c = circlePath(10, 20, 5);
    expect(pathLength(c)).toBeCloseTo(2 * Math.PI * 5, 2);
    expect(Math.abs(pathArea(c))).toBeCloseTo(Math.PI * 25, 1);
    expect(pathBounds(c)).toMatchObject({ x0: 5, x1: 15, y0: 15, y1: 25 });
    expect(pathArea(reversePath(c))).toBeCloseTo(-pathArea(c), 9);
  });

  it('is defined when empty, with one anchor, and closed on one anchor', () => {
    expect(pathBounds(pathOf([])).x0).toBe(Infinity);
    expect(nearestOnPath(pathOf([anchor(1, 1)]), { x: 0, y: 0 })).toBeNull();
    expect(segmentCount(pathOf([anchor(1, 1)], true))).toBe(0);
    expect(pathLength(pathOf([]))).toBe(0);
    expect(pathArea(pathOf([]))).toBe(0);
    expect(flattenPath(pathOf([]), 1)).toEqual([]);
    expect(pathBounds(pathOf([anchor(3, 4)]))).toEqual({ x0: 3, x1: 3, y0: 4, y1: 4 });
  });

  it('finds the nearest point and its segment', () => {
    expect(nearestOnPath(squarePath(0, 0, 10), { x: 12, y: 5 })).toMatchObject({ segment: 1, distance: 2 });
  });

  it('maps handles without the shift', () => {
    const moved = transformPath(arch, [2, 0, 0, 2, 100, 0]);
    expect(moved.anchors[0]).toMatchObject({ x: 100, y: 0, out: { x: 0, y: -80 } });
  });
});

describe('adding an anchor', () => {
  it('leaves the line where it was', () => {
    for (let i = 0; i < 50; i++) {
      const c = randomCubic(random);
      const path = pathOf([
        anchor(c[0].x, c[0].y, null, [c[1].x - c[0].x, c[1].y - c[0].y]),
        anchor(c[3].x, c[3].y, [c[2].x - c[3].x, c[2].y - c[3].y]),
      ]);
      const t = 0.05 + random() * 0.9;
      const more = insertAnchor(path, 0, t);
      expect(more.anchors).toHaveLength(3);
      expect(farthest(more, path)).toBeLessThan(1e-7);
      const halves = pathCubics(more);
      expect(distance(cubicPoint(c, t / 2), cubicPoint(halves[0]!, 0.5))).toBeLessThan(1e-9);
    }
  });

  it('puts a corner without handles on a straight segment and keeps it straight', () => {
    const more = insertAnchor(squarePath(0, 0, 10), 3, 0.5);
    expect(more.anchors[4]).toEqual({ x: 0, y: 5, kind: 'corner', in: null, out: null });
    expect(more.anchors).toHaveLength(5);
  });

  it('refuses what is not on the path', () => {
    expect(() => insertAnchor(arch, 0, 0)).toThrow('0 < t < 1');
    expect(() => insertAnchor(arch, 2, 0.5)).toThrow('2 segments');
    expect(() => insertAnchor(arch, 0, NaN)).toThrow(RangeError);
  });
});

describe('turning handles together', () => {
  it('turns and stretches each about its own anchor, and keeps smooth ones in line', () => {
    const circle = circlePath(0, 0, 10);
    const turned = turnHandles(circle, [0, 2], 'out', Math.PI / 6, 1.5);
    for (const i of [0, 2]) {
      const [was, now] = [circle.anchors[i]!, turned.anchors[i]!];
      expect(Math.hypot(now.out!.x, now.out!.y)).toBeCloseTo(1.5 * Math.hypot(was.out!.x, was.out!.y), 9);
      const angle = Math.atan2(now.out!.y, now.out!.x) - Math.atan2(was.out!.y, was.out!.x);
      expect(Math.cos(angle)).toBeCloseTo(Math.cos(Math.PI / 6), 9);
      expect(now.in!.x * now.out!.y - now.in!.y * now.out!.x).toBeCloseTo(0, 9);
    }
    expect(turned.anchors[1]).toEqual(circle.anchors[1]);
  });
  it('takes them away at nothing, and passes over anchors without one', () => {
    expect(turnHandles(circlePath(0, 0, 10), [1], 'in', 1, 0).anchors[1]!.in).toBeNull();
    const square = squarePath(0, 0, 10);
    expect(turnHandles(square, [0, 9], 'out', 1, 2)).toBe(square);
  });
});

describe('removing anchors', () => {
  it('takes an added anchor out again without a trace', () => {
    const more = insertAnchor(arch, 0, 0.4);
    const back = removeAnchors(more, [1])!;
    expect(back.anchors).toHaveLength(3);
    expect(farthest(back, arch)).toBeLessThan(0.01);
  });

  it('keeps a circle’s half nearly round when one of four anchors goes', () => {
    const circle = circlePath(0, 0, 100);
    const three = removeAnchors(circle, [1])!;
    const half = segmentCubic(three, 0);
    const worst = Math.max(
      ...Array.from({ length: 100 }, (_, i) => {
        const p = cubicPoint(half, i / 99);
        return Math.abs(Math.hypot(p.x, p.y) - 100);
      }),
    );
    // One cubic holds a half circle to about 1.8 % of its radius (common practice, no source).
    expect(worst).toBeLessThan(2);
    expect(unit(three.anchors[0]!.out!)!.x).toBeCloseTo(0, 9);
  });

  // Reference: ml-levenberg-marquardt, a general least-squares minimiser (Marquardt 1963), set to the same two handle
  // lengths and asked for the least sum of squared distances of the old line's points from the new one.
  it('is the least-squares minimum: a general minimiser finds nothing nearer', () => {
    const random = seeded(17);
    for (let k = 0; k < 12; k++) {
      // An arch with one anchor more, which stands a little beside it.
      const single = pathOf([
        anchor(0, 0, null, [20 + 30 * random(), -20 - 30 * random()]),
        anchor(120, 20 * random(), [-20 - 30 * random(), -20 - 30 * random()], null),
      ]);
      const two = insertAnchor(single, 0, 0.3 + 0.4 * random());
      const path = {
        ...two,
        anchors: two.anchors.map((a, i) =>
          i === 1 ? { ...a, x: a.x + 2 * random(), y: a.y - 3 * random() } : a,
        ),
      };
      const refitted = removeAnchors(path, [1])!;
      const [p0, p1, p2, p3] = segmentCubic(refitted, 0);
      const points = pathCubics(path).flatMap((c) =>
        Array.from({ length: 24 }, (_, i) => cubicPoint(c, (i + 1) / 24)),
      );
      const [out, back] = [unit(subtract(p1, p0))!, unit(subtract(p2, p3))!];
      const curve = ([l1, l2]: readonly number[]): Cubic => [
        p0,
        { x: p0.x + out.x * l1!, y: p0.y + out.y * l1! },
        { x: p3.x + back.x * l2!, y: p3.y + back.y * l2! },
        p3,
      ];
      const cost = (lengths: readonly number[]): number =>
        points.reduce((sum, p) => sum + nearestOnCubic(curve(lengths), p).distance ** 2, 0);
      const ours = [Math.hypot(p1.x - p0.x, p1.y - p0.y), Math.hypot(p2.x - p3.x, p2.y - p3.y)];
      for (const start of [[20, 20], [60, 30], [30, 60], ours]) {
        const { parameterValues } = levenbergMarquardt(
          { x: points.map((_, i) => i), y: points.map(() => 0) },
          (lengths) => (i) => nearestOnCubic(curve(lengths), points[i]!).distance,
          { initialValues: start, minValues: [0, 0], maxIterations: 60, centralDifference: true, gradientDifference: 1e-4 },
        ); // prettier-ignore
        expect(cost(ours)).toBeLessThanOrEqual(cost(parameterValues) * 1.001 + 1e-9);
      }
    }
  });

  it('leaves straight runs straight', () => {
    const square = insertAnchor(squarePath(0, 0, 10), 0, 0.5);
    expect(removeAnchors(square, [1])).toEqual(squarePath(0, 0, 10));
  });

  it('shortens an open path at its ends and drops the loose handle', () => {
    expect(removeAnchors(arch, [0])!.anchors[0]).toMatchObject({ x: 60, in: null, out: { x: 30, y: 0 } });
    expect(removeAnchors(arch, [2])!.anchors[1]!.out).toBeNull();
  });

  it('goes round the end of a closed path', () => {
    const left = removeAnchors(circlePath(0, 0, 10), [0, 3])!;
    expect(left.anchors).toHaveLength(2);
    expect(left.closed).toBe(true);
  });

  it('gives nothing when fewer than two would be left, and refuses strangers', () => {
    expect(removeAnchors(arch, [0, 1])).toBeNull();
    expect(removeAnchors(arch, [])).toBe(arch);
    expect(() => removeAnchors(arch, [3])).toThrow('no anchor 3');
  });

  it('opens a path at a segment', () => {
    const [open] = openSegment(circlePath(0, 0, 10), 1, 'q');
    expect(open!.closed).toBe(false);
    expect(open!.anchors[0]!.in).toBeNull();
    expect(open!.anchors.map((a) => Math.round(a.x))).toEqual([-10, 0, 10, 0]);
    expect(openSegment(arch, 0, 'q').map((p) => p.anchors.length)).toEqual([2]);
    expect(openSegment(pathOf([anchor(0, 0), anchor(1, 0)]), 0, 'q')).toEqual([]);
    const parts = openSegment(pathOf([0, 1, 2, 3].map((x) => anchor(x, 0))), 1, 'q');
    expect(parts.map((p) => p.id)).toEqual(['p', 'q']);
  });
});

// Source: Schneider, "An algorithm for automatically fitting digitized curves", Graphics Gems (1990).
describe('fitting one cubic', () => {
  it('finds a curve again from its points and tangents', () => {
    for (let i = 0; i < 30; i++) {
      const c: Cubic = [
        { x: 0, y: 0 },
        { x: 20 + random() * 25, y: random() * 80 - 40 },
        { x: 55 + random() * 25, y: random() * 80 - 40 },
        { x: 100, y: 0 },
      ];
      const points = Array.from({ length: 60 }, (_, k) => cubicPoint(c, k / 59));
      const t1 = unit({ x: c[1].x - c[0].x, y: c[1].y - c[0].y })!;
      const t2 = unit({ x: c[2].x - c[3].x, y: c[2].y - c[3].y })!;
      const fitted = fitCubic(points, t1, t2);
      const worst = Math.max(...points.map((p) => nearestOnCubic(fitted, p).distance));
      expect(worst).toBeLessThan(1e-3);
    }
  });

  it('goes straight through points in a line', () => {
    const points = Array.from({ length: 9 }, (_, i) => ({ x: i, y: 2 * i }));
    expect(isStraight(fitCubic(points, null, null), 1e-9)).toBe(true);
    expect(() => fitCubic([{ x: 0, y: 0 }], null, null)).toThrow('two points');
  });
});

// Source: Bartels and Beatty, "A technique for the direct manipulation of spline curves", Graphics Interface '89.
describe('pulling a segment', () => {
  it('brings the curve through the pointer wherever it is taken', () => {
    for (let i = 0; i < 200; i++) {
      const c = randomCubic(random);
      const path = pathOf([
        anchor(c[0].x, c[0].y, null, [c[1].x - c[0].x, c[1].y - c[0].y]),
        anchor(c[3].x, c[3].y, [c[2].x - c[3].x, c[2].y - c[3].y]),
      ]);
      const t = 0.02 + random() * 0.96;
      const to = { x: random() * 200 - 50, y: random() * 200 - 50 };
      expect(distance(cubicPoint(segmentCubic(pullSegment(path, 0, t, to), 0), t), to)).toBeLessThan(1e-9);
    }
  });

  it('changes the handles least: any other change to the same end is larger', () => {
    const t = 0.3;
    const to = { x: 20, y: -90 };
    const before = pathCubics(arch)[0]!;
    const corners = { ...arch, anchors: arch.anchors.map((a) => ({ ...a, kind: 'corner' as const })) };
    const after = segmentCubic(pullSegment(corners, 0, t, to), 0);
    const cost = (a: typeof before): number =>
      distance(a[1], before[1]) ** 2 + distance(a[2], before[2]) ** 2;
    const b1 = 3 * (1 - t) ** 2 * t;
    const b2 = 3 * (1 - t) * t * t;
    for (const [dx, dy] of [
      [1, 0],
      [0, 1],
      [-1, 2],
      [3, -1],
    ] as const) {
      const other: typeof before = [
        after[0],
        { x: after[1].x + dx / b1, y: after[1].y + dy / b1 },
        { x: after[2].x - dx / b2, y: after[2].y - dy / b2 },
        after[3],
      ];
      expect(distance(cubicPoint(other, t), to)).toBeLessThan(1e-9);
      expect(cost(other)).toBeGreaterThan(cost(after));
    }
  });

  it('does nothing when the pointer has not moved', () => {
    const still = pullSegment(arch, 0, 0.4, cubicPoint(pathCubics(arch)[0]!, 0.4));
    expect(farthest(still, arch)).toBeLessThan(1e-9);
  });

  it('bends a straight segment from handles on its thirds', () => {
    const bent = pullSegment(squarePath(0, 0, 90), 0, 0.5, { x: 45, y: -30 });
    expect(bent.anchors[0]!.out).toEqual({ x: 30, y: -40 });
    expect(bent.anchors[1]!.in).toEqual({ x: -30, y: -40 });
    expect(bent.anchors[2]).toEqual(squarePath(0, 0, 90).anchors[2]);
  });

  it('keeps smooth anchors smooth: the handle across turns and keeps its length', () => {
    const pulled = pullSegment(arch, 0, 0.5, { x: 5, y: -60 });
    const { in: arriving, out: leaving } = pulled.anchors[1]!;
    expect(Math.abs(cross(unit(arriving!)!, unit(leaving!)!))).toBeLessThan(1e-12);
    expect(dot(arriving!, leaving!)).toBeLessThan(0);
    expect(length(leaving!)).toBeCloseTo(30, 9);
    const left = pullSegment(arch, 0, 0.5, { x: 5, y: -60 }, { leaveNeighbours: true });
    expect(left.anchors[1]).toMatchObject({ kind: 'corner', out: { x: 30, y: 0 } });
  });

  it('grows a missing handle in line with the one across', () => {
    const path = pathOf([
      anchor(0, 0, null, [10, -30]),
      anchor(50, 0, [-20, -10], null, 'smooth'),
      anchor(100, 0),
    ]);
    const pulled = pullSegment(path, 1, 0.4, { x: 72, y: 14 });
    const { in: arriving, out: leaving } = pulled.anchors[1]!;
    expect(distance(arriving!, { x: -20, y: -10 })).toBeLessThan(1e-12);
    expect(Math.abs(cross(unit(arriving!)!, unit(leaving!)!))).toBeLessThan(1e-12);
    expect(distance(cubicPoint(segmentCubic(pulled, 1), 0.4), { x: 72, y: 14 })).toBeLessThan(1e-9);
    // Pulled the other way it cannot turn round: it stays in the anchor, the far handle does the rest.
    const against = pullSegment(path, 1, 0.4, { x: 60, y: -30 });
    expect(against.anchors[1]!.out).toBeNull();
    expect(distance(cubicPoint(segmentCubic(against, 1), 0.4), { x: 60, y: -30 })).toBeLessThan(1e-9);
  });

  it('keeps directions when asked and changes only lengths', () => {
    const pulled = pullSegment(arch, 0, 0.5, { x: 5, y: -55 }, { keepDirections: true });
    expect(unit(pulled.anchors[0]!.out!)).toEqual({ x: 0, y: -1 });
    expect(unit(pulled.anchors[1]!.in!)).toEqual({ x: -1, y: 0 });
    expect(distance(cubicPoint(segmentCubic(pulled, 0), 0.5), { x: 5, y: -55 })).toBeLessThan(1e-9);
  });

  it('pulls the closing segment of a closed path and refuses the ends', () => {
    const pulled = pullSegment(squarePath(0, 0, 90), 3, 0.5, { x: -20, y: 45 });
    expect(pulled.anchors[0]!.in).not.toBeNull();
    expect(() => pullSegment(arch, 0, 0, { x: 0, y: 0 })).toThrow('0 < t < 1');
    expect(() => pullSegment(arch, 5, 0.5, { x: 0, y: 0 })).toThrow(RangeError);
  });

  it('copes with a segment of no length', () => {
    const path = pathOf([anchor(5, 5), anchor(5, 5)]);
    const pulled = pullSegment(path, 0, 0.5, { x: 9, y: 5 });
    expect(cubicPoint(segmentCubic(pulled, 0), 0.5)).toEqual({ x: 9, y: 5 });
  });
});

describe('handles and kinds', () => {
  it('turns a smooth anchor’s other handle, a corner’s not', () => {
    const turned = moveHandle(arch, 1, 'out', { x: 60, y: -20 }).anchors[1]!;
    expect(turned.in!.x).toBeCloseTo(0, 12);
    expect(turned.in!.y).toBeCloseTo(-30, 12);
    const broken = moveHandle(arch, 1, 'out', { x: 60, y: -20 }, true).anchors[1]!;
    expect(broken).toMatchObject({ kind: 'corner', in: { x: -30, y: 0 }, out: { x: 0, y: 30 } });
  });

  it('goes away when dragged into its anchor', () => {
    expect(moveHandle(arch, 1, 'out', { x: 60, y: -50 }).anchors[1]!.out).toBeNull();
  });

  it('stays on the direction of a straight segment it continues', () => {
    const path = pathOf([anchor(0, 0), anchor(50, 0, null, [20, 0], 'smooth'), anchor(90, 40, [0, -20])]);
    expect(moveHandle(path, 1, 'out', { x: 80, y: 15 }).anchors[1]!.out).toEqual({ x: 30, y: 0 });
    expect(moveHandle(path, 1, 'out', { x: 20, y: 15 }).anchors[1]!.out).toBeNull();
  });

  it('turns smooth onto the common direction, lengths kept', () => {
    const path = pathOf([anchor(0, 0), anchor(50, 0, [-20, -5], [10, -15]), anchor(90, 0)]);
    const a = setAnchorKind(path, 1, 'smooth').anchors[1]!;
    expect(cross(a.in!, a.out!)).toBeCloseTo(0, 9);
    expect(length(a.in!)).toBeCloseTo(Math.hypot(20, 5), 9);
    expect(setAnchorKind(arch, 1, 'corner').anchors[1]).toMatchObject({ kind: 'corner', in: { x: -30 } });
  });

  it('makes no handle on the straight side of a curve', () => {
    const path = pathOf([anchor(0, 0), anchor(50, 0, null, [10, 20]), anchor(90, 40, [0, -20])]);
    const a = setAnchorKind(path, 1, 'smooth').anchors[1]!;
    expect(a.in).toBeNull();
    expect(a.out!.x).toBeCloseTo(Math.hypot(10, 20), 9);
    expect(a.out!.y).toBeCloseTo(0, 9);
  });

  it('rounds a corner between two straight sides by thirds', () => {
    const a = setAnchorKind(squarePath(0, 0, 90), 1, 'smooth').anchors[1]!;
    expect(length(a.in!)).toBeCloseTo(30, 9);
    expect(tangentAt(setAnchorKind(squarePath(0, 0, 90), 1, 'smooth'), 1, 'out')!.x).toBeCloseTo(
      Math.SQRT1_2,
      9,
    );
  });

  it('only marks the end of an open path, and refuses strangers', () => {
    expect(setAnchorKind(pathOf([anchor(0, 0), anchor(9, 0)]), 0, 'smooth').anchors[0]!.out).toBeNull();
    expect(() => setAnchorKind(arch, 9, 'smooth')).toThrow('no anchor 9');
    expect(() => moveHandle(arch, 9, 'in', { x: 0, y: 0 })).toThrow(RangeError);
  });
});

describe('joining ends', () => {
  const a = pathOf([anchor(0, 0, null, [0, 5]), anchor(10, 0, [0, 4])], false, 'a');
  const b = pathOf([anchor(10, 0, null, [3, 0]), anchor(20, 0)], false, 'b');

  it('makes one anchor of two on the same spot', () => {
    const one = joinEnds(a, 'end', b, 'start');
    expect(one).toMatchObject({ id: 'a', closed: false });
    expect(one.anchors).toHaveLength(3);
    expect(one.anchors[1]).toMatchObject({ in: { x: 0, y: 4 }, out: { x: 3, y: 0 } });
  });

  it('turns paths round where the ends ask for it, length kept', () => {
    const one = joinEnds(a, 'end', reversePath(b), 'end');
    expect(one.anchors.map((p) => p.x)).toEqual([0, 10, 20]);
    expect(pathLength(one)).toBeCloseTo(pathLength(a) + pathLength(b), 9);
    expect(joinEnds(a, 'start', b, 'end').anchors).toHaveLength(4);
  });

  it('refuses closed paths', () => {
    expect(() => joinEnds(squarePath(0, 0, 1), 'end', b, 'start')).toThrow('open paths');
  });
});

it('uses the circle constant of CHECKS: 0.5522847498', () => {
  expect(circlePath(0, 0, 1).anchors[0]!.out!.y).toBeCloseTo(CIRCLE_HANDLE, 10);
});

describe('equal lengths', () => {
  const path = pathOf([anchor(0, 0), anchor(50, 0, [-10, 0], [30, 0], 'smooth'), anchor(100, 0)]);

  it('switched on gives both handles their mean length and keeps them alike; off leaves them as they are', () => {
    const on = setEqualLengths(path, 1, true);
    expect(on.anchors[1]).toMatchObject({ equal: true, in: { x: -20, y: 0 }, out: { x: 20, y: 0 } });
    const turned = moveHandle(on, 1, 'out', { x: 50, y: 12 });
    expect(turned.anchors[1]!.in!.x).toBeCloseTo(0, 12);
    expect(turned.anchors[1]!.in!.y).toBeCloseTo(-12, 12);
    const off = setEqualLengths(turned, 1, false);
    expect(off.anchors[1]).not.toHaveProperty('equal');
    expect(off.anchors[1]!.in).toEqual(turned.anchors[1]!.in);
    expect(moveHandle(off, 1, 'out', { x: 50, y: 30 }).anchors[1]!.in!.y).toBeCloseTo(-12, 12);
  });

  it('on a corner makes it smooth first; a corner made of a smooth one has none', () => {
    const corner = pathOf([anchor(0, 0), anchor(50, 0, [-10, 0], [0, 30]), anchor(100, 0)]);
    const on = setEqualLengths(corner, 1, true).anchors[1]!;
    expect(on.kind).toBe('smooth');
    expect(length(on.in!)).toBeCloseTo(length(on.out!), 12);
    expect(setAnchorKind(setEqualLengths(corner, 1, true), 1, 'corner').anchors[1]).not.toHaveProperty(
      'equal',
    );
    expect(setEqualLengths(pathOf([anchor(0, 0)]), 0, true).anchors[0]).toMatchObject({
      kind: 'smooth',
      in: null,
      out: null,
    });
  });
});
