import type { Point } from '@mirrot/core';

/** Screen pixels between the places of a swipe that are looked at, so that a fast one passes over nothing. */
const SWIPE_STEP_PX = 3;

/** Places along a piece of a swipe, its end last. */
export function swipePlaces(from: Point, to: Point, scale: number): Point[] {
  const long = Math.hypot(to.x - from.x, to.y - from.y) * scale;
  const steps = Math.max(1, Math.ceil(long / SWIPE_STEP_PX));
  return Array.from({ length: steps }, (_, i) => {
    const k = (i + 1) / steps;
    return { x: from.x + (to.x - from.x) * k, y: from.y + (to.y - from.y) * k };
  });
}
