import { piecesUnder } from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { sameShapes } from '$lib/desk/linework.svelte';
import { shapesToWeed, weedPieces } from '$lib/edits/weeding';
import type { BedPointer, Grip } from './behaviour';

// Weed: a swipe takes the pieces of line that it goes across, a press the one under it.

/** Screen pixels within which a press takes a piece. */
const REACH_PX = 5;

/** Pieces across a way, or at a point, within reach of its ends; null while they are not known. */
export function piecesAt(
  desk: Desk,
  way: readonly BedPointer['sheet'][],
  reachPx = REACH_PX,
): readonly number[] | null {
  const { pieces } = desk.linework;
  if (!pieces || !sameShapes(pieces.lines.shapes, shapesToWeed(desk))) return null;
  return piecesUnder(pieces.found.pieces, way, reachPx / desk.looking.view.scale);
}

export function gripWeed(desk: Desk, start: BedPointer): Grip {
  const { linework } = desk;
  if (!piecesAt(desk, [start.sheet])) {
    desk.say('The crossings of the lines are still being looked for. Nothing was changed.');
    return {};
  }
  const take = (p: BedPointer, reachPx = 0): void => {
    const from = linework.swipe.at(-1) ?? start.sheet;
    const gone = piecesAt(desk, [from, p.sheet], reachPx) ?? [];
    linework.swipe = [...linework.swipe, p.sheet];
    if (gone.some((n) => !linework.gone.has(n))) linework.gone = new Set([...linework.gone, ...gone]);
  };
  const leave = (): void => {
    linework.swipe = [];
    linework.gone = new Set();
  };
  const finish = (p: BedPointer, reachPx = 0): void => {
    take(p, reachPx);
    const { gone } = linework;
    leave();
    if (gone.size === 0) desk.say('The swipe went across no line. Nothing was changed.');
    else weedPieces(desk, gone);
  };
  leave();
  linework.swipe = [start.sheet];
  return {
    drag: (p) => take(p),
    release: (p) => finish(p),
    click: (p) => finish(p, REACH_PX),
    cancel: leave,
  };
}
