import { converter, differenceCiede2000, wcagContrast } from 'culori';
import { describe, expect, it } from 'vitest';
import { seeded } from '../testing';
import { rgbToCielab } from './cielab';
import { contrastRatio } from './contrast';
import { deltaE2000 } from './difference';
import { oklabToOklch, oklabToRgb, rgbToOklab } from './oklab';
import { formatHex, fromLinear, normaliseHex, parseHex, toLinear, type Rgb } from './srgb';

const random = seeded(21);
const colours: Rgb[] = Array.from({ length: 500 }, () => [random(), random(), random()]);
const culoriOf = ([r, g, b]: Rgb): { mode: 'rgb'; r: number; g: number; b: number } => ({
  mode: 'rgb',
  r,
  g,
  b,
});

// Source: IEC 61966-2-1; values from memory, cross-checked against culori.
describe('sRGB', () => {
  it('decodes and encodes as culori does, there and back', () => {
    const toLrgb = converter('lrgb');
    for (const c of colours) {
      expect(toLinear(c[0])).toBeCloseTo(toLrgb(culoriOf(c)).r, 9);
      expect(fromLinear(toLinear(c[1]))).toBeCloseTo(c[1], 9);
    }
    expect(toLinear(0.5)).toBeCloseTo(0.21404114, 8);
    expect(toLinear(0.04045)).toBeCloseTo(0.0031308, 6);
  });

  it('reads and writes hex, and says what is not a colour', () => {
    expect(normaliseHex(' 2F6B4F')).toBe('#2f6b4f');
    expect(normaliseHex('#fa0')).toBe('#ffaa00');
    expect(formatHex([1.2, -0.1, 0.5])).toBe('#ff0080');
    for (const bad of ['', '#12345', 'red', '#gggggg', '#1234567'])
      expect(() => parseHex(bad)).toThrow('is not a colour');
  });
});

describe('OKLab', () => {
  // Source: Ottosson, "A perceptual color space for image processing" (2020), table of XYZ–OKLab pairs: D65 white is
  // (1, 0, 0). Primaries as published in W3C CSS Color 4 and culori; from memory, three digits.
  it('gives the published values', () => {
    const [l, a, b] = rgbToOklab([1, 1, 1]);
    expect(l).toBeCloseTo(1, 6);
    expect(Math.hypot(a, b)).toBeLessThan(1e-6);
    expect(rgbToOklab([1, 0, 0]).map((v) => v.toFixed(3))).toEqual(['0.628', '0.225', '0.126']);
    expect(rgbToOklab([0, 1, 0]).map((v) => v.toFixed(3))).toEqual(['0.866', '-0.234', '0.179']);
    expect(rgbToOklab([0, 0, 1]).map((v) => v.toFixed(3))).toEqual(['0.452', '-0.032', '-0.312']);
  });

  it('agrees with culori to 1e-6 and comes back', () => {
    const oklab = converter('oklab');
    const oklch = converter('oklch');
    for (const c of colours) {
      const ours = rgbToOklab(c);
      const theirs = oklab(culoriOf(c));
      expect(ours[0]).toBeCloseTo(theirs.l, 6);
      expect(ours[1]).toBeCloseTo(theirs.a, 6);
      expect(ours[2]).toBeCloseTo(theirs.b, 6);
      const back = converter('rgb')({ mode: 'oklab', l: ours[0], a: ours[1], b: ours[2] });
      oklabToRgb(ours).forEach((v, i) => expect(v).toBeCloseTo([back.r, back.g, back.b][i]!, 6));
      oklabToRgb(ours).forEach((v, i) => expect(v).toBeCloseTo(c[i]!, 5));
      expect(oklabToOklch(ours)[2]).toBeCloseTo(oklch(culoriOf(c)).h ?? 0, 3);
    }
    expect(oklabToOklch(rgbToOklab([0.5, 0.5, 0.5]))[2]).toBe(0);
  });
});

describe('colour difference', () => {
  // Source: Sharma, Wu and Dalal (2005), table 1: all 34 pairs (values from memory, each also checked against culori).
  const pairs = [
    [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425], [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
    [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412], [50, -1.3802, -84.2814, 50, 0, -82.7485, 1],
    [50, -1.1848, -84.8006, 50, 0, -82.7485, 1], [50, -0.9009, -85.5211, 50, 0, -82.7485, 1],
    [50, 0, 0, 50, -1, 2, 2.3669], [50, -1, 2, 50, 0, 0, 2.3669],
    [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792], [50, 2.49, -0.001, 50, -2.49, 0.001, 7.1792],
    [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195], [50, 2.49, -0.001, 50, -2.49, 0.0012, 7.2195],
    [50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045], [50, -0.001, 2.49, 50, 0.001, -2.49, 4.8045],
    [50, -0.001, 2.49, 50, 0.0011, -2.49, 4.7461], [50, 2.5, 0, 50, 0, -2.5, 4.3065],
    [50, 2.5, 0, 73, 25, -18, 27.1492], [50, 2.5, 0, 61, -5, 29, 22.8977],
    [50, 2.5, 0, 56, -27, -3, 31.903], [50, 2.5, 0, 58, 24, 15, 19.4535],
    [50, 2.5, 0, 50, 3.1736, 0.5854, 1], [50, 2.5, 0, 50, 3.2972, 0, 1],
    [50, 2.5, 0, 50, 1.8634, 0.5757, 1], [50, 2.5, 0, 50, 3.2592, 0.335, 1],
    [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
    [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
    [61.2901, 3.7196, -5.3901, 61.4292, 2.248, -4.962, 1.8731],
    [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645],
    [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
    [36.4612, 47.858, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146],
    [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
    [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381],
    [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377],
    [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
  ] as const; // prettier-ignore

  it('gives Sharma’s 34 values to 1e-4', () => {
    const theirs = differenceCiede2000();
    expect(pairs).toHaveLength(34);
    for (const [l1, a1, b1, l2, a2, b2, e] of pairs) {
      const ours = deltaE2000([l1, a1, b1], [l2, a2, b2]);
      expect(Math.abs(ours - e)).toBeLessThan(1e-4);
      const lab = (l: number, a: number, b: number) => ({ mode: 'lab65', l, a, b }) as const;
      expect(ours).toBeCloseTo(theirs(lab(l1, a1, b1), lab(l2, a2, b2)), 6);
      expect(deltaE2000([l2, a2, b2], [l1, a1, b1])).toBeCloseTo(ours, 9);
    }
  });

  it('measures in CIELAB under D65 as culori does', () => {
    const lab = converter('lab65');
    for (const c of colours) {
      const theirs = lab(culoriOf(c));
      const ours = rgbToCielab(c);
      expect(ours[0]).toBeCloseTo(theirs.l, 4);
      expect(ours[1]).toBeCloseTo(theirs.a, 3);
      expect(ours[2]).toBeCloseTo(theirs.b, 3);
    }
  });
});

// Source: WCAG 2.2, definitions of relative luminance and contrast ratio; 21 and 4.54 are published examples.
it('measures contrast as WCAG 2.2 defines it', () => {
  expect(contrastRatio('#000000', '#ffffff')).toBeCloseTo(21, 3);
  expect(contrastRatio('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
  expect(Math.abs(contrastRatio('#d4561c', '#fbf7ee') - wcagContrast('#d4561c', '#fbf7ee'))).toBeLessThan(
    1e-3,
  );
});
