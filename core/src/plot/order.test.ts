import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/vector';
import type { PenStroke } from '../path/pen-stroke';
import { seeded } from '../testing';
import { orderStrokes } from './order';
import { planPlot } from './plan';
import { leastTravel } from './testing';
import { plotWay } from './way';

const line = (points: readonly Point[], closed = false, pen = 1): PenStroke => ({ pen, closed, points });
const ORIGIN = { x: 0, y: 0 };

/** Strokes here and there, some closed, of a length up to so many millimetres. */
function scattered(random: () => number, count: number, longest = 7, size = 300): PenStroke[] {
  return Array.from({ length: count }, (_, k) => {
    const [x, y, angle, long] = [
      random() * size,
      random() * size,
      random() * 7,
      (longest / 7) * (1 + 6 * random()),
    ];
    const to = (t: number, bend: number): Point => ({ x: x + t * long * Math.cos(angle + bend), y: y + t * long * Math.sin(angle + bend) }); // prettier-ignore
    return k % 4 === 0
      ? line([to(0, 0), to(1, 0), to(1, 1.2)], true)
      : line([to(0, 0), to(0.5, 0.2), to(1, 0)]);
  });
}

/** What is drawn, whichever way round and wherever it is begun. */
const drawn = (strokes: readonly PenStroke[]): string[] =>
  strokes
    .map(
      ({ pen, closed, points }) =>
        `${pen} ${closed} ${points
          .map(({ x, y }) => `${x},${y}`)
          .sort()
          .join(' ')}`,
    ) // prettier-ignore
    .sort();

describe('ordering strokes', () => {
  it('draws each once, and never farther than in the order they came', () => {
    const random = seeded(7);
    for (const count of [1, 2, 3, 5, 17, 60]) {
      const strokes = scattered(random, count);
      const ordered = orderStrokes(strokes);
      expect(drawn(ordered)).toEqual(drawn(strokes));
      expect(plotWay(ordered).travel).toBeLessThanOrEqual(plotWay(strokes).travel + 1e-9);
      expect(plotWay(ordered).drawn).toBeCloseTo(plotWay(strokes).drawn, 6);
    }
    expect(orderStrokes([])).toEqual([]);
  });

  // Lower bound: no way through all strokes is shorter than a minimum spanning tree over them. It counts from nearest end to
  // nearest end, as if a stroke could be left where it was reached: it tells little unless the strokes are short against the gaps.
  it('travels at most a quarter farther than a minimum spanning tree', () => {
    const random = seeded(21);
    for (const count of [200, 500]) {
      const strokes = scattered(random, count, 1);
      const ratio = plotWay(orderStrokes(strokes)).travel / leastTravel(strokes, ORIGIN);
      expect(ratio).toBeGreaterThanOrEqual(1);
      expect(ratio).toBeLessThanOrEqual(1.25);
    }
  });

  it('finds the way along a row and round a ring that was shuffled', () => {
    const row = [4, 1, 3, 0, 2].map((k) => line([{ x: 10 * k + 8, y: 0 }, { x: 10 * k + 1, y: 0 }])); // prettier-ignore
    const along = orderStrokes(row);
    expect(along.map(({ points }) => points[0]!.x)).toEqual([1, 11, 21, 31, 41]);
    expect(plotWay(along)).toEqual({ drawn: 35, travel: 1 + 4 * 3, lifts: 5 });
    // A square is begun at its corner nearest to the way through.
    const square = line([{ x: 50, y: 50 }, { x: 60, y: 50 }, { x: 60, y: 60 }, { x: 50, y: 60 }].reverse(), true); // prettier-ignore
    expect(orderStrokes([square])[0]!.points[0]).toEqual({ x: 50, y: 50 });
  });

  it('is planned only where it is shorter, and tells what it saves', () => {
    const row = [1, 2, 3].map((k) => line([{ x: 10 * k, y: 0 }, { x: 10 * k + 5, y: 0 }])); // prettier-ignore
    expect(planPlot(row)).toEqual({ strokes: row, kept: { drawn: 15, travel: 20, lifts: 3 }, short: { drawn: 15, travel: 20, lifts: 3 } }); // prettier-ignore
    const back = planPlot([...row].reverse());
    expect([back.kept.travel, back.short.travel, back.strokes[0]]).toEqual([60, 20, row[0]]);
    expect(planPlot([])).toMatchObject({ strokes: [], short: { drawn: 0, travel: 0, lifts: 0 } });
  });

  it('takes up each pen once, and changes nothing of the strokes it is given', () => {
    const random = seeded(2);
    const strokes = scattered(random, 30).map((stroke, k) => ({ ...stroke, pen: 1 + (k % 3) }));
    const before = JSON.stringify(strokes);
    const pens = orderStrokes(strokes).map(({ pen }) => pen);
    expect(pens).toEqual([...pens].sort());
    expect(JSON.stringify(strokes)).toBe(before);
  });

  it('takes strokes that lie on one point, or on each other', () => {
    const dot = line([{ x: 5, y: 5 }, { x: 5, y: 5 }]); // prettier-ignore
    const same = Array.from({ length: 20 }, () => dot);
    expect(orderStrokes(same)).toHaveLength(20);
    expect(plotWay(orderStrokes(same)).lifts).toBe(1);
  });
});
