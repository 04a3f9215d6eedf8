import { EIGHTH_TURN, lengthAndAngle, dragging } from './grips';
import {
  add,
  cross,
  dot,
  moveHandle,
  scale,
  setPath,
  snapAngle,
  subtract,
  together,
  turnHandles,
  unit,
  type Point,
} from '@mirrot/core';
import { isAnchorChosen, sameAnchor, type HandleRef } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import type { BedPointer, Grip } from './behaviour';
import { handleGrip } from './hit';
import { byPath, pathOf } from '$lib/edits/shaping';

// Grips that shape what is there, whatever step they are used in.

/**
 * Takes a handle: drag turns and stretches it, Shift by 45° steps, Alt or J breaks a smooth anchor; with its angle locked it
 * only stretches. Of several chosen anchors all handles on that side turn and stretch alike.
 */
export function gripHandle(desk: Desk, ref: HandleRef, start: BedPointer): Grip {
  const path = pathOf(desk, ref)!;
  const anchor = path.anchors[ref.index]!;
  const handle = anchor[ref.side]!;
  const grip = handleGrip(anchor, ref.side, desk.looking.view.scale)!;
  // A handle shorter than its grip moves by as much as the pointer, not to it.
  const end = add(anchor, handle);
  const relative = Math.hypot(grip.x - end.x, grip.y - end.y) > 1e-9;
  const others = isAnchorChosen(desk.choice, ref)
    ? byPath(
        desk,
        desk.choice.anchors.filter((a) => !sameAnchor(a, ref)),
      )
    : [];
  let breaking = false;
  desk.choose({ ...desk.choice, handle: ref, segment: null });
  let lastPointer: BedPointer | null = null;
  const wished = (d: Point, shift: boolean): Point => {
    const vector = add(handle, d);
    if (shift) return snapAngle(vector, EIGHTH_TURN);
    const along = desk.habits.angleLocked ? unit(handle) : null;
    return along ? scale(along, Math.max(0, dot(vector, along))) : vector;
  };
  const inner = dragging(
    desk,
    others.length > 0 ? 'Turn the handles' : 'Turn the handle',
    start.sheet,
    (d, p) => {
      const vector = wished(d, p.shift);
      const reach = (relative ? 1 : 4) / desk.looking.view.scale;
      const to = Math.hypot(vector.x, vector.y) < reach ? anchor : add(anchor, vector);
      const now = subtract(to, anchor);
      desk.pointing.pointerNote = { at: p.sheet, text: lengthAndAngle(desk, now) };
      const turn = Math.atan2(cross(handle, now), dot(handle, now));
      const stretch = Math.hypot(now.x, now.y) / Math.hypot(handle.x, handle.y);
      const own = moveHandle(path, ref.index, ref.side, to, breaking || p.alt);
      const mine = others.find((o) => o.path.id === path.id);
      return together(
        setPath(ref.shape, mine ? turnHandles(own, mine.indices, ref.side, turn, stretch) : own),
        ...others
          .filter((o) => o !== mine)
          .map((o) => setPath(o.shape, turnHandles(o.path, o.indices, ref.side, turn, stretch))),
      );
    },
    (p) => p.sheet,
  );
  return {
    ...inner,
    drag(p) {
      lastPointer = p;
      inner.drag(p);
    },
    key(key) {
      if (key !== 'j') return false;
      breaking = !breaking;
      if (lastPointer) inner.drag(lastPointer);
      return true;
    },
  };
}
