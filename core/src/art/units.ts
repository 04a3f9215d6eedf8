/** Units a sheet can be given in. */
export const UNITS = ['mm', 'cm', 'in', 'px'] as const;
export type Unit = (typeof UNITS)[number];

/** Sheet pixels to one of each unit. Source: W3C CSS Values 4, absolute lengths (96 px to the inch). */
export const PX_PER: Readonly<Record<Unit, number>> = {
  px: 1,
  in: 96,
  cm: 96 / 2.54,
  mm: 96 / 25.4,
};

/** Digits after the point with which a length in each unit is shown: about a hundredth of a sheet pixel. */
export const UNIT_DIGITS: Readonly<Record<Unit, number>> = { px: 1, in: 3, cm: 3, mm: 2 };

export const toPx = (value: number, unit: Unit): number => value * PX_PER[unit];
export const fromPx = (px: number, unit: Unit): number => px / PX_PER[unit];

/** A length of sheet pixels in `unit`, with the unit's name: "58.42 mm". */
export const formatLength = (px: number, unit: Unit): string =>
  `${fromPx(px, unit).toFixed(UNIT_DIGITS[unit])} ${unit}`;
