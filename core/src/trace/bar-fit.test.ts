import { describe, expect, it } from 'vitest';
import { normalShare } from '../geometry/normal';
import { seeded } from '../seed';
import { fitBar } from './bar-fit';

// The closed form: a box through a Gaussian.
const profile = (
  middle: number,
  width: number,
  blur: number,
  height = 1,
  slope = 0,
  noise = 0,
): Float64Array => {
  const random = seeded(5);
  return Float64Array.from({ length: 61 }, (_, i) => {
    const x = (i - 30) * 0.5 - middle;
    return 0.3 + slope * x + height * (normalShare((x + width / 2) / blur) - normalShare((x - width / 2) / blur)) + noise * (random() - 0.5); // prettier-ignore
  });
};

describe('a bar through a blur', () => {
  it('is told by its width and its blur together, dark or bright, aside, on ground that slopes', () => {
    for (const width of [3, 6, 12])
      for (const blur of [0.6, 1.1])
        for (const [middle, height, slope] of [
          [0, 1, 0],
          [0.7, -0.5, 0.01],
          [-1.2, 0.05, 0],
        ] as const) {
          // prettier-ignore
          const found = fitBar(profile(middle, width, blur, height, slope), 0.5, width * 1.3)!;
          expect(found.width).toBeCloseTo(width, 3);
          expect(found.blur).toBeCloseTo(blur, 3);
          expect(found.middle).toBeCloseTo(middle, 3);
          expect(found.off).toBeLessThan(1e-3);
        }
  });

  it('stands grain, of which it tells what is left', () => {
    const found = fitBar(profile(0.2, 6, 1, 1, 0, 0.06), 0.5, 5)!;
    expect(Math.abs(found.width - 6)).toBeLessThan(0.15);
    expect(found.off).toBeCloseTo(0.06 / Math.sqrt(12), 2);
  });

  it('is none of nothing', () => {
    expect(fitBar(new Float64Array(61).fill(0.4), 0.5, 5)).toBeNull();
    expect(fitBar([], 0.5, 5)).toBeNull();
  });
});
