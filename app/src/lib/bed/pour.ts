import type { Point } from '@mirrot/core';
import type { Gesture } from '$lib/desk/changes';
import type { Desk } from '$lib/desk/desk.svelte';
import { newPour, pourRecipe, type Pour } from '$lib/edits/pouring';
import type { BedPointer, Grip } from './behaviour';
import { swipePlaces } from './swipe';

// Pour: a press fills the enclosed area under it, a drag all that it goes through.

export function gripPour(desk: Desk, start: BedPointer): Grip {
  if (!desk.linework.known) {
    desk.say('The areas between the lines are still being looked for. Nothing was changed.');
    return {};
  }
  const pours: Pour[] = [];
  let gesture: Gesture | null = null;
  let last: Point = start.sheet;
  const reach = (to: Point): void => {
    const before = pours.length;
    for (const at of swipePlaces(last, to, desk.looking.view.scale)) {
      const area = desk.linework.areaAt(at);
      if (area !== null && !pours.some((pour) => pour.area === area)) pours.push(newPour(area));
    }
    last = to;
    if (pours.length === before) return;
    const recipe = pourRecipe(desk, pours);
    if (!recipe) return;
    gesture ??= desk.gesture('Pour');
    gesture.show(recipe);
  };
  const finish = (p: BedPointer): void => {
    reach(p.sheet);
    if (gesture) gesture.keep();
    else desk.say('No lines enclose this place. Widen the gap that is bridged, or close the lines. Nothing was changed.'); // prettier-ignore
  };
  return {
    drag: (p) => reach(p.sheet),
    release: finish,
    click: finish,
    cancel: () => gesture?.drop(),
  };
}
