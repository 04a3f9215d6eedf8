import { apply, type Point } from '@mirrot/core';
import type { PathDrift } from '$lib/desk/drifts.svelte';
import { toBed, type View, pointText } from '$lib/desk/view';

/** How many times its true length a whisker is drawn, where that stays within `LONGEST` bed pixels. */
const TIMES = 4;
const LONGEST = 64;
/** Bed pixels between whiskers, the least length of one, and the gap kept clear of the line. */
const APART = 8;
const SHORTEST = 2;
/** Bed pixels to either side of the line that a stroke across it reaches. */
const COVERED = 4;

export interface Whiskers {
  /** Path data in bed pixels: beyond the tolerance, within it, and dots where there is no edge to speak of. */
  readonly beyond: string;
  readonly within: string;
  readonly none: string;
  /** Short strokes across the line where something lies over it. */
  readonly covered: string;
}

/** Where an entry of a drift lies on the bed, and where its edge does. */
export function entryOnBed(
  { drift, map }: PathDrift,
  step: number,
  i: number,
  view: View,
): { readonly at: Point; readonly edge: Point } {
  const p = { x: drift.x[i]!, y: drift.y[i]! };
  const v = (Number.isNaN(drift.value[i]!) ? 0 : drift.value[i]!) / step;
  const q = { x: p.x + v * drift.nx[i]!, y: p.y + v * drift.ny[i]! };
  return { at: toBed(view, apply(map, p)), edge: toBed(view, apply(map, q)) };
}

/** A short stroke across the line at an entry. */
function acrossAt({ drift, map }: PathDrift, i: number, view: View, at: Point): string {
  const beside = toBed(view, apply(map, { x: drift.x[i]! + drift.nx[i]!, y: drift.y[i]! + drift.ny[i]! }));
  const long = Math.hypot(beside.x - at.x, beside.y - at.y);
  if (!(long > 0)) return '';
  const by = { x: ((beside.x - at.x) * COVERED) / long, y: ((beside.y - at.y) * COVERED) / long };
  return `M${pointText({ x: at.x - by.x, y: at.y - by.y })}L${pointText({ x: at.x + by.x, y: at.y + by.y })}`;
}

/**
 * Whiskers of a path from its line towards the picture's edge, drawn longer than they are, so that the side and the size
 * are seen without a colour code.
 *
 * @param step picture pixels that one pixel of the raster is wide
 */
export function whiskersOf(
  part: PathDrift,
  step: number,
  view: View,
  within: number,
  width: number,
  height: number,
): Whiskers {
  let [beyond, inside, none, covered] = ['', '', '', ''];
  let last: Point | null = null;
  const { drift } = part;
  for (let i = 0; i < drift.value.length; i++) {
    const { at, edge } = entryOnBed(part, step, i, view);
    if (at.x < -LONGEST || at.y < -LONGEST || at.x > width + LONGEST || at.y > height + LONGEST) continue;
    if (last && Math.hypot(at.x - last.x, at.y - last.y) < APART) continue;
    last = at;
    const v = drift.value[i]!;
    if (drift.covered[i] === 1) {
      covered += acrossAt(part, i, view, at);
      continue;
    }
    if (Number.isNaN(v)) {
      none += `M${pointText(at)}h.01`;
      continue;
    }
    const long = Math.hypot(edge.x - at.x, edge.y - at.y);
    if (!(long > 0)) continue;
    const shown = Math.max(SHORTEST, Math.min(TIMES * long, Math.max(long, LONGEST)));
    const to = { x: at.x + ((edge.x - at.x) * shown) / long, y: at.y + ((edge.y - at.y) * shown) / long };
    if (Math.abs(v) > within) beyond += `M${pointText(at)}L${pointText(to)}`;
    else inside += `M${pointText(at)}L${pointText(to)}`;
  }
  return { beyond, within: inside, none, covered };
}
