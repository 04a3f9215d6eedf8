import { pieceAt, piecesUnder, type LinePiece, type Point } from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { sameShapes } from '$lib/desk/linework.svelte';
import { shapesToWeed, weedPieces } from '$lib/edits/weeding';
import type { BedPointer, Grip } from './behaviour';

// Weed: a swipe takes the pieces of line that it goes across, a press the one under it.

/** Screen pixels within which a press takes a piece. */
const PIECE_REACH_PX = 5;

/** Pieces of the lines as they are; null while they are not known. */
function knownPieces(desk: Desk): readonly LinePiece[] | null {
  const { pieces } = desk.linework;
  return pieces && sameShapes(pieces.lines.shapes, shapesToWeed(desk)) ? pieces.found.pieces : null;
}

/** The piece that a press at a point takes. */
export function pieceUnder(desk: Desk, at: Point): number | null {
  const pieces = knownPieces(desk);
  return pieces && pieceAt(pieces, at, PIECE_REACH_PX / desk.looking.view.scale);
}

export function gripWeed(desk: Desk, start: BedPointer): Grip {
  const { linework } = desk;
  const pieces = knownPieces(desk);
  if (!pieces) {
    desk.say('The crossings of the lines are still being looked for. Nothing was changed.');
    return {};
  }
  const take = (p: BedPointer): void => {
    const gone = piecesUnder(pieces, [linework.swipe.at(-1) ?? start.sheet, p.sheet]);
    linework.swipe = [...linework.swipe, p.sheet];
    if (gone.some((n) => !linework.gone.has(n))) linework.gone = new Set([...linework.gone, ...gone]);
  };
  const leave = (): void => {
    linework.swipe = [];
    linework.gone = new Set();
  };
  const finish = (gone: ReadonlySet<number>): void => {
    leave();
    if (gone.size === 0) desk.say('There is no line there. Nothing was changed.');
    else weedPieces(desk, gone);
  };
  leave();
  linework.swipe = [start.sheet];
  return {
    drag: take,
    release(p) {
      take(p);
      finish(linework.gone);
    },
    click(p) {
      const piece = pieceUnder(desk, p.sheet);
      finish(new Set(piece === null ? [] : [piece]));
    },
    cancel: leave,
  };
}
