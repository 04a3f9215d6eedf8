import { describe, expect, it } from 'vitest';
import { rotation, scaling } from '../geometry/affine';
import { anchor } from '../testing';
import { MARKS, type Anchor } from './anchor';
import { mirrorPath } from './axis';
import { cutAt, mergeAnchors, startAt } from './cut';
import { flowAll, deriveFlow } from './flow';
import { formPath, redrawForm } from './form-path';
import type { Form } from './form';
import { moveHandle, setAnchorKind, setEqualLengths } from './handle';
import { insertAnchor } from './insert';
import { joinEnds } from './join';
import { reversePath, transformPath } from './path-map';
import type { Path } from './path';
import { pullSegment } from './pull';
import { openSegment } from './open-segment';
import { removeAnchors } from './remove';

/** A ring of five smooth anchors; the third (20, 0) has all marks. */
const marked: Anchor = { ...anchor(20, 0, [-4, 0], [4, 0], 'smooth'), equal: true, protected: true, meant: true, shared: 'k' }; // prettier-ignore
const others = [
  anchor(0, 0, [0, 4], [0, -4], 'smooth'),
  anchor(10, -8, [-4, 0], [4, 0], 'smooth'),
  marked,
  anchor(30, 8, [-4, -1], [4, 1], 'smooth'),
  anchor(15, 20, [4, 0], [-4, 0], 'smooth'),
];
const ring: Path = { id: 'p', closed: true, anchors: others };
const line: Path = { ...ring, closed: false };

/** Marks found on all anchors together, one letter each: e, p, m, s; how often. */
function marksIn(paths: readonly Path[]): string {
  const anchors = paths.flatMap((p) => p.anchors);
  return MARKS.map((mark) => mark[0]!.repeat(anchors.filter((a) => a[mark] !== undefined).length)).join('');
}
const all = (...paths: Path[]): Path[] => paths;

// One row an operation: what becomes of `equal`, `protected`, `meant`, `shared` of an anchor that has them all.
describe('what becomes of an anchor’s marks', () => {
  it.each<[string, () => readonly Path[], string]>([
    ['left alone', () => all(ring), 'epms'],
    ['turned round', () => all(reversePath(ring)), 'epms'],
    ['turned', () => all(transformPath(ring, rotation(1))), 'epms'],
    ['scaled evenly', () => all(transformPath(ring, scaling(2))), 'epms'],
    ['stretched across its handles', () => all(transformPath(ring, scaling(1, 3))), 'epms'],
    ['mirrored', () => all(mirrorPath(ring, { kind: 'mirror', x: 0, y: 0, angle: 1 })), 'epms'],
    ['begun elsewhere', () => all(startAt(ring, 4)), 'epms'],
    ['an anchor put in beside it', () => all(insertAnchor(ring, 2, 0.3)), 'pmms'],
    ['an anchor put in elsewhere', () => all(insertAnchor(ring, 4, 0.3)), 'epms'],
    ['its handle moved', () => all(moveHandle(ring, 2, 'out', { x: 28, y: 0 })), 'epms'],
    ['its handle broken off', () => all(moveHandle(ring, 2, 'out', { x: 25, y: 5 }, true)), 'pms'],
    ['made a corner', () => all(setAnchorKind(ring, 2, 'corner')), 'pms'],
    ['made flowing', () => all(setAnchorKind(ring, 2, 'flowing')), 'pms'],
    ['unequal again', () => all(setEqualLengths(ring, 2, false)), 'pms'],
    ['its segment pulled', () => all(pullSegment(ring, 2, 0.5, { x: 26, y: 9 })), 'epms'],
    ['pulled, neighbours left', () => all(pullSegment(ring, 2, 0.5, { x: 26, y: 9 }, { leaveNeighbours: true })), 'pms'], // prettier-ignore
    ['flowing, and all flowing again', () => all(deriveFlow(setAnchorKind(ring, 2, 'flowing'))), 'pms'],
    ['all made flowing', () => all(flowAll(ring, { sharpest: 3 })), 'pms'],
    ['a ring opened at it', () => cutAt(ring, 2, 'q'), 'eeppms'],
    ['a line cut at it', () => cutAt(line, 2, 'q'), 'eeppmss'],
    ['its segment taken out', () => openSegment(line, 2, 'q'), 'eps'],
    ['taken away', () => all(removeAnchors(ring, [2])!), ''],
    ['a neighbour taken away', () => all(removeAnchors(ring, [0])!), 'epms'],
    ['made one with the next', () => all(mergeAnchors(ring, 2)), ''],
  ])('%s', (_what, made, marks) => {
    expect(marksIn(made())).toBe(marks);
  });

  it('"equal lengths" is said only where they are', () => {
    const lengths = (a: Anchor): number[] => [a.in, a.out].map((h) => (h ? Math.hypot(h.x, h.y) : -1));
    for (const path of [
      insertAnchor(ring, 1, 0.6),
      insertAnchor(ring, 2, 0.6),
      ...cutAt(line, 2, 'q'),
      moveHandle(ring, 2, 'in', { x: 14, y: 0 }),
      pullSegment(ring, 1, 0.4, { x: 15, y: 3 }),
    ])
      // prettier-ignore
      for (const a of path.anchors) {
        if (!a.equal || !a.in || !a.out) continue;
        expect(lengths(a)[0]).toBeCloseTo(lengths(a)[1]!, 9);
        expect(a.kind).toBe('smooth');
      }
  });

  it('joined at one spot, the anchor has what either had, and one key', () => {
    const [first, second] = cutAt(line, 2, 'q') as [Path, Path];
    const joined = joinEnds(first, 'end', second, 'start');
    expect(joined.anchors).toHaveLength(5);
    expect(marksIn([joined])).toBe('pms');
    expect(joined.anchors[2]).toMatchObject({ kind: 'corner', protected: true, meant: true, shared: 'k' });
  });

  it('of a box stay when it is moved, turned, mirrored and drawn anew', () => {
    const form: Form = { kind: 'box', x: 50, y: 40, width: 20, height: 10, angle: 0, radii: [0, 0, 0, 0], sides: 6 }; // prettier-ignore
    const plain = formPath(form, 'b');
    const box: Path = { ...plain, anchors: plain.anchors.map((a, i) => (i === 1 ? { ...a, protected: true, meant: true, shared: 'k' } : a)) }; // prettier-ignore
    const corners = (p: Path): string[] => p.anchors.map((a) => `${a.x.toFixed(6)} ${a.y.toFixed(6)}`);
    for (const map of [[1, 0, 0, 1, 7, 3], rotation(0.4), scaling(2), [-1, 0, 0, 1, 0, 0]] as const) {
      const moved = transformPath(box, map as never);
      expect(marksIn([moved])).toBe('pms');
      expect(corners(moved).sort()).toEqual(corners(transformPath(plain, map as never)).sort());
      // The key is where the anchor that had it went.
      const [a, b, c, d, e, f] = map;
      const { x, y } = box.anchors[1]!;
      const held = moved.anchors.find((q) => q.shared)!;
      expect([held.x, held.y]).toEqual([
        expect.closeTo(a * x + c * y + e, 9),
        expect.closeTo(b * x + d * y + f, 9),
      ]);
    }
    expect(transformPath(box, [1, 0, 0, 1, 7, 3]).form).toMatchObject({ kind: 'box', x: 57, y: 43 });
    expect(marksIn([redrawForm(box, { ...form, width: 30 })])).toBe('pms');
    expect(marksIn([redrawForm(box, { ...form, radii: [2, 0, 0, 0] })])).toBe('');
  });
});
