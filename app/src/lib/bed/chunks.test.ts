import { expect, test } from 'vitest';
import { chunker } from './chunks';

const numbers = (count: number): { n: number }[] => Array.from({ length: count }, (_, n) => ({ n }));

test('chunks hold the list in order, and none is empty', () => {
  for (const count of [0, 1, 63, 64, 65, 128, 200]) {
    const list = numbers(count);
    const chunks = chunker<{ n: number }>()(list);
    expect(chunks.flat()).toEqual(list);
    expect(chunks.every((c) => c.length > 0)).toBe(true);
  }
});

test('only the chunk in which something changed is another array', () => {
  const chunked = chunker<{ n: number }>();
  const list = numbers(300);
  const before = chunked(list);
  const after = chunked(list.with(130, { n: -1 }));
  expect(after.map((c, i) => c === before[i])).toEqual([true, true, false, true, true]);
  expect(after.flat()[130]).toEqual({ n: -1 });
});

test('a list grown at its end keeps the full chunks before it', () => {
  const chunked = chunker<{ n: number }>();
  const list = numbers(130);
  const before = chunked(list);
  const after = chunked([...list, { n: 130 }]);
  expect(after.map((c, i) => c === before[i])).toEqual([true, true, false]);
  expect(chunked([])).toEqual([]);
});
