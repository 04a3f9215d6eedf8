import { describe, expect, it } from 'vitest';
import { normalQuantile, normalShare } from './normal';

// Published values of the normal distribution (Abramowitz & Stegun, table 26.1 and 26.5; from memory).
describe('the normal distribution', () => {
  it.each([
    [0, 0.5],
    [1, 0.8413447461],
    [1.96, 0.9750021049],
    [-2, 0.0227501319],
    [3, 0.998650102],
  ])('has below %d deviations a share of %d, and the other way round', (x, share) => {
    expect(Math.abs(normalShare(x) - share)).toBeLessThan(1e-7);
    expect(Math.abs(normalQuantile(share) - x)).toBeLessThan(1e-4);
  });

  it('stays finite for shares of nothing and of all', () => {
    expect([normalQuantile(0), normalQuantile(1)].map((v) => Math.round(v * 10))).toEqual([-37, 37]);
  });
});
