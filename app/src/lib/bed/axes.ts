import {
  boxCentre,
  distance,
  setAxis,
  setDrawingAxis,
  snapAngle,
  subtract,
  add,
  together,
  unit,
  type Axis,
  type Path,
  type Point,
  type SnapLine,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import type { Rule, Task } from '$lib/desk/task';
import type { BedPointer, Grip } from './behaviour';
import { EIGHTH_TURN } from './grips';
import { snapAt } from './snapping';

/** An axis shorter than this on screen says no direction. */
const SHORTEST = 8;

/** Lines an axis is drawn along: the sheet's middles, and the picture's own axis of symmetry once it is found. */
function middles(desk: Desk, own: Rule | null): SnapLine[] {
  const centre = boxCentre(desk.sheetBox);
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

/** Sets the axis about which new paths are drawn, and that of what is chosen. */
export function placeAxis(desk: Desk, axis: Axis): void {
  desk.task = null;
  desk.change(
    axis.kind === 'mirror' ? 'Place the mirror axis' : 'Place the turn axis',
    together(setDrawingAxis(axis), setAxis(desk.choice.shapes, axis)),
    { choice: desk.choice },
  );
}

/** The mirror axis through two points; said and left when they are too near. */
function placeMirror(desk: Desk, { from, to }: Rule): void {
  if (distance(from, to) * desk.view.scale < SHORTEST)
    return desk.say('The two points of a mirror axis must lie farther apart. Nothing was changed.', 'bad');
  placeAxis(desk, { kind: 'mirror', x: from.x, y: from.y, angle: Math.atan2(to.y - from.y, to.x - from.x) });
}

/** A press while an axis is being placed. */
export function pressAxis(
  desk: Desk,
  task: Extract<Task, { kind: 'mirror-axis' | 'turn-axis' }>,
  start: BedPointer,
): Grip {
  if (task.kind === 'turn-axis') {
    const { at } = axisPoint(desk, start, null, null);
    return { click: () => placeAxis(desk, { kind: 'turn', ...at, parts: desk.axisParts }) };
  }
  const first = axisPoint(desk, start, task.from, task.own).at;
  const from = task.from ?? first;
  const done = (): void => void (desk.rule = desk.taken = null);
  return {
    drag(p) {
      const { at, snap } = axisPoint(desk, p, from, task.own);
      desk.rule = { from, to: at };
      desk.taken = snap;
    },
    release(p) {
      done();
      placeMirror(desk, { from, to: axisPoint(desk, p, from, task.own).at });
    },
    click() {
      if (task.from) placeMirror(desk, { from, to: first });
      else desk.task = { ...task, from };
    },
    cancel: done,
  };
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
