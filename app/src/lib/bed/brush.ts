import { hexOf, isGradient, paintShapes, shapeHas, type Paint, type Point } from '@mirrot/core';
import type { Gesture } from '$lib/desk/changes';
import type { Desk } from '$lib/desk/desk.svelte';
import { FIRST_WEIGHT } from '$lib/edits/painting';
import type { BedPointer, Grip } from './behaviour';
import { swipePlaces } from './swipe';

// The brush: shapes are filled one after another with the fill of the next path as the pointer goes over them.

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
    const before = ids.size;
    for (const at of swipePlaces(last, to, desk.looking.view.scale)) {
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
