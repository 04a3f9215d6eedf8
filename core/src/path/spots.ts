import { cubicExtrema, cubicInflections, cubicLength } from '../geometry/cubic';
import { insertAnchor } from './insert';
import { segmentCount, segmentCubic, segmentIsLine, type Path } from './path';

/** A place on a path: a segment, and how far along it (0 < t < 1). */
export interface Spot {
  readonly segment: number;
  readonly t: number;
}

/** Nearer than this to an anchor, in t, a place is the anchor's own. */
const OWN = 1e-3;
const inside = (t: number): boolean => t > OWN && t < 1 - OWN;

const curvedSegments = (path: Path): number[] =>
  Array.from({ length: segmentCount(path) }, (_, i) => i).filter((i) => !segmentIsLine(path, i));

/** Places where the line is farthest left, right, up or down of what lies next to it, anchors left out. */
export const extremeSpots = (path: Path): Spot[] =>
  curvedSegments(path).flatMap((segment) =>
    cubicExtrema(segmentCubic(path, segment))
      .filter(inside)
      .map((t) => ({ segment, t })),
  );

/** Places where the line goes over from bending one way to bending the other. */
export const inflectionSpots = (path: Path): Spot[] =>
  curvedSegments(path).flatMap((segment) =>
    cubicInflections(segmentCubic(path, segment))
      .filter(inside)
      .map((t) => ({ segment, t })),
  );

/** `count` places on a segment that part it into stretches of equal length. */
export function evenSpots(path: Path, segment: number, count: number): Spot[] {
  const c = segmentCubic(path, segment);
  const whole = cubicLength(c);
  return Array.from({ length: count }, (_, k) => {
    const wanted = (whole * (k + 1)) / (count + 1);
    let [low, high] = [0, 1];
    for (let i = 0; i < 50; i++) {
      const t = (low + high) / 2;
      if (cubicLength(c, t) < wanted) low = t;
      else high = t;
    }
    return { segment, t: (low + high) / 2 };
  });
}

/** Adds anchors at places of a path without changing its line. Places on one spot make one anchor. */
export function insertAnchors(path: Path, spots: readonly Spot[]): Path {
  const sorted = [...spots].sort((a, b) => b.segment - a.segment || b.t - a.t);
  let next = path;
  let after: Spot | null = null;
  for (const spot of sorted) {
    const end: number = after?.segment === spot.segment ? after.t : 1;
    if (!(spot.t > 0 && spot.t < end - 1e-9)) continue;
    next = insertAnchor(next, spot.segment, spot.t / end);
    after = spot;
  }
  return next;
}
