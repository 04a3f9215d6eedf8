import { boxesMeet, boxHas, growBox } from '../geometry/bounds';
import { distance, type Point } from '../geometry/vector';
import { withoutForm } from './form-path';
import { freezeFlow } from './flow';
import { insertAnchor } from './insert';
import { nearestOnPath, pathBounds } from './path-measure';
import { segmentCount, segmentCubic, withAnchor, type Path } from './path';
import { nearestOnCubic } from '../geometry/nearest';
import { cubicPoint } from '../geometry/cubic';

// Anchors and borders that miss each other by less than the eye sees: combined as they are they leave slivers.

/** Nearer than this, as a share of what counts as near, is no miss: it is there. */
const MEETS_SHARE = 1e-6;

/** Shapes whose near misses were closed. */
export interface ClosedMisses {
  /** Outlines of each, in their order; those that were not changed are themselves. */
  readonly shapes: readonly (readonly Path[])[];
  /** How many places missed each other, and the widest gap. */
  readonly count: number;
  readonly widest: number;
}

interface Place {
  readonly at: Point;
  readonly gap: number;
}

/** The anchor of other paths that is nearest to a point within reach, or else the nearest place on their lines. */
function nearestPlace(p: Point, others: readonly Path[], within: number): Place | null {
  let best: Place | null = null;
  const near = others.filter((path) => boxHas(growBox(pathBounds(path), within), p));
  for (const path of near)
    for (const { x, y } of path.anchors) {
      const gap = distance(p, { x, y });
      if (gap <= within && (!best || gap < best.gap)) best = { at: { x, y }, gap };
    }
  if (best) return best;
  for (const path of near) {
    const found = nearestOnPath(path, p, within);
    if (found && (!best || found.distance < best.gap)) best = { at: found.point, gap: found.distance };
  }
  return best;
}

/** Places along a segment at which it is looked whether another one runs beside it. */
const BESIDE_AT = [0.2, 0.4, 0.6, 0.8];

/** A segment that runs beside one of other paths from anchor to anchor takes its very curve. */
function withSameBorder(path: Path, segment: number, others: readonly Path[], within: number): Path {
  const cubic = segmentCubic(path, segment);
  const next = (segment + 1) % path.anchors.length;
  for (const other of others)
    for (let i = 0; i < segmentCount(other); i++) {
      const theirs = segmentCubic(other, i);
      const along = distance(theirs[0], cubic[0]) === 0 && distance(theirs[3], cubic[3]) === 0;
      const against = distance(theirs[3], cubic[0]) === 0 && distance(theirs[0], cubic[3]) === 0;
      if (!along && !against) continue;
      if (BESIDE_AT.some((t) => nearestOnCubic(theirs, cubicPoint(cubic, t)).distance > within)) continue;
      const [from, to] = [other.anchors[i]!, other.anchors[(i + 1) % other.anchors.length]!];
      const [out, into] = along ? [from.out, to.in] : [to.in, from.out];
      const [a, b] = [path.anchors[segment]!, path.anchors[next]!];
      return withAnchor(withAnchor(path, segment, { ...a, kind: 'corner', out }), next, { ...b, kind: 'corner', in: into }); // prettier-ignore
    }
  return path;
}

/**
 * Moves what misses by less than a distance onto each other: anchors onto anchors of shapes before them, or onto their lines;
 * lines onto anchors that they pass; borders that then run from the same anchor to the same one become the same curve. The
 * first shape stays as it is.
 *
 * @param shapes outlines of each, open or closed, in one unit
 * @param within farther apart is meant so
 */
export function closeNearMisses(shapes: readonly (readonly Path[])[], within: number): ClosedMisses {
  let count = 0;
  let widest = 0;
  const note = (gap: number): void => {
    count++;
    widest = Math.max(widest, gap);
  };
  const done: (readonly Path[])[] = [];
  for (const shape of shapes) {
    const others = done.flat();
    const next = shape.map((path): Path => {
      if (!others.some((other) => boxesMeet(growBox(pathBounds(other), within), pathBounds(path))))
        return path;
      const before = count;
      let now = withoutForm(freezeFlow(path));
      now.anchors.forEach((a, i) => {
        const place = nearestPlace(a, others, within);
        if (!place || place.gap <= MEETS_SHARE * within) return;
        note(place.gap);
        now = withAnchor(now, i, { ...now.anchors[i]!, x: place.at.x, y: place.at.y });
      });
      for (const { x, y } of others.flatMap((other) => other.anchors)) {
        const found = nearestOnPath(now, { x, y }, within);
        if (!found || found.distance <= MEETS_SHARE * within) continue;
        if (now.anchors.some((a) => distance(a, { x, y }) <= within)) continue;
        note(found.distance);
        now = insertAnchor(now, found.segment, Math.min(1 - 1e-9, Math.max(1e-9, found.t)));
        now = withAnchor(now, found.segment + 1, { ...now.anchors[found.segment + 1]!, x, y });
      }
      if (count === before) return path;
      for (let i = 0; i < segmentCount(now); i++) now = withSameBorder(now, i, others, within);
      return now;
    });
    done.push(next.every((path, i) => path === shape[i]) ? shape : next);
  }
  return { shapes: done, count, widest };
}
