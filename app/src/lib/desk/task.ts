import type { Box, Point } from '@mirrot/core';

/** What presses on the bed do in Mount instead of moving the picture. */
export type Task =
  | { readonly kind: 'level' }
  | { readonly kind: 'real-size' }
  | { readonly kind: 'origin' }
  /** The crop as it would be, in seen pixels of the picture, and the width to height it keeps. */
  | { readonly kind: 'crop'; readonly box: Box; readonly ratio: number | null };

/** A line drawn over the picture, in sheet pixels. */
export interface Rule {
  readonly from: Point;
  readonly to: Point;
}

/** What a task asks of the hand. */
export const TASK_WORDS: Readonly<Record<Task['kind'], string>> = {
  level: 'Draw a line along something that should be level or upright.',
  'real-size': 'Draw a line over a length you know.',
  origin: 'Click the point of the picture that goes to the place chosen in the panel.',
  crop: 'Drag a corner or side. Enter crops, Esc leaves it.',
};
