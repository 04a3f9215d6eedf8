import { apply, invert, type Affine } from '@mirrot/core';
import type { BedPointer, Grip } from './behaviour';

/**
 * A grip on another part of a shape about an axis: what it does is done to the part that was drawn, with the pointer
 * taken back there.
 *
 * @param map from the drawn part to the one that was pressed; left out where they are the same
 */
export function gripInPart(
  map: Affine | undefined,
  start: BedPointer,
  grip: (start: BedPointer) => Grip,
): Grip {
  if (!map) return grip(start);
  const back = invert(map)!;
  const there = (p: BedPointer): BedPointer => ({ ...p, sheet: apply(back, p.sheet) });
  const inner = grip(there(start));
  return {
    drag: (p) => inner.drag?.(there(p)),
    release: (p) => inner.release?.(there(p)),
    click: (p) => inner.click?.(there(p)),
    cancel: () => inner.cancel?.(),
    key: (key) => inner.key?.(key) ?? false,
  };
}
