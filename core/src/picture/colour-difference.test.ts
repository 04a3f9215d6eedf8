import { differenceCiede2000 } from 'culori';
import { describe, expect, it } from 'vitest';
import { seeded } from '../testing';
import { colourDifference, DARKEST_DIFFERENCE, differencePixels } from './colour-difference';
import type { Raster } from './raster';

const raster = (width: number, height: number, of: (x: number, y: number) => readonly number[]): Raster => {
  const data = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data.set(of(x, y), 4 * (y * width + x));
  return { width, height, data };
};

describe('the difference of colour', () => {
  it('is CIEDE2000, pixel by pixel, and its mean and share beyond 5 (source outside: culori)', () => {
    const random = seeded(5);
    const any = (): number[] => [...Array.from({ length: 3 }, () => Math.floor(256 * random())), 255];
    const [a, b] = [raster(40, 30, any), raster(40, 30, any)];
    const found = colourDifference(a, b);
    const theirs = differenceCiede2000();
    const colour = ({ data }: Raster, i: number) => ({ mode: 'rgb' as const, r: data[4 * i]! / 255, g: data[4 * i + 1]! / 255, b: data[4 * i + 2]! / 255 }); // prettier-ignore
    const all = Array.from({ length: 1200 }, (_, i) => theirs(colour(a, i), colour(b, i)));
    // culori goes by D65 white; so does ours (CSS Color 4 has D50 for lab()).
    all.forEach((far, i) => expect(Math.abs(found.deltaE[i]! - far)).toBeLessThan(0.01 + 0.002 * far));
    expect(found.mean).toBeCloseTo(all.reduce((sum, far) => sum + far, 0) / 1200, 1);
    expect(found.beyond).toBeCloseTo(all.filter((far) => far > 5).length / 1200, 2);
    expect(found.compared).toBe(1);
  });

  it('leaves out what is clear in either, and is nothing where nothing is drawn', () => {
    const grey = raster(4, 1, (x) => [128, 128, 128, x === 0 ? 0 : x === 1 ? 120 : 255]);
    const same = raster(4, 1, (x) => [128, 128, 128, x === 2 ? 0 : 255]);
    const found = colourDifference(grey, same);
    expect([...found.deltaE].map(Number.isNaN)).toEqual([true, true, true, false]);
    expect([found.mean, found.beyond, found.compared]).toEqual([0, 0, 0.25]);
    const clear = raster(4, 1, () => [0, 0, 0, 0]);
    expect(colourDifference(clear, same).mean).toBeNaN();
    expect(() =>
      colourDifference(
        clear,
        raster(2, 2, () => [0, 0, 0, 0]),
      ),
    ).toThrow(/4 × 1 and 2 × 2/);
  });

  it('is drawn light to dark, clear where nothing was compared', () => {
    const { data } = differencePixels({ width: 4, height: 1, deltaE: Float32Array.from([NaN, 0, DARKEST_DIFFERENCE / 2, 99]), mean: 0, beyond: 0, compared: 1 }); // prettier-ignore
    const light = (i: number): number => data[4 * i]! + data[4 * i + 1]! + data[4 * i + 2]!;
    expect(data[3]).toBe(0);
    expect(light(1)).toBeGreaterThan(light(2));
    expect(light(2)).toBeGreaterThan(light(3));
  });
});
