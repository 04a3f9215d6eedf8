import { describe, expect, it } from 'vitest';
import { LINEAR_OF_BYTE } from '../colour/srgb';
import { normalQuantile } from '../geometry/normal';
import { squarePath } from '../testing';
import type { AcrossEdge } from './across-rows';
import { placesAcross } from './edge-profile';
import { looksHalfWay } from './looks-half-way';
import { photographed, type Levels } from './testing';

const DARK: Levels = [46, 84, 70];
const PALE: Levels = [228, 218, 196];
/** A straight step at x = 60.3, dark on its left. */
const step = (blur: number, grain = 0, dark = DARK, pale = PALE) =>
  photographed(120, 60, [{ path: squarePath(-100, -100, 160.3), rgb: dark }], pale, { blur, grain });
const upright = (x: number): AcrossEdge[] =>
  Array.from({ length: 30 }, (_, i) => ({ at: { x, y: 15 + i }, n: { x: 1, y: 0 } }));
const mean = (v: Float64Array): number => v.reduce((s, x) => s + x, 0) / v.length;

// Source: steps of known blur and noise (Elder and Zucker 1998; CHECKS asks for blur within 10 %, place within 0.1 px).
describe('the place of a blurred step', () => {
  it.each([0.6, 1, 1.5, 2.5, 3.5])(
    'is the true one at a blur of %d, which is told too, grain or not',
    (blur) => {
      for (const [grain, within] of [
        [0, 0.06],
        [4, 0.1],
      ] as const)
        for (const from of [60, 61.2, 59]) {
          const { off, blur: told } = placesAcross(step(blur, grain), upright(from), 'true');
          expect(Math.abs(from + mean(off) - 60.3)).toBeLessThan(within);
          // A pixel's own extent counts with the lens's.
          expect(Math.abs(mean(told) / Math.sqrt(blur ** 2 + 1 / 12) - 1)).toBeLessThan(
            blur < 1 ? 0.12 : 0.1,
          );
        }
    },
  );

  it('is as far off as it looks where half way in lightness lies elsewhere than half way in light', () => {
    // OKLab L of greys is the cube root of their light: here 0.3 and 0.9 (Ottosson 2020), so half way is at 0.6.
    const grey = (l: number): Levels => {
      const v = Math.round(255 * (1.055 * (l ** 3) ** (1 / 2.4) - 0.055));
      return [v, v, v];
    };
    for (const blur of [1, 2.5]) {
      const { off } = placesAcross(step(blur, 0, grey(0.3), grey(0.9)), upright(60), 'looks');
      const share = (0.6 ** 3 - 0.3 ** 3) / (0.9 ** 3 - 0.3 ** 3);
      const expected = 60.3 + Math.sqrt(blur ** 2 + 1 / 12) * normalQuantile(share);
      expect(Math.abs(60 + mean(off) - expected)).toBeLessThan(0.08);
    }
  });

  it('is told of white beside clear, and not of even ground', () => {
    const clear = step(0.7, 0, [255, 255, 255], [255, 255, 255]);
    expect(placesAcross(clear, upright(60), 'looks').off.every(Number.isNaN)).toBe(true);
    for (let i = 0; i < 120 * 60; i++) if (i % 120 >= 60) clear.data[4 * i + 3] = 0;
    const { off } = placesAcross(clear, upright(60.5), 'looks');
    expect(Math.abs(60.5 + mean(off) - 60)).toBeLessThan(0.1);
  });

  // Two borders, the one to the right up to seven times as strong: both are where they were painted, in light and as they look.
  it.each([
    [140, 150, 130],
    [96, 128, 108],
  ] as const)('keeps to the step it was asked of when a stronger one lies four pixels on', (...between) => {
    for (const [blur, grain, within] of [
      [0.7, 0, { true: 0.1, looks: 0.15 }],
      [0.8, 0, { true: 0.1, looks: 0.15 }],
      [0.9, 2, { true: 0.3, looks: 0.3 }],
    ] as const) {
      const both = photographed(
        120,
        60,
        [
          { path: squarePath(-100, -100, 164.3), rgb: between },
          { path: squarePath(-100, -100, 160.3), rgb: DARK },
        ],
        PALE,
        { blur, grain },
      );
      for (const [from, truth, colours] of [
        [60.5, 60.3, [DARK, between]],
        [64.5, 64.3, [between, PALE]],
      ] as const) {
        const light = colours.map((rgb) => rgb.map((v) => LINEAR_OF_BYTE[v]!));
        const looks = truth + Math.sqrt(blur ** 2 + 1 / 12) * normalQuantile(looksHalfWay(light[0]!, light[1]!)); // prettier-ignore
        for (const [kind, place] of [
          ['true', truth],
          ['looks', looks],
        ] as const)
          expect(Math.abs(from + mean(placesAcross(both, upright(from), kind).off) - place)).toBeLessThan(
            within[kind],
          );
      }
    }
  });
});
