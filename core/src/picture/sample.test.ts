import { describe, expect, it } from 'vitest';
import { formatHex, parseHex } from '../colour/srgb';
import { chooseInk, INKS, washed } from '../trace/ink';
import { pathOf, anchor, circlePath } from '../testing';
import { pixelAt, type Raster } from './raster';
import { sampleDisc } from './sample';

/** A picture whose pixel colours are given by column and row; null for clear. */
function raster(width: number, height: number, colour: (x: number, y: number) => string | null): Raster {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const hex = colour(x, y);
      if (hex) data.set([...parseHex(hex).map((v) => v * 255), 255], (y * width + x) * 4);
    }
  return { width, height, data };
}

const halves = raster(20, 10, (x) => (x < 10 ? '#202020' : '#f0f0f0'));

describe('sampling', () => {
  it('reads one pixel, and nothing outside or where it is clear', () => {
    expect(formatHex(pixelAt(halves, 9, 0)!)).toBe('#202020');
    expect(pixelAt(halves, 20, 0)).toBeNull();
    expect(pixelAt(halves, -1, 0)).toBeNull();
    expect(
      pixelAt(
        raster(1, 1, () => null),
        0,
        0,
      ),
    ).toBeNull();
  });

  it('takes the middle value of a disc: stray pixels do not count', () => {
    const speckled = raster(21, 21, (x, y) => ((x * 7 + y * 13) % 5 === 0 ? '#ff00ff' : '#3a7d44'));
    expect(formatHex(sampleDisc(speckled, 10.5, 10.5, 8)!)).toBe('#3a7d44');
  });

  it('takes only pixels whose centres lie within it', () => {
    expect(formatHex(sampleDisc(halves, 8, 5, 1.9)!)).toBe('#202020');
    expect(formatHex(sampleDisc(halves, 12, 5, 1.9)!)).toBe('#f0f0f0');
    // Half and half: for an even count the mean of the two middle values lies between.
    const middle = parseHex(formatHex(sampleDisc(halves, 10, 5, 4)!))[0];
    expect(middle).toBeGreaterThan(0.2);
    expect(middle).toBeLessThan(0.85);
  });

  it('samples the pixel it lies in when smaller than a pixel', () => {
    expect(formatHex(sampleDisc(halves, 9.9, 0.1, 0)!)).toBe('#202020');
    expect(formatHex(sampleDisc(halves, 10, 0.1, 0.3)!)).toBe('#f0f0f0');
  });

  it('leaves clear pixels out, and is null where there are no others', () => {
    const holed = raster(9, 9, (x) => (x < 4 ? null : '#123456'));
    expect(formatHex(sampleDisc(holed, 4, 4, 4)!)).toBe('#123456');
    expect(sampleDisc(holed, 1, 4, 1)).toBeNull();
    expect(sampleDisc(halves, 99, 99, 3)).toBeNull();
  });
});

describe('tracing ink', () => {
  const at = [1, 0, 0, 1, 0, 0] as const;
  const line = pathOf([anchor(2, 5), anchor(18, 5)]);

  it('stands out from the picture under the line', () => {
    const white = raster(20, 10, () => '#ffffff');
    const black = raster(20, 10, () => '#101010');
    expect(chooseInk([line], white, at, 0, null)).toBe('#22252b');
    expect(chooseInk([line], black, at, 0, null)).toBe('#fffdf6');
    const blue = raster(20, 10, () => '#2340c7');
    expect(chooseInk([line], blue, at, 0, null)).not.toBe('#2340c7');
  });

  it('stays as it is unless another gains more than ΔE 10', () => {
    const grey = raster(20, 10, () => '#e8e8e8');
    expect(chooseInk([line], grey, at, 0, '#0f6b3c')).not.toBe('#fffdf6');
    const teal = raster(20, 10, () => '#1f7a6d');
    const best = chooseInk([line], teal, at, 0, null);
    expect(chooseInk([line], teal, at, 0, best)).toBe(best);
  });

  it('falls back where there is no picture, and for a lone anchor samples its spot', () => {
    expect(chooseInk([circlePath(500, 500, 3)], halves, at, 0, null)).toBe(INKS[0].hex);
    expect(chooseInk([circlePath(500, 500, 3)], halves, at, 0, '#b0127b')).toBe('#b0127b');
    expect(chooseInk([pathOf([anchor(15, 5)])], halves, at, 0, null)).toBe('#22252b');
    expect(chooseInk([line], halves, [0, 0, 0, 0, 0, 0], 0, null)).toBe(INKS[0].hex);
  });

  it('is judged against the picture as Wash shows it', () => {
    expect(washed([1, 0, 0], 0)).toEqual([1, 0, 0]);
    const [r, g, b] = washed([1, 0, 0], 100);
    expect(r).toBeCloseTo(g, 12);
    expect(g).toBeCloseTo(b, 12);
    expect(r).toBeGreaterThan(0.6);
  });
});
