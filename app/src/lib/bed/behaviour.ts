import type { Point } from '@mirrot/core';

/** A pointer over the bed, free of the browser. */
export interface BedPointer {
  /** Bed pixels. */
  readonly screen: Point;
  /** Sheet pixels. */
  readonly sheet: Point;
  readonly shift: boolean;
  readonly alt: boolean;
  readonly type: 'mouse' | 'pen' | 'touch';
  /** Milliseconds on any steady clock. */
  readonly time: number;
  /** The second press of two at the same spot within 300 ms. */
  readonly again: boolean;
}

/** What a press took hold of. A press ends in `click`, or in any number of `drag`s and a `release`, or in `cancel`. */
export interface Grip {
  /** Moved past the threshold, the first time and every time after. */
  drag?(p: BedPointer): void;
  release?(p: BedPointer): void;
  click?(p: BedPointer): void;
  cancel?(): void;
  /** A key pressed meanwhile; true when it was used. */
  key?(key: string): boolean;
}

/** What a press does: the grip it takes, or null when nothing there can be taken. */
export type Press = (p: BedPointer) => Grip | null;

/** Screen pixels after which a press is a drag. */
export const DRAG_AT: Readonly<Record<BedPointer['type'], number>> = { mouse: 3, pen: 5, touch: 8 };

export const DOUBLE_TIME = 300;
export const DOUBLE_REACH = 4;

/** The machine between raw pointer events and grips: thresholds, double-clicks, cancelling. No DOM in it. */
export interface PressMachine {
  down(p: Omit<BedPointer, 'again'>): void;
  move(p: Omit<BedPointer, 'again'>): void;
  up(p: Omit<BedPointer, 'again'>): void;
  key(key: string): boolean;
  /** Takes everything back; true when a press was under way. */
  cancel(): boolean;
  readonly busy: boolean;
}

/** @param onBusy hears when a press begins and when it has ended */
export function createPressMachine(press: Press, onBusy: (busy: boolean) => void = () => {}): PressMachine {
  let grip: Grip | null = null;
  let start: BedPointer | null = null;
  let dragging = false;
  let last: { time: number; screen: Point } | null = null;

  const far = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);
  return {
    get busy() {
      return start !== null;
    },
    down(raw) {
      const again =
        last !== null && raw.time - last.time <= DOUBLE_TIME && far(raw.screen, last.screen) <= DOUBLE_REACH;
      start = { ...raw, again };
      dragging = false;
      grip = press(start);
      onBusy(true);
    },
    move(raw) {
      if (!start) return;
      if (!dragging && far(raw.screen, start.screen) < DRAG_AT[raw.type]) return;
      dragging = true;
      grip?.drag?.({ ...raw, again: start.again });
    },
    up(raw) {
      if (!start) return;
      const held = grip;
      const { again, screen } = start;
      const dragged = dragging;
      grip = null;
      start = null;
      dragging = false;
      if (dragged) {
        last = null;
        held?.release?.({ ...raw, again });
      } else {
        // A third click begins anew.
        last = again ? null : { time: raw.time, screen };
        held?.click?.({ ...raw, again });
      }
      onBusy(false);
    },
    key: (key) => (start !== null && grip?.key?.(key)) || false,
    cancel() {
      if (!start) return false;
      grip?.cancel?.();
      grip = null;
      start = null;
      dragging = false;
      last = null;
      onBusy(false);
      return true;
    },
  };
}
