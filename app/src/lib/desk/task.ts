import type { Box, Crossed, Point } from '@mirrot/core';

/** What presses on the bed do instead of what the step says. */
export type Task =
  | { readonly kind: 'level' }
  | { readonly kind: 'real-size' }
  | { readonly kind: 'origin' }
  /** Where the axis begins once its first point is clicked. */
  | { readonly kind: 'mirror-axis'; readonly from: Point | null; readonly own: Rule | null }
  | { readonly kind: 'turn-axis' }
  /** Areas that lines enclose are filled; pieces of lines between crossings are taken away. */
  | { readonly kind: 'pour' | 'weed' }
  /** The point that numbers count from and boxes turn about; the centre that copies stand round. */
  | { readonly kind: 'about' | 'ring-centre' }
  /** Distance, angle and the picture's stroke along a line. */
  | { readonly kind: 'measure'; readonly line: Rule | null; readonly crossed: Crossing | null }
  /** The shape pressed next: what is chosen goes right beneath it, takes its look, or is text that stands on its line. */
  | { readonly kind: 'go-under' | 'take-look' | 'stand-on' }
  /** The crop as it would be, in seen pixels of the picture, and the width to height it keeps. */
  | { readonly kind: 'crop'; readonly box: Box; readonly ratio: number | null };

/** What a line crosses of the picture; lengths in picture pixels. */
export interface Crossing extends Pick<Crossed, 'between' | 'width'> {
  /** Where it crosses edges, shares of its length. */
  readonly shares: readonly number[];
}

/** A line drawn over the picture, in sheet pixels. */
export interface Rule {
  readonly from: Point;
  readonly to: Point;
}

/** Tasks of one press on a shape. */
export const asksForShape = (
  task: Task | null,
): task is Extract<Task, { kind: 'go-under' | 'take-look' | 'stand-on' }> =>
  task?.kind === 'go-under' || task?.kind === 'take-look' || task?.kind === 'stand-on';

/** What a task asks of the hand. */
export const TASK_WORDS: Readonly<Record<Task['kind'], string>> = {
  level: 'Draw a line along something that should be level or upright.',
  'real-size': 'Draw a line over a length you know.',
  origin: 'Click the point of the picture that goes to the place chosen in the panel.',
  'mirror-axis': 'Draw a line, or click two points, where the middle is.',
  'turn-axis': 'Click the centre about which the parts are turned.',
  about: 'Click the point to turn and scale about.',
  'ring-centre': 'Click the centre that the copies stand round. Esc leaves it.',
  measure: 'Drag from one thing to another. Shift keeps to steps of 45°, Esc ends.',
  'go-under': 'Press the shape that what is chosen goes under. Esc leaves it.',
  'take-look': 'Press the shape whose fill, line and opacity it takes. Esc leaves it.',
  'stand-on': 'Press the line that the text stands on. Esc leaves it.',
  pour: 'Click an area that lines enclose, or drag through several. Esc ends.',
  weed: 'Swipe across pieces of line between crossings. Esc ends.',
  crop: 'Drag a corner or side. Enter crops, Esc leaves it.',
};
