import { toRadians } from '../geometry/angle';
import { dot, length, subtract } from '../geometry/vector';
import { segmentCount, segmentCubic, turnAt, withAnchor, type Path } from '../path/path';

/** Handles that grow by this much beside their segment, or turn back on it, fold it: such a round is not taken. */
const MOST_HANDLE = 1.5;
const BACKWARDS = -0.3;

/** How long a segment's longer handle is beside its chord, and how far its handles point back along it. */
function handlesBesideChord(path: Path, segment: number): { readonly long: number; readonly back: number } {
  const [a, b, c, d] = segmentCubic(path, segment);
  const chord = subtract(d, a);
  const size = length(chord);
  if (!(size > 0)) return { long: 0, back: 0 };
  const [out, back] = [subtract(b, a), subtract(d, c)];
  const long = Math.max(length(out), length(back)) / size;
  return { long, back: Math.min(0, dot(out, chord) / size ** 2, dot(back, chord) / size ** 2) };
}

/** How far apart the two sides of a corner leave it, radians; null where an anchor is none, or ends an open path. */
function cornerAngle(path: Path, anchor: number): number | null {
  const turn = path.anchors[anchor]!.kind === 'corner' ? turnAt(path, anchor) : null;
  return turn === null ? null : Math.PI - turn;
}

/** A corner whose sides come so near to each other beside what they were, and so near at all, radians, is drawn out to a spike. */
const SPIKE_SHARE = 1 / 3;
const SPIKE_ANGLE = toRadians(12);

/** Anchors at loops, folds and spikes that a path has and another, of the same anchors, has not. */
function foldedAnchors(path: Path, before: Path): ReadonlySet<number> {
  const found = new Set<number>();
  for (let s = 0; s < segmentCount(path); s++) {
    const [now, was] = [handlesBesideChord(path, s), handlesBesideChord(before, s)];
    if (now.long > Math.max(MOST_HANDLE, 1.5 * was.long) || now.back < Math.min(BACKWARDS, 1.5 * was.back))
      found.add(s).add((s + 1) % path.anchors.length);
  }
  path.anchors.forEach((_, i) => {
    const [now, was] = [cornerAngle(path, i), cornerAngle(before, i)];
    if (now !== null && was !== null && now < Math.min(SPIKE_ANGLE, SPIKE_SHARE * was)) found.add(i);
  });
  return found;
}

/** A path after a step, what it folded left as it was before; that path itself where it folds all the same. */
export function unfolded(stepped: Path, before: Path, start: Path): Path {
  const folded = foldedAnchors(stepped, start);
  if (folded.size === 0) return stepped;
  const left = [...folded].reduce((path, i) => withAnchor(path, i, before.anchors[i]!), stepped);
  return foldedAnchors(left, start).size === 0 ? left : before;
}
