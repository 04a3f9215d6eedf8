import {
  add,
  cubicCurvature,
  cubicLength,
  cubicPoint,
  dot,
  findShape,
  formatLength,
  mapChosen,
  moveHandle,
  negate,
  pullSegment,
  segmentBeside,
  segmentCubic,
  setPath,
  shapesOf,
  snapAngle,
  subtract,
  tangentAt,
  together,
  translation,
  type Cubic,
  type HandleSide,
  type Point,
  type Recipe,
  toDegrees,
} from '@mirrot/core';
import {
  chooseAnchors,
  chooseShapes,
  isAnchorChosen,
  toggledAnchor,
  type AnchorRef,
  type SegmentRef,
} from '$lib/desk/choice';
import { chooseIds, copiesOfChosen } from '$lib/edits/copying';
import type { Desk } from '$lib/desk/desk.svelte';
import type { BedPointer, Grip } from './behaviour';
import { addAnchor, byPath, moved, pathOf, turnKinds } from '$lib/edits/shaping';
import { snapAt } from './snapping';

// Grips that shape what is there, whatever step they are used in.

export const EIGHTH_TURN = Math.PI / 4;

/** The longer of the two ways, the other coordinate kept. */
export const alongAxis = (d: Point): Point =>
  Math.abs(d.x) >= Math.abs(d.y) ? { x: d.x, y: 0 } : { x: 0, y: d.y };

/** A way in words, in the sheet's unit: "12.3 mm, 45.0°", counted anticlockwise from level. */
export const lengthAndAngle = (desk: Desk, d: Point): string =>
  `${formatLength(Math.hypot(d.x, d.y), desk.art.sheet.unit)}, ${toDegrees(-Math.atan2(d.y, d.x)).toFixed(1)}°`;

/** A segment in words: how long it is, and the radius of the circle that fits it at `t`; straight where none does. */
export function lengthAndRadius(desk: Desk, cubic: Cubic, t: number): string {
  const { unit: u } = desk.art.sheet;
  const long = cubicLength(cubic);
  const bend = Math.abs(cubicCurvature(cubic, t));
  return `${formatLength(long, u)} long, ${bend * long < 1e-3 ? 'straight here' : `radius ${formatLength(1 / bend, u)}`}`;
}

/** A grip that shows a recipe for the way dragged and keeps it as one step. */
export function dragging(
  desk: Desk,
  label: string,
  start: Point,
  recipe: (d: Point, p: BedPointer) => Recipe,
  focus: ((p: BedPointer) => Point) | null = null,
): Required<Pick<Grip, 'drag' | 'release' | 'cancel'>> {
  const gesture = desk.gesture(label);
  return {
    drag(p) {
      gesture.show(recipe(subtract(p.sheet, start), p));
      desk.pointing.focus = focus?.(p) ?? null;
    },
    release() {
      gesture.keep();
      desk.pointing.focus = null;
      desk.pointing.pointerNote = null;
    },
    cancel() {
      gesture.drop();
      desk.pointing.focus = null;
      desk.pointing.pointerNote = null;
    },
  };
}

/** Paths that move along with an anchor: its own, and those that share it. */
function movingWith(desk: Desk, refs: readonly AnchorRef[]): string[] {
  const keys = new Set(refs.map((r) => pathOf(desk, r)?.anchors[r.index]?.shared));
  const sharing = shapesOf(desk.art).flatMap(({ shape }) =>
    shape.paths.filter((p) => p.anchors.some((a) => a.shared !== undefined && keys.has(a.shared))),
  );
  return [...refs.map((r) => r.path), ...sharing.map((p) => p.id)];
}

/**
 * Pulls a handle out of an anchor that lacks one; null when it has both. Of two that are missing, the one on the side the
 * hand goes to, told at the first movement.
 */
function gripMissing(desk: Desk, ref: AnchorRef, start: BedPointer): ReturnType<typeof dragging> | null {
  const path = pathOf(desk, ref)!;
  const anchor = path.anchors[ref.index]!;
  const sides = (['out', 'in'] as const).flatMap((side) => {
    const segment = segmentBeside(path, ref.index, side);
    if (anchor[side] || segment === null) return [];
    const along = tangentAt(path, ref.index, side);
    return along ? [{ side, way: side === 'out' ? along : negate(along) }] : [];
  });
  if (sides.length === 0 || anchor.kind === 'flowing') return null;
  let side: HandleSide | null = null;
  return dragging(
    desk,
    'Pull out a handle',
    start.sheet,
    (d, p) => {
      side ??= sides.reduce((a, b) => (dot(b.way, d) > dot(a.way, d) ? b : a)).side;
      const way = p.shift ? snapAngle(d, EIGHTH_TURN) : d;
      desk.pointing.pointerNote = { at: p.sheet, text: lengthAndAngle(desk, way) };
      return setPath(ref.shape, moveHandle(path, ref.index, side, add(anchor, way)));
    },
    (p) => p.sheet,
  );
}

/**
 * Takes an anchor: click chooses it, drag moves it with all that are chosen, with Alt pulls out a handle it lacks; a
 * double-click turns its kind.
 */
export function gripAnchor(desk: Desk, ref: AnchorRef, start: BedPointer): Grip {
  const wasChosen = isAnchorChosen(desk.choice, ref);
  if (start.again) return { click: () => turnKinds(desk, [ref]) };
  if (!wasChosen && !start.shift) desk.choose(chooseAnchors([ref]));
  // What is dragged is settled at the first movement, when the choice is.
  let grip: ReturnType<typeof dragging> | null = null;
  return {
    drag(p) {
      if (!grip && start.alt) {
        if (!isAnchorChosen(desk.choice, ref)) desk.choose(chooseAnchors([ref]));
        grip = gripMissing(desk, ref, start);
      }
      if (!grip) {
        if (!isAnchorChosen(desk.choice, ref)) desk.choose(toggledAnchor(desk.choice, ref));
        const refs = desk.choice.anchors;
        const snapshot = byPath(desk, refs);
        const at = pathOf(desk, ref)!.anchors[ref.index]!;
        const without = movingWith(desk, refs);
        /** Where the anchor has gone. */
        let to: Point = at;
        // One anchor goes to what attracts; several keep to the hand.
        const way = (d: Point, q: BedPointer): Point => {
          if (q.shift) return alongAxis(d);
          desk.pointing.snapTarget = refs.length === 1 ? snapAt(desk, add(at, d), { without }) : null;
          if (!desk.pointing.snapTarget)
            desk.pointing.pointerNote = { at: add(at, d), text: lengthAndAngle(desk, d) };
          else desk.pointing.pointerNote = null;
          return desk.pointing.snapTarget ? subtract(desk.pointing.snapTarget.at, at) : d;
        };
        grip = dragging(
          desk,
          refs.length > 1 ? `Move ${refs.length} anchors` : 'Move the anchor',
          start.sheet,
          (d, q) => {
            const by = way(d, q);
            to = add(at, by);
            return together(
              ...snapshot.map(({ shape, path, indices }) => setPath(shape, moved(path, indices, by))),
            );
          },
          () => to,
        );
      }
      grip.drag(p);
    },
    release(p) {
      grip?.release(p);
      desk.pointing.snapTarget = null;
    },
    cancel() {
      grip?.cancel();
      desk.pointing.snapTarget = null;
    },
    click(p) {
      if (p.shift) desk.choose(toggledAnchor(desk.choice, ref));
      else desk.choose(chooseAnchors([ref]));
    },
  };
}

/** Takes a segment: drag pulls it, click chooses its path and it, a double-click adds an anchor there. */
export function gripSegment(
  desk: Desk,
  ref: SegmentRef,
  t: number,
  start: BedPointer,
  onClick?: () => void,
): Grip {
  const path = pathOf(desk, ref)!;
  const at = cubicPoint(segmentCubic(path, ref.segment), t);
  const inner = dragging(
    desk,
    'Pull the segment',
    start.sheet,
    (d, p) => {
      const wish = { keepDirections: p.shift, leaveNeighbours: p.alt };
      const pulled = pullSegment(path, ref.segment, t, add(at, d), wish);
      desk.pointing.pointerNote = {
        at: p.sheet,
        text: lengthAndRadius(desk, segmentCubic(pulled, ref.segment), t),
      };
      return setPath(ref.shape, pulled);
    },
    (p) => add(at, subtract(p.sheet, start.sheet)),
  );
  return {
    ...inner,
    drag(p) {
      // While it is drawn, a path's chosen anchors stay out of the way.
      if (!desk.live && !desk.choice.shapes.includes(ref.shape))
        desk.choose({ ...chooseShapes([ref.shape], 'path'), segment: ref });
      inner.drag(p);
    },
    click(p) {
      if (onClick) return onClick();
      if (p.again) return addAnchor(desk, ref, t);
      const ends = [ref.segment, (ref.segment + 1) % path.anchors.length];
      if (p.shift && desk.choice.level === 'path')
        desk.choose({
          ...ends.reduce((c, index) => {
            const end = { shape: ref.shape, path: ref.path, index };
            return isAnchorChosen(c, end) ? c : toggledAnchor(c, end);
          }, desk.choice),
        });
      else desk.choose({ ...chooseShapes([ref.shape], 'path'), segment: ref });
    },
  };
}

/** Takes a copy of what is chosen along; it is chosen then. */
function gripCopy(desk: Desk, start: BedPointer): Grip {
  const made = copiesOfChosen(desk);
  const gesture = desk.gesture('Move a copy');
  let by: Point = { x: 0, y: 0 };
  return {
    drag(p) {
      const d = subtract(p.sheet, start.sheet);
      by = p.shift ? alongAxis(d) : d;
      gesture.show(made.recipe(by));
      desk.pointing.pointerNote = { at: p.sheet, text: lengthAndAngle(desk, by) };
    },
    release() {
      desk.pointing.pointerNote = null;
      gesture.keep({ choice: chooseIds(desk.art, made.copies.ids) });
      desk.choosing.copied = made.copies;
    },
    cancel() {
      desk.pointing.pointerNote = null;
      gesture.drop();
    },
  };
}

/** Takes chosen shapes: drag moves them, Shift along an axis, Alt takes a copy along. */
export function gripShapes(
  desk: Desk,
  ids: readonly string[],
  start: BedPointer,
  click: (p: BedPointer) => void,
): Grip {
  if (start.alt) return { ...gripCopy(desk, start), click };
  const shapes = ids.flatMap((id) => findShape(desk.art, id) ?? []);
  const { nodes } = desk.choice;
  return {
    ...dragging(
      desk,
      ids.length > 1 ? `Move ${ids.length} shapes` : 'Move the shape',
      start.sheet,
      (d, p) => {
        const way = p.shift ? alongAxis(d) : d;
        return mapChosen(shapes, nodes, translation(way.x, way.y));
      },
    ),
    click,
  };
}
