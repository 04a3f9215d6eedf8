import { cubicTangent, lineCubic, type Cubic } from '../geometry/cubic';
import { add, dot, unit, type Point } from '../geometry/vector';
import type { Anchor, HandleSide } from './anchor';
import type { Form } from './form';

/** A run of cubic segments through its anchors; a closed one has a last segment back to the first anchor. */
export interface Path {
  readonly id: string;
  readonly closed: boolean;
  readonly anchors: readonly Anchor[];
  /** What it was drawn as; gone once an anchor is edited. */
  readonly form?: Form;
}

/** Number of segments; 0 for an empty path and for a lone open anchor. */
export const segmentCount = (path: Path): number =>
  path.anchors.length === 0
    ? 0
    : path.closed && path.anchors.length > 1
      ? path.anchors.length
      : path.anchors.length - 1;

/** Index of the anchor `step` anchors on, round the end of a closed path; null past the end of an open one. */
export function anchorAt(path: Path, index: number, step: number): number | null {
  const n = path.anchors.length;
  const i = index + step;
  if (path.closed && n > 1) return ((i % n) + n) % n;
  return i >= 0 && i < n ? i : null;
}

/** The two anchors of segment `i`, which leaves anchor `i`. */
export function segmentEnds(path: Path, i: number): [Anchor, Anchor] {
  const from = path.anchors[i];
  const to = path.anchors[(i + 1) % path.anchors.length];
  if (!from || !to || i >= segmentCount(path))
    throw new RangeError(`The path has ${segmentCount(path)} segments; there is no segment ${i}.`);
  return [from, to];
}

/** Whether segment `i` has no handle at either end, and so is straight by construction. */
export function segmentIsLine(path: Path, i: number): boolean {
  const [from, to] = segmentEnds(path, i);
  return from.out === null && to.in === null;
}

/** Control points of the cubic between two anchors. */
export const cubicBetween = (from: Anchor, to: Anchor): Cubic =>
  from.out === null && to.in === null
    ? lineCubic(from, to)
    : [
        { x: from.x, y: from.y },
        from.out ? add(from, from.out) : { x: from.x, y: from.y },
        to.in ? add(to, to.in) : { x: to.x, y: to.y },
        { x: to.x, y: to.y },
      ];

export const segmentCubic = (path: Path, i: number): Cubic => cubicBetween(...segmentEnds(path, i));

// Paths are immutable, so what follows from one is worked out once.
export function memoised<T>(work: (path: Path) => T): (path: Path) => T {
  const known = new WeakMap<Path, T>();
  return (path) => {
    let value = known.get(path);
    if (value === undefined) known.set(path, (value = work(path)));
    return value;
  };
}

/** All segments as cubics, in order. */
export const pathCubics = memoised((path): readonly Cubic[] =>
  Array.from({ length: segmentCount(path) }, (_, i) => segmentCubic(path, i)),
);

/** Unit direction in which the path runs through anchor `i` on the given side; null where nothing lies on that side. */
export function tangentAt(path: Path, i: number, side: HandleSide): Point | null {
  const before = anchorAt(path, i, -1);
  const segment = side === 'out' ? (anchorAt(path, i, 1) === null ? null : i) : before;
  if (segment === null || segmentCount(path) === 0) return null;
  return unit(cubicTangent(segmentCubic(path, segment), side === 'out' ? 0 : 1));
}

/** How sharply the path turns at anchor `i`, radians, 0 to π; null at the ends of an open one. */
export function turnAt(path: Path, i: number): number | null {
  const [before, after] = [tangentAt(path, i, 'in'), tangentAt(path, i, 'out')];
  return before && after ? Math.acos(Math.max(-1, Math.min(1, dot(before, after)))) : null;
}

/** The path with anchor `i` replaced. */
export const withAnchor = (path: Path, i: number, anchor: Anchor): Path => ({
  ...path,
  anchors: path.anchors.map((a, k) => (k === i ? anchor : a)),
});
