import { describe, expect, it } from 'vitest';
import { parsePathData } from '../path/data';
import { circlePath } from '../testing';
import { barAt } from './bar-at';
import { photographed, type Area } from './testing';

const INK = [40, 60, 140] as const;
const PAPER = [235, 228, 210] as const;
const path = (d: string) => parsePathData(d)[0]!;
/** A bar of a width, slanting through (100, 100). */
const bar = (width: number): Area => {
  const [x, y] = [Math.cos(0.4), Math.sin(0.4)];
  const at = (along: number, aside: number): string =>
    `${100 + along * x - aside * y} ${100 + along * y + aside * x}`;
  return {
    path: path(`M${at(-90, -width / 2)}L${at(90, -width / 2)}L${at(90, width / 2)}L${at(-90, width / 2)}Z`),
    rgb: INK,
  };
};
const seen = (areas: readonly Area[], more = {}) =>
  photographed(200, 200, areas, PAPER, { blur: 1, grain: 3, ...more });

describe('a thin bar', () => {
  it('is told by its middle, with its width, dark or bright, soft or sharp', () => {
    for (const width of [3, 6, 12, 20])
      for (const blur of [0.5, 1.5]) {
        const found = barAt(seen([bar(width)], { blur }), { x: 100.5, y: 100 }, 24)!;
        expect(Math.abs(found.width - width)).toBeLessThan(1.2 + blur);
        // Its middle goes through (100, 100) at an angle of 0.4.
        expect(
          Math.abs((found.at.y - 100) * Math.cos(0.4) - (found.at.x - 100) * Math.sin(0.4)),
        ).toBeLessThan(0.8);
      }
    // Blurred light makes what is bright look wider, and what is dark thinner.
    const chalk = { ...bar(8), rgb: PAPER };
    expect(
      barAt(photographed(200, 200, [chalk], INK, { blur: 1, grain: 3 }), { x: 100, y: 101 }, 24)!.width,
    ).toBeGreaterThan(8);
  });

  it('is seen from beside it where it is too thin to be aimed at, and by its end', () => {
    const aside = (d: number) => ({ x: 100 - d * Math.sin(0.4), y: 100 + d * Math.cos(0.4) });
    const thin = seen([bar(4)]);
    expect(barAt(thin, aside(6), 24)).toBeNull();
    expect(barAt(thin, aside(6), 24, 8)!.width).toBeLessThan(6);
    expect(barAt(thin, aside(14), 24, 8)).toBeNull();
    expect(barAt(seen([bar(18)]), aside(8), 24, 8)).toBeNull();
    const end = { x: 100 + 88 * Math.cos(0.4), y: 100 + 88 * Math.sin(0.4) };
    expect(barAt(thin, end, 24)!.width).toBeLessThan(6);
    // A tip is none: farther on it is wider.
    const tip = seen([{ path: path('M20 100L180 70L180 130Z'), rgb: INK }]);
    for (const x of [30, 36, 44]) expect(barAt(tip, { x, y: 100 }, 24, 8)).toBeNull();
  });

  it('is seen where a stroke bends', () => {
    const rings = seen([
      { path: circlePath(100, 100, 60), rgb: INK },
      { path: circlePath(100, 100, 53), rgb: PAPER },
    ]);
    for (const a of [0, 0.7, 2, 4])
      expect(
        7 - barAt(rings, { x: 100 + 56.5 * Math.cos(a), y: 100 + 56.5 * Math.sin(a) }, 24)!.width,
      ).toBeLessThan(1.5);
  });

  it('is not an area, its border, a dot, a wider bar, or what has two things beside it', () => {
    const disc = seen([{ path: circlePath(100, 100, 50), rgb: INK }]);
    for (const x of [100, 140, 150, 152, 180]) expect(barAt(disc, { x, y: 100 }, 24)).toBeNull();
    expect(barAt(seen([{ path: circlePath(100, 100, 5), rgb: INK }]), { x: 100, y: 100 }, 24)).toBeNull();
    expect(barAt(seen([bar(34)]), { x: 100, y: 100 }, 24)).toBeNull();
    // Its border, pressed on a wide one, is that border.
    expect(barAt(seen([bar(20)]), { x: 100 - 9 * Math.sin(0.4), y: 100 + 9 * Math.cos(0.4) }, 24)).toBeNull();
    // Between two areas: a band of one beside another.
    const between = seen([
      { path: path('M0 0L200 0L200 94L0 94Z'), rgb: [60, 120, 70] },
      { path: path('M0 94L200 94L200 104L0 104Z'), rgb: INK },
    ]);
    expect(barAt(between, { x: 100, y: 99 }, 24)).toBeNull();
  });

  it('is not seen in grain alone, nor out of the picture', () => {
    const grain = seen([], { grain: 12 });
    let found = 0;
    for (let k = 0; k < 200; k++)
      if (barAt(grain, { x: 20 + (k % 20) * 8, y: 20 + Math.floor(k / 20) * 16 }, 24)) found++;
    expect(found).toBeLessThan(3);
    expect(barAt(grain, { x: -5, y: 20 }, 24)).toBeNull();
    expect(() => barAt(grain, { x: 20, y: 20 }, 0)).toThrow('above 0');
  });
});
