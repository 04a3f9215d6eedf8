import { describe, expect, it } from 'vitest';
import { parsePathData } from '../path/data';
import { squarePath } from '../testing';
import { leaveOut } from './leave-out';
import { withoutBumps } from './without-bumps';
import { measureDrift } from './drift';
import { driftFigures } from './figures';
import { fieldTiles } from './field-tiles';
import { EDGE_BLUR } from './field-tiles';
import { painted } from './testing';

// Truth: a square with a notch 12 px long and 2 deep in its upper side, as it was painted.
const NOTCHED = parsePathData('M40 40L95 40L95 42L107 42L107 40L160 40L160 160L40 160Z')[0]!;
const field = fieldTiles(
  painted(200, 200, [{ path: NOTCHED, rgb: [40, 70, 60] }], [235, 228, 210]),
  'edge',
  EDGE_BLUR,
);
const plain = squarePath(40, 40, 120);

describe('a detail size', () => {
  it('leaves bumps of the edge out that are shorter, and keeps what is longer', () => {
    const worst = (detail: number): number => Math.abs(driftFigures([measureDrift(plain, field, { reach: 8, detail })], 1).worst); // prettier-ignore
    expect(worst(0)).toBeGreaterThan(1.2);
    expect(worst(16)).toBeLessThan(0.3);
    const low = squarePath(40, 42, 120);
    expect(driftFigures([measureDrift(low, field, { reach: 8, detail: 16 }, )], 1, 0).mean).toBeGreaterThan(1.8); // prettier-ignore
  });

  it('takes the median about each place, on rings and at ends', () => {
    expect(withoutBumps([0, 0, 9, 0, 0], 2, 1, true)).toEqual([0, 0, 0, 0, 0]);
    expect(withoutBumps([1, 2, 3, 4, 5], 1, 1, false)).toEqual([1, 2, 3, 4, 5]);
    expect(withoutBumps([7, 0, 0, 0, 0], 2, 1, true)[0]).toBe(0);
    expect(withoutBumps([0, NaN, 9, 0, 0, 0, 0], 2, 1, false)).toEqual([0, NaN, 0, 0, 0, 0, 0]);
    expect(withoutBumps([], 5, 1, true)).toEqual([]);
    expect(withoutBumps([3], 5, 1, true)).toEqual([3]);
  });
});

it('segments left out are not in any figure', () => {
  const drift = measureDrift(squarePath(40, 43, 120), field, { reach: 8 });
  const without = leaveOut(drift, new Set([0, 2]));
  expect([...new Set(without.segment)]).toEqual([1, 3]);
  const all = driftFigures([drift], 1);
  const some = driftFigures([without], 1);
  expect(some.length).toBeCloseTo(240, 0);
  expect(all.mean).toBeGreaterThan(1);
  expect(some.mean).toBeLessThan(0.1);
  expect(leaveOut(drift, new Set())).toBe(drift);
  expect(driftFigures([leaveOut(drift, new Set([0, 1, 2, 3]))], 1).measured).toBe(0);
});
