import { distance } from '../geometry/vector';
import { joinedAnchor } from './anchor';
import { reversePath } from './path-map';
import type { Path } from './path';

/** An end of an open path. */
export type PathEnd = 'start' | 'end';

/**
 * Joins two open paths at the named ends into one. Ends on the same spot become one anchor, which takes each
 * side's handle; ends apart are joined by a straight segment, or a curve where they have handles.
 *
 * @param within ends nearer than this become one anchor, in the path's unit
 * @returns one open path with `a`'s id, running through `a` first; `b` turned round where needed
 * @throws RangeError when a path is closed or empty
 */
export function joinEnds(a: Path, aEnd: PathEnd, b: Path, bEnd: PathEnd, within = 1e-6): Path {
  if (a.closed || b.closed) throw new RangeError('Only open paths have ends to join.');
  if (a.anchors.length === 0 || b.anchors.length === 0)
    throw new RangeError('An empty path has no ends to join.');
  const first = aEnd === 'end' ? a : reversePath(a);
  const second = bEnd === 'start' ? b : reversePath(b);
  const last = first.anchors[first.anchors.length - 1]!;
  const next = second.anchors[0]!;
  if (distance(last, next) > within) return { ...first, anchors: [...first.anchors, ...second.anchors] };
  return {
    ...first,
    anchors: [...first.anchors.slice(0, -1), joinedAnchor(last, next), ...second.anchors.slice(1)],
  };
}
