import { describe, expect, it } from 'vitest';
import { anchor, circlePath, pathOf, seeded, squarePath } from '../testing';
import { drawnTwice } from './double';
import { faintLines } from './faint-lines';
import { crossingsOf, nearestAnchor, nearSegments, snapField } from './snap-field';
import { snapPoint, type SnapLine, type SnapOffer } from './snap';
import { nearestOnPath } from './path-measure';

const nothing: SnapOffer = {
  spots: [],
  lines: [],
  segments: [],
  crossings: null,
  onSegments: true,
  edge: null,
  grid: null,
};
const guide = (x: number, y: number, angle: number): SnapLine => ({
  kind: 'guides', at: { x, y }, along: { x: Math.cos(angle), y: Math.sin(angle) }, why: 'guide',
}); // prettier-ignore

describe('what lies near a point', () => {
  const random = seeded(9);
  const paths = Array.from({ length: 300 }, (_, i) =>
    circlePath(random() * 1000, random() * 1000, 5 + random() * 30, `p${i}`),
  );
  const field = snapField(paths);

  it('is what looking at every anchor and every segment finds', () => {
    for (let k = 0; k < 300; k++) {
      const p = { x: random() * 1000, y: random() * 1000 };
      const reach = 8;
      const anchors = paths
        .flatMap((q) => q.anchors)
        .map((a) => ({ a, far: Math.hypot(a.x - p.x, a.y - p.y) }));
      const best = anchors.reduce((a, b) => (b.far < a.far ? b : a));
      const found = nearestAnchor(field, p, reach);
      if (best.far > reach) expect(found).toBeNull();
      else expect(found).toEqual({ x: best.a.x, y: best.a.y });
      const far = Math.min(...paths.map((q) => nearestOnPath(q, p)!.distance));
      const [near] = nearSegments(field, p, reach);
      if (far > reach) expect(near).toBeUndefined();
      else expect(near!.distance).toBeCloseTo(far, 9);
    }
  });

  it('is nothing in an empty drawing or where there is one anchor and no segment', () => {
    expect(nearestAnchor(snapField([]), { x: 0, y: 0 }, 10)).toBeNull();
    expect(nearSegments(snapField([]), { x: 0, y: 0 }, 10)).toEqual([]);
    const lone = snapField([pathOf([anchor(3, 4)])]);
    expect(nearestAnchor(lone, { x: 0, y: 0 }, 6)).toEqual({ x: 3, y: 4 });
    expect(nearSegments(lone, { x: 0, y: 0 }, 6)).toEqual([]);
  });
});

describe('where a point goes', () => {
  it('to a spot before a crossing, to a crossing before a line, to a line before the edge, to the edge before faint lines', () => {
    const p = { x: 0, y: 0 };
    const spots = [{ kind: 'anchors', at: { x: 6, y: 0 }, why: 'anchor' } as const];
    const lines = [guide(0, 2, 0), guide(3, 0, Math.PI / 2)];
    const edge = (): { x: number; y: number } => ({ x: -1, y: 0 });
    const faint: SnapLine = { kind: 'lines', at: { x: 0, y: 1 }, along: { x: 1, y: 0 }, why: 'level' };
    expect(snapPoint(p, 8, { ...nothing, spots, lines, edge })).toMatchObject({
      at: { x: 6, y: 0 },
      why: 'anchor',
    });
    expect(snapPoint(p, 8, { ...nothing, lines, edge })).toMatchObject({
      at: { x: 3, y: 2 },
      why: 'guide, guide',
    });
    expect(snapPoint(p, 8, { ...nothing, lines: [lines[0]!, faint], edge })).toMatchObject({
      at: { x: 0, y: 2 },
      kind: 'guides',
    });
    expect(snapPoint(p, 8, { ...nothing, lines: [faint], edge })).toMatchObject({ kind: 'edge' });
    expect(snapPoint(p, 8, { ...nothing, lines: [faint] })).toMatchObject({
      at: { x: 0, y: 1 },
      lines: [faint],
    });
    expect(snapPoint({ x: 9, y: 12 }, 8, { ...nothing, grid: 10 })).toMatchObject({
      at: { x: 10, y: 10 },
      kind: 'grid',
    });
    expect(snapPoint(p, 8, nothing)).toBeNull();
  });

  it('never farther than the reach, faint lines from half of it', () => {
    expect(
      snapPoint({ x: 0, y: 0 }, 8, {
        ...nothing,
        spots: [{ kind: 'anchors', at: { x: 8.01, y: 0 }, why: '' }],
      }),
    ).toBeNull();
    const faint: SnapLine = { kind: 'lines', at: { x: 0, y: 4.1 }, along: { x: 1, y: 0 }, why: 'level' };
    expect(snapPoint({ x: 0, y: 0 }, 8, { ...nothing, lines: [faint] })).toBeNull();
    expect(snapPoint({ x: 41, y: 41 }, 2, { ...nothing, grid: 100 })).toBeNull();
  });

  it('to where segments cross, and where a segment crosses a guide', () => {
    const field = snapField([squarePath(0, 0, 10, 'a'), squarePath(5, -5, 10, 'b')]);
    const segments = nearSegments(field, { x: 6, y: 1 }, 3);
    // Told once, and known when asked again.
    for (let k = 0; k < 2; k++)
      expect(
        snapPoint({ x: 6, y: 1 }, 3, { ...nothing, segments, crossings: () => crossingsOf(field, segments) }),
      ).toMatchObject({ at: { x: 5, y: 0 }, kind: 'crossings' });
    expect(field.crossings.size).toBe(1);
    expect(snapPoint({ x: 6, y: 1 }, 3, { ...nothing, segments })!.at.x).toBeCloseTo(6, 9);
    const on = nearSegments(field, { x: 2, y: 1 }, 3);
    expect(
      snapPoint({ x: 2, y: 1 }, 3, { ...nothing, segments: on, lines: [guide(3, 0, Math.PI / 2)] }),
    ).toMatchObject({ at: { x: 3, y: 0 } });
  });
});

describe('faint lines', () => {
  it('are level, upright, right angle, in line, equal length and in line with the handle', () => {
    expect(faintLines(pathOf([]))).toEqual([]);
    expect(faintLines(pathOf([anchor(1, 2)])).map((l) => l.why)).toEqual(['level', 'upright']);
    const path = pathOf([anchor(0, 0), anchor(3, 4)]);
    expect(faintLines(path).map((l) => l.why)).toEqual(['level', 'upright', 'level with the first', 'upright from the first', 'right angle', 'in line', 'equal length']); // prettier-ignore
    expect(faintLines(path).at(-1)!.radius).toBe(5);
    const carried = pathOf([anchor(0, 0), anchor(3, 4, [-1, 0], [1, 0], 'smooth')]);
    expect(faintLines(carried).map((l) => l.why)).toContain('in line with the handle');
    // A place that keeps two of them at once: 5 long at a right angle.
    const at = snapPoint({ x: 7.1, y: 0.9 }, 2, { ...nothing, lines: faintLines(path) });
    expect(at!.at.x).toBeCloseTo(7, 9);
    expect(at!.at.y).toBeCloseTo(1, 9);
    expect(at!.why).toBe('right angle, equal length');
  });
});

describe('strokes drawn twice', () => {
  const line = (y: number, from = 0, to = 100): ReturnType<typeof pathOf> =>
    pathOf([anchor(from, y), anchor(to, y)], false, `y${y}`);

  it('are found where one runs along another within the pen’s width', () => {
    const [stretch] = drawnTwice(line(1.5), [line(0)], 2);
    expect(stretch!.length).toBeGreaterThan(90);
    expect(stretch!.at.y).toBeCloseTo(1.5, 9);
    // The other way round counts as well.
    expect(drawnTwice(pathOf([anchor(100, 1), anchor(0, 1)]), [line(0)], 2)).toHaveLength(1);
    // Only part of it: where the new one comes near.
    const bent = pathOf([anchor(0, 40), anchor(50, 1), anchor(100, 1)]);
    expect(drawnTwice(bent, [line(0)], 2)[0]!.length).toBeLessThan(60);
  });

  it('are not where strokes cross, meet at their ends, or keep apart (common practice, no source)', () => {
    expect(drawnTwice(line(3), [line(0)], 2)).toEqual([]);
    expect(drawnTwice(pathOf([anchor(50, -50), anchor(50, 50)]), [line(0)], 2)).toEqual([]);
    expect(drawnTwice(pathOf([anchor(100, 0), anchor(160, 60)]), [line(0)], 2)).toEqual([]);
    expect(drawnTwice(pathOf([anchor(100, 0), anchor(200, 0)]), [line(0)], 2)).toEqual([]);
    // An arch that leaves a stem slowly, as in n and m, is a branch; one that follows it farther is not.
    const arch = (x: number, y: number): ReturnType<typeof pathOf> =>
      pathOf([anchor(50, 0, null, [8, -0.8]), anchor(x, y, [-10, 10], null)]);
    expect(drawnTwice(arch(75, -20), [line(0)], 2)).toEqual([]);
    expect(drawnTwice(arch(99, -1), [line(0)], 2)).toHaveLength(1);
    expect(drawnTwice(pathOf([anchor(0, 0)]), [line(0)], 2)).toEqual([]);
    expect(drawnTwice(line(0), [], 2)).toEqual([]);
  });
});
