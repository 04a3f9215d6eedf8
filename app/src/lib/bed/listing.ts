import { type Shape } from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import type { BedPointer } from './behaviour';
import { fieldOf, hitTest } from './hit';

/** Every open shape lying at a spot, topmost first: its line passes there, or its inside holds it. */
export function shapesAt(desk: Desk, p: BedPointer): Shape[] {
  const field = fieldOf(desk, p);
  return desk.choosing.inReach
    .filter(
      (s) => hitTest({ ...field, shapes: [s], choice: { ...field.choice, anchors: [] } }, p.sheet) !== null,
    )
    .reverse();
}
