import { pathOf, byPath, moved } from './shaping';
import {
  mapChosen,
  moveHandle,
  setPath,
  add,
  together,
  translation,
  type Point,
  type Recipe,
} from '@mirrot/core';
import { type AnchorRef } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';

// What keys and buttons do to what is chosen; grips do the same by hand.

/** Moves what is chosen by a way in sheet pixels: a handle, anchors, or shapes. Nudges in a row are one step. */
export function nudge(desk: Desk, d: Point): boolean {
  const { choice } = desk;
  if (choice.handle) {
    const path = pathOf(desk, choice.handle);
    const anchor = path?.anchors[choice.handle.index];
    const h = anchor?.[choice.handle.side];
    if (!path || !anchor || !h) return false;
    const to = add(add(anchor, h), d);
    return desk.change(
      'Nudge the handle',
      setPath(choice.handle.shape, moveHandle(path, choice.handle.index, choice.handle.side, to)),
      { choice },
      'nudge a handle',
    );
  }
  if (choice.anchors.length > 0)
    return desk.change(
      'Nudge',
      moveAnchors(desk, choice.anchors, d),
      { choice },
      `nudge ${JSON.stringify(choice.anchors)}`,
    );
  if (choice.shapes.length > 0)
    return desk.change(
      'Nudge',
      mapChosen(desk.chosenShapes, choice.nodes, translation(d.x, d.y)),
      { choice },
      `nudge ${choice.shapes.join(' ')}`,
    );
  return false;
}

/** A recipe that moves the named anchors, handles along with them. */
export const moveAnchors = (desk: Desk, refs: readonly AnchorRef[], d: Point): Recipe =>
  together(...byPath(desk, refs).map(({ shape, path, indices }) => setPath(shape, moved(path, indices, d))));
