import { nodeNames, numberedName, plainStroke, type Path, type Shape } from '@mirrot/core';
import { newId } from '$lib/ids';
import type { Desk } from '$lib/desk/desk.svelte';

/** Colour of a pen's stroke when none was chosen. */
const PEN_HEX = '#2a2722';

/** The layer or group to draw in; null, and said, when every layer is hidden or locked. */
export function parentToDrawIn(desk: Desk): string | null {
  const parent = desk.choosing.drawingParent;
  if (!parent) desk.say('Every layer is hidden or locked. Show or unlock one to draw on it.', 'bad');
  return parent;
}

/** A shape about to be drawn: about the drawing axis when there is one, a pen's stroke when pens are drawn with. */
export const newShape = (desk: Desk, word: string, path: Path): Shape => ({
  id: newId(),
  type: 'shape',
  name: numberedName(word, nodeNames(desk.art)),
  shown: true,
  locked: false,
  opacity: 1,
  fill: null,
  stroke: desk.habits.pen
    ? plainStroke(desk.colouring.nextFill ?? { hex: PEN_HEX }, desk.habits.penWidth)
    : null,
  paths: [{ ...path, id: newId() }],
  ...(desk.art.axis && { axis: desk.art.axis }),
});
