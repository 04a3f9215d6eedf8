import { expect, it } from 'vitest';
import { seeded } from './seed';

it('gives the same numbers for the same seed, spread evenly from 0 up to 1', () => {
  const take = (seed: number, n: number): number[] => {
    const random = seeded(seed);
    return Array.from({ length: n }, random);
  };
  expect(take(7, 20)).toEqual(take(7, 20));
  expect(take(7, 20)).not.toEqual(take(8, 20));
  const many = take(3, 20_000);
  expect(Math.min(...many)).toBeGreaterThanOrEqual(0);
  expect(Math.max(...many)).toBeLessThan(1);
  for (let tenth = 0; tenth < 10; tenth++) {
    const share = many.filter((v) => Math.floor(v * 10) === tenth).length / many.length;
    expect(Math.abs(share - 0.1)).toBeLessThan(0.01);
  }
});
