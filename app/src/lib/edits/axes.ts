import {
  distance,
  setAxis,
  setDrawingAxis,
  subtract,
  together,
  unit,
  type Axis,
  type Path,
  type Recipe,
  type Shape,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import type { Rule } from '$lib/desk/task';

/** An axis shorter than this says no direction, screen pixels. */
const SHORTEST_AXIS_PX = 8;

const axisLabel = (axis: Axis): string =>
  axis.kind === 'mirror' ? 'Place the mirror axis' : 'Place the turn axis';

/** Sets the axis about which new paths are drawn, and that of what is chosen. */
const axisRecipe = (desk: Desk, axis: Axis): Recipe =>
  together(setDrawingAxis(axis), setAxis(desk.choice.shapes, axis));

export function placeAxis(desk: Desk, axis: Axis): void {
  desk.pointing.task = null;
  desk.change(axisLabel(axis), axisRecipe(desk, axis), { choice: desk.choice });
}

/** Offers a mirror axis through two points. */
export const offerMirror = (desk: Desk, text: string, line: Rule): void =>
  desk.makeOffer({
    text,
    label: axisLabel(mirrorThrough(line)),
    recipe: axisRecipe(desk, mirrorThrough(line)),
    ghost: [axisLine(desk, line)],
    taken: () => (desk.pointing.task = null),
  });

const mirrorThrough = ({ from, to }: Rule): Axis => ({
  kind: 'mirror',
  x: from.x,
  y: from.y,
  angle: Math.atan2(to.y - from.y, to.x - from.x),
});

/** The mirror axis through two points; said and left when they are too near. */
export function placeMirror(desk: Desk, line: Rule): void {
  if (distance(line.from, line.to) * desk.looking.view.scale < SHORTEST_AXIS_PX)
    return desk.say('The two points of a mirror axis must lie farther apart. Nothing was changed.', 'bad');
  placeAxis(desk, mirrorThrough(line));
}

/** A mirror axis as a line across the sheet, for a ghost. */
export function axisLine(desk: Desk, { from, to }: Rule): Path {
  const u = unit(subtract(to, from)) ?? { x: 0, y: 1 };
  const reach = desk.art.sheet.width + desk.art.sheet.height;
  const end = (k: number) => ({
    x: from.x + u.x * k,
    y: from.y + u.y * k,
    kind: 'corner' as const,
    in: null,
    out: null,
  });
  return { id: 'axis', closed: false, anchors: [end(-reach), end(reach)] };
}

/** Shapes that can be made symmetric again: chosen, and not drawn about an axis anyway. */
export const shapesToEven = (desk: Desk): Shape[] => desk.chosenShapes.filter((s) => !s.axis && !s.locked);

export const canMakeSymmetric = (desk: Desk): boolean => shapesToEven(desk).length > 0;
