import type { LeftRequest } from '$lib/wire';
import { NOTHING_CHOSEN, stillThere } from './choice';
import type { Desk } from './desk.svelte';
import { toSheet } from './view';

/** Things of a choice that are remembered at most: a larger one is nothing one would look for again. */
const MOST_REMEMBERED = 200;

/** Where the desk stands now. */
export function whereLeft(desk: Desk): LeftRequest {
  const { view, bed } = desk.looking;
  const { all } = desk.picture.drifts;
  const { level, shapes, nodes, anchors } = desk.choice;
  const remembered = shapes.length + nodes.length + anchors.length <= MOST_REMEMBERED;
  return {
    step: desk.step,
    middle: toSheet(view, { x: bed.width / 2, y: bed.height / 2 }),
    scale: view.scale,
    choice: remembered
      ? { ...NOTHING_CHOSEN, level, shapes: [...shapes], nodes: [...nodes], anchors: [...anchors] }
      : { ...NOTHING_CHOSEN, shapes: [], nodes: [], anchors: [] },
    drift: all && Number.isFinite(all.mean) ? all.mean : null,
  };
}

/** Goes on where the desk was left: its step, and what of the choice is still there. The view waits for the bed. */
export function goOnWhereLeft(desk: Desk, { step, choice, middle, scale }: LeftRequest): void {
  desk.step = step;
  desk.choose(stillThere(choice, desk.art));
  desk.looking.first = { middle, scale };
}
