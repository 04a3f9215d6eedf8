import {
  boxesMeet,
  boxHas,
  boxOfPoints,
  pathBounds,
  shapeBounds,
  shapeHas,
  type Box,
  type Shape,
} from '@mirrot/core';
import {
  chooseAnchors,
  chooseShapes,
  chosenNodes,
  findPath,
  NOTHING_CHOSEN,
  type AnchorRef,
  type Choice,
} from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { chooseIds } from '$lib/edits/copying';
import { goInto } from '$lib/edits/grouping';
import type { BedPointer, Grip } from './behaviour';
import { pressBlockIn } from './block-in';
import { boxGripAt, gripBox } from './box';
import { gripRadius, radiusGripAt } from './forms';
import { gripGuide, guideAt } from './guides';
import { fieldOf, hitTest, type Hit } from './hit';
import { gripInPart } from './parts';
import { gripAnchor, gripSegment, gripShapes } from './grips';
import { gripHandle } from './handle-grip';

/** A press in Refine: it shapes; with T held it adds. */
export function pressRefine(desk: Desk, p: BedPointer): Grip | null {
  if (desk.pointing.held.has('t')) return pressBlockIn(desk, p);
  const corner = radiusGripAt(desk, p);
  if (corner !== null) return gripRadius(desk, corner, p);
  desk.choosing.justEnded = null;
  const box = boxGripAt(desk, p);
  if (box) return gripBox(desk, box, p);
  const hit = hitTest(fieldOf(desk, p), p.sheet);
  if (hit?.kind === 'handle') return gripHandle(desk, hit.ref, p);
  if (hit?.kind === 'anchor') return gripInPart(hit.map, p, (q) => gripAnchor(desk, hit.ref, q));
  if (hit?.kind === 'segment') return gripInPart(hit.map, p, (q) => gripSegment(desk, hit.ref, hit.t, q));
  const guide = hit ? null : guideAt(desk, p);
  if (guide) return gripGuide(desk, guide, p);
  return gripChoosing(desk, hit, p);
}

/** A click chooses the shape there, or nothing; a drag moves chosen shapes or draws a choosing box. */
export function gripChoosing(desk: Desk, hit: Hit | null, start: BedPointer): Grip {
  const click = (p: BedPointer): void => {
    if (hit?.kind !== 'inside') return p.shift ? undefined : desk.choose(NOTHING_CHOSEN);
    const { art, choice, choosing } = desk;
    const whole = choosing.wholeOf(hit.shape);
    const chosen = chosenNodes(choice, art);
    if (p.again && whole !== hit.shape) return goInto(desk, whole, hit.shape);
    // One of several, pressed once more: the others are put against it.
    if (!p.shift && chosen.length > 1 && chosen.includes(whole)) return choosing.turnStays(hit.shape);
    if (!p.shift) return desk.choose(chooseIds(art, [whole]));
    desk.choose(
      chooseIds(art, chosen.includes(whole) ? chosen.filter((id) => id !== whole) : [...chosen, whole]),
    );
  };
  const inChosen =
    desk.choice.level === 'shape' &&
    desk.step === 'refine' &&
    desk.chosenShapes.some((s) => shapeHas(s, start.sheet));
  if (inChosen && !start.shift) return gripShapes(desk, desk.choice.shapes, start, click);
  return {
    click,
    drag: (p) => (desk.pointing.box = boxOfPoints([start.sheet, p.sheet])),
    release(p) {
      const box = desk.pointing.box;
      desk.pointing.box = null;
      if (box) desk.choose(chosenByBox(desk, box, p.shift));
    },
    cancel: () => (desk.pointing.box = null),
  };
}

/** Anchors in the box while a path is open for shaping, else the shapes that lie wholly in it. */
function chosenByBox(desk: Desk, box: Box, adding: boolean): Choice {
  if (desk.choice.level === 'path' && desk.choice.shapes.length > 0) {
    const anchors = desk.chosenShapes.flatMap((s) => anchorsIn(s, box));
    const before = adding ? desk.choice.anchors : [];
    const all = [
      ...before,
      ...anchors.filter((a) => !before.some((b) => b.path === a.path && b.index === a.index)),
    ];
    return all.length > 0
      ? { ...chooseAnchors(all), shapes: desk.choice.shapes }
      : chooseShapes(desk.choice.shapes, 'path');
  }
  const lies = (s: Shape): boolean => {
    const b = shapeBounds(s);
    return boxHas(box, { x: b.x0, y: b.y0 }) && boxHas(box, { x: b.x1, y: b.y1 });
  };
  // A group is in the box when all of it is that can be chosen.
  const boxed = desk.choosing.wholes.filter(({ shapes }) => shapes.every(lies)).map(({ id }) => id);
  const before = adding ? chosenNodes(desk.choice, desk.art) : [];
  return chooseIds(desk.art, [...new Set([...before, ...boxed])]);
}

const anchorsIn = (shape: Shape, box: Box): AnchorRef[] =>
  shape.paths
    .filter((path) => boxesMeet(box, pathBounds(path)))
    .flatMap((path) =>
      path.anchors.flatMap((a, index) => (boxHas(box, a) ? [{ shape: shape.id, path: path.id, index }] : [])),
    );

/** All anchors of the chosen shapes. */
export const allAnchors = (desk: Desk): AnchorRef[] =>
  desk.chosenShapes.flatMap((s) =>
    s.paths.flatMap((path) => path.anchors.map((_, index) => ({ shape: s.id, path: path.id, index }))),
  );

/**
 * The next anchor of the chosen path, round and round; the first when none is chosen.
 *
 * @param adding it is chosen beside those that are chosen
 */
export function walkAnchors(desk: Desk, step: 1 | -1, adding = false): void {
  const all = allAnchors(desk);
  if (all.length === 0) return;
  const last = desk.choice.anchors.at(-1);
  const at = last
    ? all.findIndex((a) => a.path === last.path && a.index === last.index)
    : step === 1
      ? -1
      : 0;
  const next = all[(at + step + all.length) % all.length]!;
  const kept = adding
    ? desk.choice.anchors.filter((a) => a.path !== next.path || a.index !== next.index)
    : [];
  desk.choose({ ...chooseAnchors([...kept, next]), shapes: desk.choice.shapes });
  const anchor = findPath(desk.shapeOf(next.shape), next.path)?.anchors[next.index];
  if (anchor) desk.looking.bringIntoSight(boxOfPoints([anchor]));
}

/** From the chosen anchor to its leaving handle, to its arriving one, and back to the anchor; sides without one are skipped. */
export function walkHandles(desk: Desk): void {
  const { choice } = desk;
  const ref = choice.handle ?? choice.anchors.at(-1);
  const anchor = ref && findPath(desk.shapeOf(ref.shape), ref.path)?.anchors[ref.index];
  if (!ref || !anchor) return;
  const sides = (['out', 'in'] as const).filter((side) => anchor[side] !== null);
  if (sides.length === 0)
    return desk.say('This anchor has no handles. Dragging the segment beside it grows them.');
  const next = sides[choice.handle ? sides.indexOf(choice.handle.side) + 1 : 0];
  const { shape, path, index } = ref;
  const anchors = [{ shape, path, index }];
  desk.choose({ ...choice, anchors, handle: next ? { shape, path, index, side: next } : null });
}

/** The next shape up or down the stack that is open to be chosen. */
export function walkShapes(desk: Desk, step: 1 | -1): void {
  const open = desk.choosing.inReach;
  if (open.length === 0) return;
  const at = open.findIndex((s) => s.id === desk.choice.shapes.at(-1));
  const next = at < 0 ? (step === 1 ? 0 : open.length - 1) : (at + step + open.length) % open.length;
  desk.choose(chooseShapes([open[next]!.id], desk.step === 'refine' ? 'path' : 'shape'));
  desk.looking.bringIntoSight(shapeBounds(open[next]!));
}

/** The shape whose line or inside is at a point, or null. */
export function shapeAt(desk: Desk, { sheet, type }: Pick<BedPointer, 'sheet' | 'type'>): string | null {
  const hit = hitTest(fieldOf(desk, { type }), sheet);
  return hit && (hit.kind === 'inside' ? hit.shape : hit.ref.shape);
}

/** The shape whose line or inside the pointer is on, or null. */
export const shapeUnderPointer = (desk: Desk): string | null =>
  desk.pointing.pointer && shapeAt(desk, { sheet: desk.pointing.pointer, type: 'mouse' });
