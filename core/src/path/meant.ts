import { withoutMark } from './anchor';
import { segmentCount, type Path } from './path';
import type { Anchor } from './anchor';

/** An anchor without the mark on the segment that leaves it. */
export const unmeant = (anchor: Anchor): Anchor => withoutMark(anchor, 'meant');

/** Segments marked as leaving the picture on purpose. */
export function meantSegments(path: Path): ReadonlySet<number> {
  const out = new Set<number>();
  for (let i = 0; i < segmentCount(path); i++) if (path.anchors[i]!.meant) out.add(i);
  return out;
}

/** Marks segments as leaving the picture on purpose, or takes the marks off. */
export function setMeantSegments(path: Path, segments: readonly number[], on: boolean): Path {
  const chosen = new Set(segments);
  return {
    ...path,
    anchors: path.anchors.map((a, i) => (!chosen.has(i) ? a : on ? { ...a, meant: true } : unmeant(a))),
  };
}
