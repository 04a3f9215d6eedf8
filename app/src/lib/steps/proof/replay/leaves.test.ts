import { expect, it } from 'vitest';
import { leavesOf } from './leaves';

it('each change has a leaf, larger for more anchors, by turns on either side', () => {
  const leaves = leavesOf(Int32Array.from([0, 1, 1, 41]), 100);
  expect(leaves.map(({ changes }) => changes)).toEqual([1, 2, 3]);
  expect(leaves.map(({ at }) => at)).toEqual([1 / 3, 2 / 3, 1]);
  expect(leaves.map(({ up }) => up)).toEqual([true, false, true]);
  expect(leaves[1]!.size).toBe(0);
  expect(leaves[2]!.size).toBeGreaterThan(leaves[0]!.size);
});

it('thousands share the room there is, and none is lost', () => {
  const leaves = leavesOf(
    Int32Array.from({ length: 5001 }, (_, i) => i),
    200,
  );
  expect(leaves.length).toBeLessThanOrEqual(200);
  expect(leaves.at(-1)!.changes).toBe(5000);
  expect(leavesOf(Int32Array.from([7]), 200)).toEqual([]);
});
