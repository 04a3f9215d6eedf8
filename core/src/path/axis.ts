import { about, applyLinear, apply, IDENTITY, invert, rotation, type Affine } from '../geometry/affine';
import { cross, distance, dot, length, scale, subtract, unit, type Point } from '../geometry/vector';
import { deriveFlow } from './flow';
import { reversePath, transformPath } from './path-map';
import { withAnchor, type Path } from './path';
import type { Anchor } from './anchor';
import { withoutForm } from './form-path';

/** What is drawn on one side appears on the other: the line through (x, y) at an angle in radians. */
export interface MirrorAxis {
  readonly kind: 'mirror';
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}
/** What is drawn in one of N parts appears in all, turned about (x, y). */
export interface TurnAxis {
  readonly kind: 'turn';
  readonly x: number;
  readonly y: number;
  readonly parts: number;
}
export type Axis = MirrorAxis | TurnAxis;

export const FEWEST_PARTS = 2;
export const MOST_PARTS = 60;

const direction = ({ angle }: MirrorAxis): Point => ({ x: Math.cos(angle), y: Math.sin(angle) });

/** The reflection across a mirror axis. */
export function mirrorMap(axis: MirrorAxis): Affine {
  const [c, s] = [Math.cos(2 * axis.angle), Math.sin(2 * axis.angle)];
  return about([c, s, s, -c, 0, 0], axis);
}

/** The map from what is drawn to each of its parts; the first is the drawn part itself. */
export const axisMaps = (axis: Axis): Affine[] =>
  axis.kind === 'mirror'
    ? [IDENTITY, mirrorMap(axis)]
    : Array.from({ length: axis.parts }, (_, k) =>
        k === 0 ? IDENTITY : about(rotation((2 * Math.PI * k) / axis.parts), axis),
      );

/** The axis after a map that keeps shapes as they are (moved, turned, scaled evenly, mirrored). */
export function mapAxis(axis: Axis, map: Affine): Axis {
  const at = apply(map, axis);
  if (axis.kind === 'turn') return { ...axis, ...at };
  const d = applyLinear(map, direction(axis));
  return { ...axis, ...at, angle: Math.atan2(d.y, d.x) };
}

/** The path on the other side of a mirror axis, run in the same order. */
export const mirrorPath = (path: Path, axis: MirrorAxis): Path => transformPath(path, mirrorMap(axis));

const nearness = (axis: Axis, p: Point): number => 1e-7 * (1 + distance(axis, p));

/** Whether a point lies on a mirror axis, but for rounding. */
export const liesOn = (axis: MirrorAxis, p: Point): boolean =>
  Math.abs(cross(direction(axis), subtract(p, axis))) <= nearness(axis, p);

interface Spread {
  readonly paths: readonly Path[];
  /** Index in the first path of the drawn path's first anchor. */
  readonly offset: number;
  /** The end of each part is the beginning of the next. */
  readonly meets: boolean;
}

function spread(path: Path, axis: Axis): Spread {
  const maps = axisMaps(axis);
  const copies = maps.map((m, k) =>
    k === 0 ? path : { ...transformPath(path, m), id: `${path.id}_${k + 1}` },
  );
  const n = path.anchors.length;
  const plain: Spread = { paths: copies, offset: 0, meets: false };
  if (path.closed) return plain;
  const bare = withoutForm(path);
  const first = path.anchors[0]!;
  const last = path.anchors[n - 1]!;
  if (axis.kind === 'mirror') {
    const [start, end] = [liesOn(axis, first), n > 1 && liesOn(axis, last)];
    if (!start && !end) return plain;
    if (n === 1) return { ...plain, paths: [path] };
    const over = (h: Point | null): Point | null => h && applyLinear(maps[1]!, h);
    const other = reversePath(copies[1]!).anchors;
    const one: Anchor = start ? { ...first, in: over(first.out) } : first;
    const two: Anchor = end ? { ...last, out: over(last.in) } : last;
    const half = n === 1 ? [one] : [one, ...path.anchors.slice(1, -1), two];
    if (start && end)
      return {
        paths: [{ ...bare, closed: true, anchors: [...half, ...other.slice(1, -1)] }],
        offset: 0,
        meets: true,
      };
    return start
      ? { paths: [{ ...bare, anchors: [...other.slice(0, -1), ...half] }], offset: n - 1, meets: true }
      : { paths: [{ ...bare, anchors: [...half, ...other.slice(1)] }], offset: 0, meets: true };
  }
  const meets = n > 1 && distance(last, apply(maps[1]!, first)) <= nearness(axis, last);
  const arriving = (k: number): Point | null =>
    last.in && applyLinear(maps[(k - 1 + maps.length) % maps.length]!, last.in);
  const anchors = copies.flatMap((c, k) =>
    meets ? c.anchors.slice(0, -1).map((a, i) => (i === 0 ? { ...a, in: arriving(k) } : a)) : c.anchors,
  );
  return { paths: [{ ...bare, closed: true, anchors }], offset: 0, meets };
}

/**
 * All that a path stands for about an axis. Mirrored: a closed path twice; an open one that begins and ends on the
 * axis becomes one closed outline, one that only begins or ends there runs on through it. Turned: a closed path N
 * times; an open one is joined end to beginning, round the centre, as one closed outline.
 *
 * @returns paths with ids of their own: the drawn one's, further ones with `_2`, `_3` … after it
 */
export const spreadPath = (path: Path, axis: Axis): readonly Path[] => spread(path, axis).paths;

/** A smooth end's handle turned to run straight across the axis, so that the line stays smooth there. */
function squareTo(axis: MirrorAxis, a: Anchor): Anchor {
  const u = direction(axis);
  const foot = dot(subtract(a, axis), u);
  const at = { x: axis.x + u.x * foot, y: axis.y + u.y * foot };
  const put = { ...a, ...at };
  if (a.kind !== 'smooth') return put;
  const square = (h: Point | null): Point | null => {
    if (!h) return null;
    const across = { x: -u.y, y: u.x };
    return scale(across, Math.sign(dot(h, across) || 1) * length(h));
  };
  return { ...put, in: square(a.in), out: square(a.out) };
}

/** Settles a drawn path with its other parts in mind: what flows flows round all of it, what meets the axis stays smooth across. */
export function deriveAbout(path: Path, axis: Axis): Path {
  const n = path.anchors.length;
  let settled = path;
  if (axis.kind === 'mirror' && !path.closed)
    for (const i of n > 1 ? [0, n - 1] : [0]) {
      const a = settled.anchors[i]!;
      if (liesOn(axis, a)) settled = withAnchor(settled, i, squareTo(axis, a));
    }
  if (axis.kind === 'turn' && !path.closed && n > 1) settled = smoothSeam(settled, axis);
  if (path.closed) return deriveFlow(settled);
  if (!settled.anchors.some((a) => a.kind === 'flowing')) return settled;
  const { paths, offset, meets } = spread(settled, axis);
  if (paths.length > 1) return deriveFlow(settled);
  const whole = deriveFlow(paths[0]!).anchors;
  const anchors = settled.anchors.map((a, i): Anchor => {
    const from = whole[(offset + i) % whole.length]!;
    const outer = meets && ((i === 0 && 'in') || (i === n - 1 && 'out'));
    // The last anchor is the first one of the next part; its arriving handle is read there.
    if (axis.kind === 'turn' && meets && i === n - 1) return { ...a, in: from.in };
    const kept = { ...a, in: from.in, out: from.out };
    return outer ? { ...kept, [outer]: a[outer] } : kept;
  });
  return { ...settled, anchors };
}

/** Where the end of a part is the beginning of the next and both are smooth, their handles come into one line. */
function smoothSeam(path: Path, axis: TurnAxis): Path {
  const n = path.anchors.length;
  const first = path.anchors[0]!;
  const last = path.anchors[n - 1]!;
  const map = axisMaps(axis)[1]!;
  if (distance(last, apply(map, first)) > nearness(axis, last)) return path;
  if (first.kind !== 'smooth' || last.kind !== 'smooth' || !first.out || !last.in) return path;
  const leaving = applyLinear(map, first.out);
  const along = unit(subtract(leaving, last.in));
  const back = invert(map);
  if (!along || !back) return path;
  const begun = withAnchor(path, 0, { ...first, out: applyLinear(back, scale(along, length(leaving))) });
  return withAnchor(begun, n - 1, { ...last, in: scale(along, -length(last.in)) });
}
