import { describe, expect, it } from 'vitest';
import { PX_PER } from '@mirrot/core';
import { ppiVerdict } from '$lib/steps/mount/verdict';
import { age } from '$lib/ui/ages';
import { nameFromFile, sheetOfPicture } from './start';

describe('a new project', () => {
  it('is named after its file', () => {
    expect(nameFromFile('watering-can.jpg')).toBe('Watering can');
    expect(nameFromFile('IMG_0042.HEIC.png')).toBe('IMG 0042.HEIC');
    expect(nameFromFile('.png')).toBe('Untitled');
    expect(nameFromFile('צמח.svg')).toBe('צמח');
    expect(nameFromFile(`${'x'.repeat(600)}.png`)).toHaveLength(500);
  });

  // Source: CSS Values 4 (96 px to the inch).
  it('has a sheet as large as the picture: by a scan’s ppi, else a pixel to a sheet pixel', () => {
    expect(sheetOfPicture({ width: 600, height: 300, ppi: 300 })).toEqual({
      width: 192,
      height: 96,
      unit: 'mm',
    });
    expect(sheetOfPicture({ width: 600, height: 300, ppi: 72 })).toEqual({
      width: 600,
      height: 300,
      unit: 'px',
    });
    expect(sheetOfPicture({ width: 600, height: 300, ppi: null }).unit).toBe('px');
    expect(192 / PX_PER.mm).toBeCloseTo(50.8, 9);
  });

  // 300 ppi for print: common practice, no source. 96 px to the inch of a screen: CSS Values 4.
  it('says plainly what its pixels are good for', () => {
    expect([300, 299.9, 149, 95].map(ppiVerdict).map((s) => s.slice(0, 10))).toEqual([
      'Enough pix',
      'Enough for',
      'Enough for',
      'Few pixels',
    ]);
  });

  it('has an age in words', () => {
    const now = Date.parse('2026-06-10T12:00:00Z');
    expect(age('2026-06-10T11:59:30Z', now)).toBe('just now');
    expect(age('2026-06-10T09:00:00Z', now)).toBe('3 hours ago');
    expect(age('2026-06-09T12:00:00Z', now)).toBe('yesterday');
  });
});
