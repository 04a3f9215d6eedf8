import { describe, expect, it } from 'vitest';
import { parsePathData } from '../path/data';
import { bestAttempt, LONGEST_GAP_SECONDS, workIn } from './attempt';
import { scoreDrawing, type Score } from './score';

const paths = (d: string) => parsePathData(d, (n) => `p${n}`);
const truth = [{ name: 'Box', paths: paths('M100 100L300 100L300 300L100 300Z'), fill: null }];
const tried = (d: string): { score: Score } => ({ score: scoreDrawing([{ paths: paths(d), fill: null }], truth) as Score }); // prettier-ignore

describe('the best attempt', () => {
  const near = tried('M101 100L301 100L301 300L101 300Z');
  const far = tried('M109 100L309 100L309 300L109 300Z');
  /** Exact, but a side alone. */
  const side = tried('M100 100L300 100');

  it('is the nearest of those that drew the whole, before one that lies exactly on a part of it', () => {
    expect(bestAttempt([far, side, near])).toBe(near);
    expect(bestAttempt([side, far])).toBe(far);
  });

  it('is the one that drew most where none drew the whole, and the first of equal ones', () => {
    const twoSides = tried('M100 105L300 105L300 300');
    expect(bestAttempt([side, twoSides])).toBe(twoSides);
    expect(bestAttempt([near, { ...near }])).toBe(near);
    expect(bestAttempt([])).toBeNull();
  });
});

it('counts a gap as work up to half a minute, and nothing where the clock jumped back or is none', () => {
  expect([0, 4.5, 30, 31, 1e9, Infinity].map(workIn)).toEqual([0, 4.5, 30, LONGEST_GAP_SECONDS, 30, 30]);
  expect([-1, -Infinity, NaN].map(workIn)).toEqual([0, 0, 0]);
});
