import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circlePath, anchor, pathOf, squarePath } from '../testing';
import { cutAt, mergeAnchors, startAt } from './cut';
import { flowAll, deriveFlow } from './flow';
import { moveHandle, setAnchorKind, setEqualLengths, turnHandles } from './handle';
import { insertAnchor } from './insert';
import { nearestOnPath, pathBounds, pathLength } from './path-measure';
import { reversePath, transformAnchors, transformPath } from './path-map';
import { segmentCount, type Path } from './path';
import { pullSegment } from './pull';
import { removeAnchors } from './remove';
import { evenSpots, extremeSpots, inflectionSpots, insertAnchors } from './spots';
import { makeSymmetric } from './symmetric';
import { thinOut } from './thin';

// What shaping meets at its edges: nothing here may break, lose an anchor or give a number that is none.

const ODD: Readonly<Record<string, Path>> = {
  'one anchor': pathOf([anchor(3, 4)]),
  'one anchor with handles': pathOf([anchor(3, 4, [-1, 0], [1, 0], 'smooth')]),
  'two anchors on one spot': pathOf([anchor(5, 5), anchor(5, 5)]),
  'a closed pair on one spot with handles': pathOf([anchor(5, 5, null, [9, 0]), anchor(5, 5, [0, 9], null)], true),
  'a zero-length segment in a path': pathOf([anchor(0, 0), anchor(10, 0), anchor(10, 0), anchor(10, 10)], true),
  'handles in their anchors': pathOf([anchor(0, 0, null, [0, 0]), anchor(10, 5, [0, 0], [0, 0]), anchor(20, 0, [0, 0], null)]),
  'a loop': pathOf([anchor(0, 0, null, [100, 60]), anchor(50, 0, [-100, 60], null)]),
  'a cusp': pathOf([anchor(0, 0, null, [100, 100]), anchor(100, 0, [-100, 100], null)]),
  'a closed pair': pathOf([anchor(0, 0, [0, -9], [0, 9], 'smooth'), anchor(30, 0, [0, 9], [0, -9], 'smooth')], true),
  'flowing all round': pathOf([anchor(0, 0, null, null, 'flowing'), anchor(9, 2, null, null, 'flowing'), anchor(4, 8, null, null, 'flowing')], true),
  'flowing on one spot': pathOf([anchor(1, 1, null, null, 'flowing'), anchor(1, 1, null, null, 'flowing'), anchor(1, 1, null, null, 'flowing')]),
  circle: circlePath(0, 0, 10),
  square: squarePath(0, 0, 10),
}; // prettier-ignore

const finite = (path: Path): boolean =>
  path.anchors.every((a) =>
    [a.x, a.y, a.in?.x ?? 0, a.in?.y ?? 0, a.out?.x ?? 0, a.out?.y ?? 0].every(Number.isFinite),
  );

/** Every way of shaping, at an anchor and a segment chosen by two shares. */
const WAYS: Readonly<Record<string, (p: Path, i: number, s: number, size: number) => readonly Path[]>> = {
  pull: (p, _, s, size) => (segmentCount(p) > 0 ? [pullSegment(p, s, 0.3, { x: 3 * size, y: -2 * size }), pullSegment(p, s, 0.7, { x: 0, y: 0 }, { keepDirections: true })] : [p]),
  'turn a handle': (p, i, _, size) => [moveHandle(p, i, 'out', { x: size, y: size }), moveHandle(p, i, 'in', p.anchors[i]!)],
  'turn handles': (p) => [turnHandles(p, p.anchors.map((_, k) => k), 'in', 1, 2)],
  'turn the kind': (p, i) => (['corner', 'smooth', 'flowing'] as const).map((k) => deriveFlow(setAnchorKind(p, i, k))),
  'equal lengths': (p, i) => [setEqualLengths(p, i, true), setEqualLengths(p, i, false)],
  add: (p, _, s) => (segmentCount(p) > 0 ? [insertAnchor(p, s, 0.5), insertAnchors(p, evenSpots(p, s, 3))] : [p]),
  'add where it turns': (p) => [insertAnchors(p, extremeSpots(p)), insertAnchors(p, inflectionSpots(p))],
  remove: (p, i) => [removeAnchors(p, [i]) ?? p],
  cut: (p, i) => cutAt(p, i, 'second'),
  'start, merge, reverse': (p, i) => [startAt(p, i), mergeAnchors(p, i), reversePath(p)],
  'flow all': (p) => [flowAll(p, { sharpest: 1.2 })],
  'thin out': (p, _i, _s, size) => [thinOut(p, { tolerance: size / 100 }).path],
  'scale and turn anchors': (p, i) => [transformAnchors(p, [i], [0, 2, -1, 0, 3, 4]), transformPath(p, [1, 0.5, 0, 1, 0, 0])],
  'make symmetric': (p) => {
    const box = pathBounds(p);
    return makeSymmetric([p, transformPath(p, [-1, 0, 0, 1, 0, 0])], { kind: 'mirror', x: 0, y: box.y0, angle: Math.PI / 2 }, 'all').paths;
  },
}; // prettier-ignore

describe.each(Object.keys(WAYS))('%s', (way) => {
  it.each(Object.keys(ODD))('on %s, at sizes of a millionth, one and a million', (name) => {
    for (const size of [1e-6, 1, 1e6]) {
      const path = transformPath(ODD[name]!, [size, 0, 0, size, 0, 0]);
      const n = path.anchors.length;
      fc.assert(
        fc.property(fc.nat(n - 1), fc.nat(Math.max(0, segmentCount(path) - 1)), (i, s) => {
          for (const after of WAYS[way]!(path, i, s, size)) {
            expect(finite(after)).toBe(true);
            expect(after.anchors.length).toBeGreaterThan(0);
            expect(Number.isFinite(pathLength(after))).toBe(true);
            const near = nearestOnPath(after, { x: size, y: size });
            if (near) expect(Number.isFinite(near.distance)).toBe(true);
          }
        }),
        { numRuns: 6, seed: 5 },
      );
    }
  });
});
