import { parsePathData, pathsOnSheet, type GhostFrame, type Path, type PlacedPicture } from '@mirrot/core';
import { time } from './words';

// The best attempt drawn once more beside one's own: what of it stands after so much work, and where.

/** The moment of a ghost after some seconds of work: its last one until then; null before its first. */
export function frameAt(frames: readonly GhostFrame[], seconds: number): GhostFrame | null {
  let [from, to] = [0, frames.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (frames[middle]!.seconds <= seconds) from = middle + 1;
    else to = middle;
  }
  return frames[from - 1] ?? null;
}

/** A moment's lines as they lie on the sheet, on the picture as it is placed there. */
export const linesOnSheet = ({ lines }: GhostFrame, picture: PlacedPicture): Path[] =>
  pathsOnSheet(
    parsePathData(lines, (n) => `ghost-${n}`),
    picture,
  );

/** How the race stands, in words. */
export function standing(frames: readonly GhostFrame[], seconds: number, own: number): string {
  const last = frames.at(-1)!;
  if (last.seconds === 0) return 'How it grew is known no more: it stands there whole.';
  if (seconds >= last.seconds)
    return `It was done after ${time(last.seconds)}, with ${last.anchors} anchors.`;
  const anchors = frameAt(frames, seconds)?.anchors ?? 0;
  return `After ${time(seconds)} it had ${anchors} of ${last.anchors} anchors; you have ${own}.`;
}
