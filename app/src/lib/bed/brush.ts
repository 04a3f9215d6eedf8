import { hexOf, isGradient, paintShapes, shapeHas, type Paint, type Point } from '@mirrot/core';
import type { Gesture } from '$lib/desk/changes';
import type { Desk } from '$lib/desk/desk.svelte';
import { FIRST_WEIGHT } from '$lib/edits/painting';
import type { BedPointer, Grip } from './behaviour';

// The brush: shapes are filled one after another with the fill of the next path as the pointer goes over them.

/** Screen pixels between the places of a swipe that are looked at, so that a fast one passes over nothing. */
const APART_PX = 3;

/** The topmost shape with an area in reach at a point. */
const shapeUnder = (desk: Desk, at: Point): string | null =>
  desk.choosing.inReach.findLast((shape) => shape.paths.some((p) => p.closed) && shapeHas(shape, at))?.id ??
  null;

export function gripBrush(desk: Desk, start: BedPointer): Grip {
  const { nextFill, palette } = desk.colouring;
  if (!nextFill) {
    desk.say('The brush has no colour: choose a chip, or sample one, with nothing chosen. Nothing was changed.', 'bad'); // prettier-ignore
    return {};
  }
  const paint: Paint = nextFill;
  const ids = new Set<string>();
  let gesture: Gesture | null = null;
  let last = start.sheet;
  const fills = (id: string): boolean => {
    const fill = desk.shapeOf(id)?.fill;
    return !fill || isGradient(fill) || hexOf(fill, palette) !== hexOf(nextFill, palette) || 'chip' in fill !== 'chip' in nextFill; // prettier-ignore
  };
  const reach = (to: Point): void => {
    const long = Math.hypot(to.x - last.x, to.y - last.y) * desk.looking.view.scale;
    const steps = Math.max(1, Math.ceil(long / APART_PX));
    const before = ids.size;
    for (let i = 1; i <= steps; i++) {
      const at = { x: last.x + ((to.x - last.x) * i) / steps, y: last.y + ((to.y - last.y) * i) / steps };
      const id = shapeUnder(desk, at);
      if (id && !ids.has(id) && fills(id)) ids.add(id);
    }
    last = to;
    if (ids.size === before) return;
    gesture ??= desk.gesture('Brush the fill');
    gesture.show(paintShapes([...ids], 'fill', paint, FIRST_WEIGHT));
  };
  const finish = (p: BedPointer): void => {
    reach(p.sheet);
    gesture?.keep();
  };
  return {
    drag: (p) => reach(p.sheet),
    release: finish,
    click: finish,
    cancel: () => gesture?.drop(),
  };
}
