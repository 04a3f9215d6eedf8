import type { Cubic } from '../geometry/cubic';
import { subtract } from '../geometry/vector';
import { withAnchor, type Path } from './path';
import type { Anchor } from './anchor';

/** A segment to be added at a path's end. */
export interface NextSegment {
  readonly cubic: Cubic;
  /** No handles: a straight line. */
  readonly straight: boolean;
}

/** An open path's last anchor with the leaving handle of the next segment. */
function leaving(path: Path, { cubic, straight }: NextSegment): Path {
  const i = path.anchors.length - 1;
  const last = path.anchors[i]!;
  return withAnchor(path, i, { ...last, out: straight ? null : subtract(cubic[1], cubic[0]) });
}

/**
 * An open path with one more segment at its end, which begins where the path ends; the new anchor is smooth, or a corner.
 * The last anchor keeps its kind: a smooth one is left in its own direction by whoever made the segment.
 *
 * @throws RangeError for a closed path or one without anchors
 */
export function extendPath(path: Path, next: NextSegment, kind: 'smooth' | 'corner'): Path {
  if (path.closed || path.anchors.length === 0)
    throw new RangeError('Only an open path with an anchor goes on.');
  const { cubic, straight } = next;
  const { x, y } = cubic[3];
  const anchor: Anchor = { x, y, kind, in: straight ? null : subtract(cubic[2], cubic[3]), out: null };
  return { ...path, anchors: [...leaving(path, next).anchors, anchor] };
}

/** An open path closed by one more segment, which ends at its first anchor. */
export function closePath(path: Path, next: NextSegment): Path {
  if (path.closed || path.anchors.length < 2)
    throw new RangeError('Only an open path of two anchors or more closes.');
  const { cubic, straight } = next;
  const with0 = leaving(path, next);
  const first = with0.anchors[0]!;
  return {
    ...withAnchor(with0, 0, { ...first, in: straight ? null : subtract(cubic[2], cubic[3]) }),
    closed: true,
  };
}
