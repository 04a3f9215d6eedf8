import { splitCubic } from '../geometry/cubic';
import { subtract } from '../geometry/vector';
import { withFittingLengths } from './anchor';
import { freezeFlow } from './flow';
import { segmentCubic, segmentEnds, segmentIsLine, type Path } from './path';
import type { Anchor } from './anchor';

/**
 * Adds an anchor on segment `segment` at parameter `t` without changing the line (de Casteljau).
 * A straight segment gets a corner without handles, a curved one a smooth anchor.
 *
 * @param t strictly between 0 and 1
 * @returns the new path; the new anchor has index `segment + 1`
 * @throws RangeError when the segment does not exist or t lies outside (0, 1)
 */
export function insertAnchor(path: Path, segment: number, t: number): Path {
  if (!(t > 0 && t < 1)) throw new RangeError(`An anchor goes in at 0 < t < 1; t was ${t}.`);
  // What flows is frozen: it would not run through the new anchor as the line does.
  path = freezeFlow(path);
  const [from, to] = segmentEnds(path, segment);
  const [first, second] = splitCubic(segmentCubic(path, segment), t);
  const at = first[3];
  const anchors = [...path.anchors];
  const meant = from.meant && { meant: from.meant };
  if (segmentIsLine(path, segment)) {
    anchors.splice(segment + 1, 0, { ...at, kind: 'corner', in: null, out: null, ...meant });
    return { ...path, anchors };
  }
  const middle: Anchor = {
    ...at,
    kind: 'smooth',
    in: subtract(first[2], at),
    out: subtract(second[1], at),
    ...meant,
  };
  const last = (segment + 1) % path.anchors.length;
  anchors[segment] = withFittingLengths({ ...from, out: from.out && subtract(first[1], from) });
  anchors[last] = withFittingLengths({ ...anchors[last]!, in: to.in && subtract(second[2], to) });
  anchors.splice(segment + 1, 0, middle);
  return { ...path, anchors };
}
