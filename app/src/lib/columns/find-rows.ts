import { findNode, seenPaint, type Paint, type TreeNode } from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';

/** Rows can be asked for by what their shapes are; the words stand in the list of the stack. */
export const ONLY = {
  all: 'all',
  open: 'open paths',
  unfilled: 'without fill',
  locked: 'locked',
  hidden: 'hidden',
  drifting: 'drift beyond tolerance',
  colour: 'of the chosen colour',
} as const;

/** What rows are asked for: a part of the name, and what they are. */
export interface Asked {
  readonly text: string;
  readonly only: keyof typeof ONLY;
}
export const ALL_ROWS: Asked = { text: '', only: 'all' };

export const asksForAll = ({ text, only }: Asked): boolean => text.trim() === '' && only === 'all';

/** Whether a node answers what is asked. */
export function answersTo({ text, only }: Asked, desk: Desk): (node: TreeNode) => boolean {
  const part = text.trim().toLocaleLowerCase();
  const seen = (paint: Paint | null | undefined): string | null =>
    paint ? JSON.stringify(seenPaint(paint, desk.colouring.palette)) : null;
  const colours = new Set(
    desk.chosenShapes.flatMap((s) => [seen(s.fill), seen(s.stroke?.paint)].filter((c) => c !== null)),
  );
  const is = (node: TreeNode): boolean => {
    if (only === 'all') return true;
    if (only === 'locked') return node.locked;
    if (only === 'hidden') return !node.shown;
    if (node.type !== 'shape') return false;
    if (only === 'open') return node.paths.some((path) => !path.closed);
    if (only === 'unfilled') return node.fill === null;
    if (only === 'drifting')
      return (desk.picture.drifts.of(node.id)?.figures.mean ?? 0) > desk.habits.driftWithin;
    return [seen(node.fill), seen(node.stroke?.paint)].some((c) => c !== null && colours.has(c));
  };
  return (node) => is(node) && (part === '' || node.name.toLocaleLowerCase().includes(part));
}

/** Where a node stands, for those who do not see it: "Shape 4, 2 of 7 in Can". */
export function placeInWords(desk: Desk, id: string): string | null {
  const found = findNode(desk.drawing.kept, id);
  if (!found) return null;
  const beside = found.parent?.children ?? desk.drawing.kept.layers;
  const place = `${found.node.name}, ${beside.length - found.index} of ${beside.length}`;
  return found.parent ? `${place} in ${found.parent.name}` : place;
}
