import type { Point } from '@mirrot/core';
import type { Looking } from '$lib/desk/looking.svelte';

/** Pixels of one line and one page, for wheels that count so. */
const WHEEL_UNIT_PX = [1, 32, 400];

/**
 * What the wheel does to the view: it scrolls, sideways with Shift, and zooms about a place with Ctrl or ⌘ (so does a pinch).
 *
 * @param at the pointer, bed pixels
 */
export function lookByWheel(looking: Looking, e: WheelEvent, at: Point): void {
  const k = WHEEL_UNIT_PX[e.deltaMode] ?? 1;
  if (e.ctrlKey || e.metaKey) looking.zoom(Math.exp((-e.deltaY * k) / 300), at);
  else if (e.shiftKey && e.deltaX === 0) looking.pan(-e.deltaY * k, 0);
  else looking.pan(-e.deltaX * k, -e.deltaY * k);
}
