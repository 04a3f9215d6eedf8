import { boxCentre, snapAngle, subtract, add, unit, type Point, type SnapLine } from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import type { Rule, Task } from '$lib/desk/task';
import { placeAxis, placeMirror } from '$lib/edits/axes';
import type { BedPointer, Grip } from './behaviour';
import { EIGHTH_TURN } from './grips';
import { snapAt } from './snapping';

/** Lines an axis is drawn along: the sheet's middles, and the picture's own axis of symmetry once it is found. */
function middles(desk: Desk, own: Rule | null): SnapLine[] {
  const centre = boxCentre(desk.looking.sheetBox);
  const lines: SnapLine[] = [
    { kind: 'sheet', at: centre, along: { x: 0, y: 1 }, why: 'middle of the sheet' },
    { kind: 'sheet', at: centre, along: { x: 1, y: 0 }, why: 'middle of the sheet' },
  ];
  const along = own && unit(subtract(own.to, own.from));
  if (own && along) lines.push({ kind: 'edge', at: own.from, along, why: 'the picture’s own axis' });
  return lines;
}

/** Where a point of the axis goes. */
export const axisPoint = (desk: Desk, p: BedPointer, from: Point | null, own: Rule | null) => {
  if (p.shift && from) {
    const at = add(from, snapAngle(subtract(p.sheet, from), EIGHTH_TURN));
    return { at, snap: null };
  }
  const snap = snapAt(desk, p.sheet, { lines: middles(desk, own) });
  return { at: snap?.at ?? p.sheet, snap };
};

/** A press while an axis is being placed. */
export function pressAxis(
  desk: Desk,
  task: Extract<Task, { kind: 'mirror-axis' | 'turn-axis' }>,
  start: BedPointer,
): Grip {
  if (task.kind === 'turn-axis') {
    const { at } = axisPoint(desk, start, null, null);
    return { click: () => placeAxis(desk, { kind: 'turn', ...at, parts: desk.next.axisParts }) };
  }
  const first = axisPoint(desk, start, task.from, task.own).at;
  const from = task.from ?? first;
  const done = (): void => void (desk.pointing.rule = desk.pointing.snapTarget = null);
  return {
    drag(p) {
      const { at, snap } = axisPoint(desk, p, from, task.own);
      desk.pointing.rule = { from, to: at };
      desk.pointing.snapTarget = snap;
    },
    release(p) {
      done();
      placeMirror(desk, { from, to: axisPoint(desk, p, from, task.own).at });
    },
    click() {
      if (task.from) placeMirror(desk, { from, to: first });
      else desk.pointing.task = { ...task, from };
    },
    cancel: done,
  };
}
