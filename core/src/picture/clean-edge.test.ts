import { describe, expect, it } from 'vitest';
import { cleanEdge } from './clean-edge';
import type { Raster } from './raster';

const SIZE = 48;
const MIDDLE = SIZE / 2;
const [THING, OLD, NEW] = [[200, 60, 20], [240, 240, 250], [20, 30, 20]] as const; // prettier-ignore

/** How much of each pixel a disc covers, by 8 × 8 points in it. */
function disc(radius: number): Uint8ClampedArray {
  return Uint8ClampedArray.from({ length: SIZE * SIZE }, (_, i) => {
    let n = 0;
    for (let k = 0; k < 64; k++) {
      const [x, y] = [(i % SIZE) + ((k % 8) + 0.5) / 8, Math.floor(i / SIZE) + (Math.floor(k / 8) + 0.5) / 8];
      if (Math.hypot(x - MIDDLE, y - MIDDLE) <= radius) n++;
    }
    return (255 * n) / 64;
  });
}

/** A disc of one colour before another, as a camera mixes them: blurred over two pixels. */
function photo(radius: number): Raster {
  const data = new Uint8ClampedArray(4 * SIZE * SIZE);
  for (let i = 0; i < SIZE * SIZE; i++) {
    const d = Math.hypot((i % SIZE) + 0.5 - MIDDLE, Math.floor(i / SIZE) + 0.5 - MIDDLE) - radius;
    const share = 1 / (1 + Math.exp(d / 0.5));
    data.set([...THING.map((v, c) => v * share + OLD[c]! * (1 - share)), 255], 4 * i);
  }
  return { width: SIZE, height: SIZE, data };
}

/** The greatest difference of a channel to the thing itself laid on the new ground. Source: over, Porter and Duff (1984). */
function worst(cutout: Raster, coverage: Uint8ClampedArray): number {
  let most = 0;
  for (let i = 0; i < SIZE * SIZE; i++)
    for (let c = 0; c < 3; c++) {
      const a = cutout.data[4 * i + 3]! / 255;
      const laid = cutout.data[4 * i + c]! * a + NEW[c]! * (1 - a);
      const wished = (THING[c]! * coverage[i]! + NEW[c]! * (255 - coverage[i]!)) / 255;
      most = Math.max(most, Math.abs(laid - wished));
    }
  return most;
}

describe('cleanEdge', () => {
  it('leaves no rim of the old background', () => {
    const coverage = disc(15);
    const cleaned = cleanEdge(photo(15), coverage, coverage);
    expect(worst(cleaned, coverage)).toBeLessThan(4);
    // Without it there is one: a pale rim half as strong as the difference of the grounds.
    const plain = photo(15);
    for (let i = 0; i < SIZE * SIZE; i++) plain.data[4 * i + 3] = coverage[i]!;
    expect(worst(plain, coverage)).toBeGreaterThan(60);
  });

  it('carries the colours outward as far as a soft cut shows them', () => {
    const soft = disc(20);
    const cleaned = cleanEdge(photo(15), disc(15), soft);
    expect(worst(cleaned, soft)).toBeLessThan(4);
  });

  it('changes no pixel inside, and none where nothing lies far enough inside', () => {
    const before = photo(15);
    const coverage = disc(15);
    const cleaned = cleanEdge(before, coverage, coverage);
    const inner = disc(10);
    for (let i = 0; i < SIZE * SIZE; i++)
      if (inner[i]! > 0) expect([...cleaned.data.slice(4 * i, 4 * i + 4)]).toEqual([...before.data.slice(4 * i, 4 * i + 4)]); // prettier-ignore
    const thin = cleanEdge(photo(1.5), disc(1.5), disc(1.5));
    expect([...thin.data].filter((_, i) => i % 4 !== 3)).toEqual([...photo(1.5).data].filter((_, i) => i % 4 !== 3)); // prettier-ignore
  });

  it('keeps clear pixels clear and takes no colour from them', () => {
    const before = photo(15);
    for (let i = 0; i < SIZE * SIZE; i++) if (i % SIZE < MIDDLE) before.data.set([0, 255, 0, 0], 4 * i);
    const coverage = disc(15);
    const cleaned = cleanEdge(before, coverage, coverage);
    for (let i = 0; i < SIZE * SIZE; i++) {
      if (i % SIZE < MIDDLE) expect(cleaned.data[4 * i + 3]).toBe(0);
      else if (coverage[i]! > 0) expect(cleaned.data[4 * i + 1]).toBeLessThan(70);
    }
  });

  it('takes an empty picture, and refuses sizes that do not fit', () => {
    const none = new Uint8ClampedArray(0);
    expect(cleanEdge({ width: 0, height: 0, data: none }, none, none).data).toHaveLength(0);
    expect(() => cleanEdge(photo(5), none, none)).toThrow(/as many values/);
  });
});
