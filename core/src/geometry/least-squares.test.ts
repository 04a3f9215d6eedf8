import { describe, expect, it } from 'vitest';
import { seeded } from '../seed';
import { solveDamped, type SparseRow } from './least-squares';
import { solveLinear } from './linear';

const random = seeded(29);
const rows = (n: number, count: number): SparseRow[] =>
  Array.from({ length: count }, () => {
    const first = Math.floor(random() * n);
    const at = [...new Set([first, (first + 1) % n, (first + 2) % n])];
    // As round a ring the last unknowns meet the first.
    return { at, by: at.map(() => 2 * random() - 1), weight: 0.2 + random(), right: random() - 0.5 };
  });

describe('damped least squares of sparse rows', () => {
  // Reference: the normal equations written out and solved by elimination.
  it.each([1, 2, 9, 40])('agree with elimination on %d unknowns', (n) => {
    for (const [damping, hold] of [
      [0, 1e-3],
      [0.1, 0.02],
      [10, 0],
    ] as const) {
      const system = rows(n, 5 * n);
      const normal = Array.from({ length: n }, () => new Array<number>(n).fill(0));
      const right = new Array<number>(n).fill(0);
      for (const { at, by, weight, right: b } of system)
        at.forEach((i, k) => {
          right[i]! += weight * by[k]! * b;
          at.forEach((j, m) => (normal[i]![j]! += weight * by[k]! * by[m]!));
        });
      normal.forEach((row, i) => (row[i]! = row[i]! * (1 + damping) + hold));
      const x = solveDamped(system, n, damping, hold);
      solveLinear(normal, right)!.forEach((v, i) => expect(x[i]).toBeCloseTo(v, 8));
    }
  });

  it('leave unknowns of which nothing is said where they are', () => {
    const x = solveDamped([{ at: [1], by: [2], weight: 1, right: 4 }], 3, 0, 1e-9);
    expect([...x].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0, 2, 0]);
    expect([...solveDamped([], 2, 1, 0.1)]).toEqual([0, 0]);
    expect(solveDamped([], 0, 1, 0.1).length).toBe(0);
  });
});
