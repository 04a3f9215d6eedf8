import { boxOfPoints, EMPTY_BOX, uniteBoxes, type Box } from '../geometry/bounds';
import type { Affine } from '../geometry/affine';
import { cubicArea, cubicBounds, cubicLength, cubicTangent, lineCubic, type Cubic } from '../geometry/cubic';
import { flattenCubic } from '../geometry/flatten';
import { nearestOnCubic } from '../geometry/nearest';
import { add, unit, type Point } from '../geometry/vector';
import { isMarked, mapAnchor, turnedAnchor, type Anchor, type HandleSide } from './anchor';
import { fitsForm, formPath, mapForm, withoutForm, type Form } from './form';

export { corner, otherSide, type Anchor, type AnchorKind, type HandleSide } from './anchor';

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
function remembered<T>(work: (path: Path) => T): (path: Path) => T {
  const known = new WeakMap<Path, T>();
  return (path) => {
    let value = known.get(path);
    if (value === undefined) known.set(path, (value = work(path)));
    return value;
  };
}

/** All segments as cubics, in order. */
export const pathCubics = remembered((path): readonly Cubic[] =>
  Array.from({ length: segmentCount(path) }, (_, i) => segmentCubic(path, i)),
);

/** Exact bounds of the line itself; of the lone anchor if there is no segment; `EMPTY_BOX` when empty. */
export const pathBounds = remembered((path): Box => {
  const cubics = pathCubics(path);
  if (cubics.length === 0) return boxOfPoints(path.anchors);
  return cubics.map(cubicBounds).reduce(uniteBoxes, EMPTY_BOX);
});

/** Length of the line in the path's unit, closing segment included when closed. */
export const pathLength = (path: Path): number =>
  pathCubics(path).reduce((sum, c) => sum + cubicLength(c), 0);

/** Signed area in the path's unit squared, an open path taken as closed by a line; positive when clockwise on screen. */
export function pathArea(path: Path): number {
  const first = path.anchors[0];
  const last = path.anchors.at(-1);
  if (!first || !last) return 0;
  const closing = path.closed ? 0 : cubicArea(lineCubic(last, first));
  return pathCubics(path).reduce((sum, c) => sum + cubicArea(c), closing);
}

/** The path as a polygon, no chord farther than `tolerance` from the line. First anchor first. */
export function flattenPath(path: Path, tolerance: number): Point[] {
  const first = path.anchors[0];
  if (!first) return [];
  return [{ x: first.x, y: first.y }, ...pathCubics(path).flatMap((c) => flattenCubic(c, tolerance))];
}

/** Where a path comes nearest to a point. */
export interface NearestOnPath {
  readonly segment: number;
  readonly t: number;
  readonly point: Point;
  readonly distance: number;
}

/** Least squared distance from `p` to the box about a curve's control points, which the curve never leaves. */
function boxDistance2([a, b, c, d]: Cubic, p: Point): number {
  const dx = Math.max(Math.min(a.x, b.x, c.x, d.x) - p.x, p.x - Math.max(a.x, b.x, c.x, d.x), 0);
  const dy = Math.max(Math.min(a.y, b.y, c.y, d.y) - p.y, p.y - Math.max(a.y, b.y, c.y, d.y), 0);
  return dx * dx + dy * dy;
}

/**
 * Nearest point of the path's line to `p`; the earliest of equals. Segments whose box is farther than what was found
 * are passed over.
 *
 * @param within farther than this does not count
 * @returns null when the path has no segment, or none within reach
 */
export function nearestOnPath(path: Path, p: Point, within = Infinity): NearestOnPath | null {
  let best: NearestOnPath | null = null;
  let least = within;
  pathCubics(path).forEach((c, segment) => {
    if (boxDistance2(c, p) > least * least) return;
    const n = nearestOnCubic(c, p);
    if (best ? n.distance >= least : n.distance > least) return;
    best = { segment, ...n };
    least = n.distance;
  });
  return best;
}

/** Unit direction in which the path runs through anchor `i` on the given side; null where nothing lies on that side. */
export function tangentAt(path: Path, i: number, side: HandleSide): Point | null {
  const before = anchorAt(path, i, -1);
  const segment = side === 'out' ? (anchorAt(path, i, 1) === null ? null : i) : before;
  if (segment === null || segmentCount(path) === 0) return null;
  return unit(cubicTangent(segmentCubic(path, segment), side === 'out' ? 0 : 1));
}

/** Whether a map keeps shapes as they are but for their size, turn and mirroring. */
export const keepsShape = ([a, b, c, d]: Affine): boolean => {
  const size = a * a + b * b + c * c + d * d;
  return Math.abs(a * a + b * b - c * c - d * d) <= 1e-9 * size && Math.abs(a * c + b * d) <= 1e-9 * size;
};

/**
 * The path with every anchor and handle mapped. Where the map stretches one way, flowing anchors become smooth: they
 * would work out another curve.
 */
export function transformPath(path: Path, map: Affine): Path {
  const form = path.form && mapForm(path.form, map);
  const fits = form && fitsForm(path);
  if (fits && !path.anchors.some(isMarked)) return formPath(form, path.id);
  const keeps = keepsShape(map);
  const mapped = { ...path, anchors: path.anchors.map((a) => mapAnchor(a, map, keeps)) };
  // Marked anchors stay the ones they are: the form only where it is drawn through them in this order.
  return fits && fitsForm({ ...mapped, form }) ? { ...mapped, form } : mapped;
}

/** The path with some of its anchors and their handles mapped; the others stay. */
export function transformAnchors(path: Path, indices: readonly number[], map: Affine): Path {
  const chosen = new Set(indices);
  const mapped = transformPath({ ...path, form: undefined }, map).anchors;
  return { ...withoutForm(path), anchors: path.anchors.map((a, i) => (chosen.has(i) ? mapped[i]! : a)) };
}

/** The path with anchor `i` replaced. */
export const withAnchor = (path: Path, i: number, anchor: Anchor): Path => ({
  ...path,
  anchors: path.anchors.map((a, k) => (k === i ? anchor : a)),
});

/** The same line run the other way. */
export const reversePath = (path: Path): Path => ({
  ...path,
  anchors: path.anchors.map((_, k) => {
    const n = path.anchors.length;
    // The segment that arrived leaves now, and its mark with it.
    const before = path.anchors[(2 * n - 2 - k) % n]!;
    const turned = turnedAnchor(path.anchors[n - 1 - k]!);
    return before.meant && (path.closed || k < n - 1) ? { ...turned, meant: true as const } : turned;
  }),
});
