import type { Point } from '../geometry/vector';
import type { Unlikeness } from './unlikeness';

/** An edge of other colours than were learnt counts as so much less of an edge. */
export const STRANGE = 0.7;

/** What a wire has learnt of the edge it follows: the colours on its two sides. */
export interface Training {
  /** How far off an edge its sides' colours are read, pixels. */
  readonly beside: number;
  /** How far a colour is from that on the left of the way, and on the right, beyond what is usual: 0 alike, 1 another. */
  readonly left: Unlikeness;
  readonly right: Unlikeness;
  /** Whether left and right are known; else they may change places. */
  readonly oriented: boolean;
}

/**
 * The same for the picture made larger, in its pixels: what was learnt in a smaller one.
 *
 * @param ratio pixels of the larger that one of the smaller is wide
 */
export const learntInLarger = ({ beside, left, right, oriented }: Training, ratio: number): Training => ({
  beside: beside * ratio,
  left: (x, y) => left(x / ratio, y / ratio),
  right: (x, y) => right(x / ratio, y / ratio),
  oriented,
});

/**
 * How strange an edge is to what was learnt, 0 to 1, when one goes along it with (nx, ny) to the left, and to the right. Both
 * sides count: two edges close by share what lies between them.
 */
export function strangeTo(
  { beside, left, right, oriented }: Training,
  { x, y }: Point,
  { x: nx, y: ny }: Point,
): readonly [toLeft: number, toRight: number] {
  const [ax, ay, bx, by] = [x + beside * nx, y + beside * ny, x - beside * nx, y - beside * ny];
  const [leftA, leftB, rightA, rightB] = [left(ax, ay), left(bx, by), right(ax, ay), right(bx, by)];
  const [toLeft, toRight] = [(leftA + rightB) / 2, (leftB + rightA) / 2];
  const either = Math.min(toLeft, toRight);
  return oriented ? [toLeft, toRight] : [either, either];
}
