import { segmentBeside } from './handle';
import { freezeFlow } from './flow';
import { asBeginning, asEnding, withoutMark, type Anchor } from './anchor';
import type { Path } from './path';
import { withoutForm } from './form-path';

/**
 * Opens a path at an anchor: a closed one becomes open, beginning and ending there; an open one becomes two that meet
 * there. At an end of an open path there is nothing to cut. The line does not change; what flows stands still.
 *
 * @param secondId id of the second path
 * @returns one or two paths, the first with the path's id
 * @throws RangeError when the anchor does not exist
 */
export function cutAt(path: Path, i: number, secondId: string): Path[] {
  const n = path.anchors.length;
  if (!path.anchors[i]) throw new RangeError(`The path has ${n} anchors; there is no anchor ${i}.`);
  const still = withoutForm(freezeFlow(path));
  const { anchors } = still;
  if (path.closed) {
    if (n < 2) return [path];
    const round = [...anchors.slice(i), ...anchors.slice(0, i)];
    // Both ends lie where the anchor was; its neighbours' key stays with the first, else the path would share with itself.
    const end = asEnding(withoutMark(anchors[i]!, 'shared'));
    return [{ ...still, closed: false, anchors: [asBeginning(round[0]!), ...round.slice(1), end] }];
  }
  if (segmentBeside(path, i, 'in') === null || segmentBeside(path, i, 'out') === null) return [path];
  return [
    { ...still, anchors: [...anchors.slice(0, i), asEnding(anchors[i]!)] },
    { ...still, id: secondId, anchors: [asBeginning(anchors[i]!), ...anchors.slice(i + 1)] },
  ];
}

/** The closed path begun at another of its anchors; an open path is itself. The line does not change. */
export const startAt = (path: Path, i: number): Path =>
  path.closed && i > 0 && i < path.anchors.length
    ? { ...path, anchors: [...path.anchors.slice(i), ...path.anchors.slice(0, i)] }
    : path;

/**
 * Two neighbouring anchors made one, halfway between: it keeps the handle that arrives at the first and the one that
 * leaves the second. Smooth when both were and the handles still lie in one line, else a corner.
 *
 * @param i the first of the two; the second is the next one on
 * @returns the path with one anchor less; itself when there is no next one, or only two anchors
 */
export function mergeAnchors(path: Path, i: number): Path {
  const n = path.anchors.length;
  const j = path.closed ? (i + 1) % n : i + 1;
  const [a, b] = [path.anchors[i], path.anchors[j]];
  if (!a || !b || n < 3) return path;
  const { in: arriving } = a;
  const { out: leaving } = b;
  const turn = arriving && leaving ? Math.abs(arriving.x * leaving.y - arriving.y * leaving.x) : 0;
  const inLine =
    !arriving ||
    !leaving ||
    turn <= 1e-3 * Math.hypot(arriving.x, arriving.y) * Math.hypot(leaving.x, leaving.y);
  const flowing = a.kind === 'flowing' && b.kind === 'flowing';
  const kind = flowing
    ? 'flowing'
    : a.kind !== 'corner' && b.kind !== 'corner' && inLine
      ? 'smooth'
      : 'corner';
  const one: Anchor = {
    x: (a.x + b.x) / 2,
    y: (a.y + b.y) / 2,
    kind,
    in: arriving,
    out: leaving,
    ...(b.meant && { meant: true }),
  };
  return {
    ...path,
    anchors: path.anchors.flatMap((q, k) => (k === i ? [one] : k === j ? [] : [q])),
  };
}
