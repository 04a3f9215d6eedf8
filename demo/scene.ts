import type { Point } from '@mirrot/core';

/** Size of the badge's photograph, and where the corners of the sign's square lie in it, clockwise from its top left. */
export const BADGE_PHOTO = { width: 2000, height: 1500 } as const;
export const BADGE_CORNERS: readonly Point[] = [
  { x: 664, y: 352 },
  { x: 1388, y: 430 },
  { x: 1322, y: 1166 },
  { x: 610, y: 1186 },
];
