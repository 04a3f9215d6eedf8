import type { Unit } from '@mirrot/core';

export interface SheetSize {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly unit: Unit;
}

/**
 * Sizes of sheets by name. A sizes: ISO 216. US letter: ANSI/ASME Y14.1, 8½ × 11 in (from memory). The square sticker
 * and the screen sizes are common practice, no source.
 */
export const SHEETS: readonly SheetSize[] = [
  { name: 'A2', width: 420, height: 594, unit: 'mm' },
  { name: 'A3', width: 297, height: 420, unit: 'mm' },
  { name: 'A4', width: 210, height: 297, unit: 'mm' },
  { name: 'A5', width: 148, height: 210, unit: 'mm' },
  { name: 'A6', width: 105, height: 148, unit: 'mm' },
  { name: 'A7', width: 74, height: 105, unit: 'mm' },
  { name: 'US letter', width: 8.5, height: 11, unit: 'in' },
  { name: 'Square sticker, 50 mm', width: 50, height: 50, unit: 'mm' },
  { name: 'Square sticker, 75 mm', width: 75, height: 75, unit: 'mm' },
  { name: 'Screen, 1280 × 720', width: 1280, height: 720, unit: 'px' },
  { name: 'Screen, 1920 × 1080', width: 1920, height: 1080, unit: 'px' },
  { name: 'Icon, 512 px', width: 512, height: 512, unit: 'px' },
];

/** Rectangles people have at hand. Paper: ISO 216; cards: ISO/IEC 7810 ID-1, 85.60 × 53.98 mm (from memory). */
export const KNOWN: readonly SheetSize[] = [
  { name: 'A paper, upright', width: 210, height: 297, unit: 'mm' },
  { name: 'A paper, across', width: 297, height: 210, unit: 'mm' },
  { name: 'US letter, upright', width: 8.5, height: 11, unit: 'in' },
  { name: 'US letter, across', width: 11, height: 8.5, unit: 'in' },
  { name: 'Bank card', width: 85.6, height: 53.98, unit: 'mm' },
  { name: 'Square', width: 1, height: 1, unit: 'in' },
];
