import type { Point } from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';

/** A touch wider than this is no fingertip, CSS pixels. */
const PALM_PX = 44;
/** Touches so soon after a pen are the hand that holds it, milliseconds. */
const PEN_RESTS_MS = 1500;
/** Fingers nearer to each other than this scale as if they were so far apart, CSS pixels. */
const NEAREST_PX = 10;

type Touch = Pick<PointerEvent, 'pointerType' | 'pointerId' | 'clientX' | 'clientY'>;

/** Fingers on the bed: two of them move and scale the view, a palm means nothing. */
export interface Fingers {
  /** After two fingers the one left over draws nothing. */
  readonly spent: boolean;
  isPalm(e: PointerEvent): boolean;
  /** A pen was seen. */
  penSeen(e: PointerEvent): void;
  /** True when this is the second finger: what the first began is to be taken back. */
  down(e: Touch): boolean;
  /** True when the finger's move is not for the bed. */
  move(e: Touch): boolean;
  up(e: Touch): boolean;
}

/** @param corner the bed's top left corner on the page */
export function createFingers(
  desk: Desk,
  corner: () => { readonly left: number; readonly top: number },
): Fingers {
  const on = new Map<number, Point>();
  let pinching = false;
  let spent = false;
  let penAt = -Infinity;
  return {
    get spent() {
      return spent;
    },
    isPalm: (e) =>
      e.pointerType === 'touch' &&
      (e.timeStamp - penAt < PEN_RESTS_MS || Math.max(e.width, e.height) > PALM_PX),
    penSeen(e) {
      if (e.pointerType === 'pen') penAt = e.timeStamp;
    },
    down(e) {
      if (e.pointerType !== 'touch') return false;
      on.set(e.pointerId, { x: e.clientX, y: e.clientY });
      pinching ||= on.size > 1;
      return on.size > 1;
    },
    move(e) {
      if (e.pointerType !== 'touch') return false;
      const before = on.get(e.pointerId);
      if (!before) return spent;
      const other = [...on].find(([id]) => id !== e.pointerId)?.[1];
      const now = { x: e.clientX, y: e.clientY };
      on.set(e.pointerId, now);
      if (!pinching || !other) return spent;
      const { left, top } = corner();
      const span = (p: Point): number => Math.max(NEAREST_PX, Math.hypot(p.x - other.x, p.y - other.y));
      const middle = (p: Point): Point => ({ x: (p.x + other.x) / 2 - left, y: (p.y + other.y) / 2 - top });
      desk.looking.pan(middle(now).x - middle(before).x, middle(now).y - middle(before).y);
      desk.looking.zoom(span(now) / span(before), middle(now));
      return true;
    },
    up(e) {
      if (!on.delete(e.pointerId)) return false;
      const was = pinching || spent;
      pinching = on.size > 1;
      spent = was && on.size > 0;
      return was;
    },
  };
}
