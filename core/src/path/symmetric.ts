import { MirrotError } from '../error';
import { apply } from '../geometry/affine';
import { boxHeight, boxOfPoints, boxWidth } from '../geometry/bounds';
import { cubicLineIntersections } from '../geometry/intersect';
import { cross, distance, dot, subtract, unit, type Point } from '../geometry/vector';
import type { Anchor } from './anchor';
import {
  axisMaps,
  deriveAbout,
  mirrorMap,
  spreadPath,
  type Axis,
  type MirrorAxis,
  type TurnAxis,
} from './axis';
import { startAt } from './cut';
import { freezeFlow } from './flow';
import { withoutForm } from './form-path';
import { insertAnchor } from './insert';
import { averagedParts, bestPairing, PAIRED_WITHIN, pairUp, sideOf, type Lead } from './pairing';
import { pathCubics, type Path } from './path';
import { reversePath } from './path-map';

export interface Symmetrical {
  /** The paths in the order given, ids kept. */
  readonly paths: readonly Path[];
  /** The farthest that an anchor went, or lies from the nearest one where the path was made anew, and where it was. */
  readonly worst: { readonly distance: number; readonly at: Point };
}

/** Where a path meets a line, or with `ahead` the ray from `at` on, as segment and t. */
function crossings(path: Path, at: Point, along: Point, ahead = false): { segment: number; t: number }[] {
  const out: { segment: number; t: number; point: Point }[] = [];
  pathCubics(path).forEach((c, segment) => {
    for (const { t, point } of cubicLineIntersections(c, at, along)) {
      if (ahead && dot(subtract(point, at), along) <= 0) continue;
      if (out.every((o) => distance(o.point, point) > 1e-6)) out.push({ segment, t, point });
    }
  });
  return out;
}

/** The path with an anchor at a crossing, and that anchor's index. */
function withAnchorAt(
  path: Path,
  { segment, t }: { segment: number; t: number },
): { path: Path; index: number } {
  const n = path.anchors.length;
  if (t < 1e-4) return { path, index: segment };
  if (t > 1 - 1e-4) return { path, index: (segment + 1) % n };
  return { path: insertAnchor(path, segment, t), index: segment + 1 };
}

const NO_PAIRS =
  'Its anchors do not pair up across that axis, and the outline does not cross it where one side could lead. Nothing was changed.';
const refuse = (): never => {
  throw new MirrotError('not-symmetric', NO_PAIRS);
};

/** A path of which one side leads: what lies on the other becomes its mirror image. */
function mirroredFrom(given: Path, axis: MirrorAxis, lead: Lead): Path {
  const along = { x: Math.cos(axis.angle), y: Math.sin(axis.angle) };
  let path = freezeFlow(given);
  const found = crossings(path, axis, along).sort((a, b) => b.segment - a.segment || b.t - a.t);
  if (found.length !== (path.closed ? 2 : 1)) refuse();
  // From the last one back, so that earlier places still hold.
  const ends: number[] = [];
  for (const f of found) {
    const before = path.anchors.length;
    const put = withAnchorAt(path, f);
    if (put.path.anchors.length > before) ends.forEach((e, k) => e >= put.index && (ends[k] = e + 1));
    ends.push(put.index);
    path = put.path;
  }
  const onAxis = (a: Anchor): Anchor => {
    const s = dot(subtract(a, axis), along);
    return { ...a, x: axis.x + along.x * s, y: axis.y + along.y * s };
  };
  const n = path.anchors.length;
  const run = (from: number, to: number): Anchor[] => {
    const list: Anchor[] = [];
    for (let i = from; ; i = (i + 1) % n) {
      list.push(path.anchors[i]!);
      if (i === to) return list;
    }
  };
  const wanted = lead === 'one' ? -1 : 1;
  const halves: Anchor[][] = path.closed
    ? [run(ends[0]!, ends[1]!), run(ends[1]!, ends[0]!)]
    : [path.anchors.slice(0, ends[0]! + 1), path.anchors.slice(ends[0]!)];
  const weight = (h: Anchor[]): number => h.reduce((sum, a) => sum + sideOf(axis, a), 0) * wanted;
  const half = halves.reduce((a, b) => (weight(b) > weight(a) ? b : a));
  if (half.length < 2) refuse();
  const bare = withoutForm(path);
  const last = half.length - 1;
  const open = path.closed || half === halves[1];
  const anchors = half.map((a, i) => {
    if (i === 0 && open) return onAxis({ ...a, in: null });
    return i === last && (path.closed || half === halves[0]) ? onAxis({ ...a, out: null }) : a;
  });
  const whole = spreadPath(deriveAbout({ ...bare, closed: false, anchors }, axis), axis);
  return { ...whole[0]!, id: given.id };
}

/** A closed path of which the part from its first anchor on leads all round. */
function turnedFrom(given: Path, axis: TurnAxis): Path {
  let path = freezeFlow(given);
  const map = axisMaps(axis)[1]!;
  if (!path.closed) refuse();
  // The part runs the way of the turn.
  const around = pathCubics(path).reduce(
    (sum, c) => sum + cross(subtract(c[0], axis), subtract(c[3], c[0])),
    0,
  );
  const backwards = around < 0;
  if (backwards) path = reversePath(path);
  const first = path.anchors[backwards ? path.anchors.length - 1 : 0]!;
  path = startAt(path, path.anchors.indexOf(first));
  const target = apply(map, first);
  const along = unit(subtract(target, axis));
  if (!along) return refuse();
  const found = crossings(path, axis, along, true)
    .filter((c) => c.segment > 0 || c.t > 1e-4)
    .sort((a, b) => a.segment - b.segment || a.t - b.t);
  if (found.length !== 1) refuse();
  const put = withAnchorAt(path, found[0]!);
  const run = put.path.anchors.slice(0, put.index + 1);
  const bare = withoutForm(put.path);
  const anchors = run.map((a, i): Anchor => {
    if (i === 0) return { ...a, in: null };
    return i === run.length - 1 ? { ...a, ...target, kind: run[0]!.kind, out: null } : a;
  });
  const whole = spreadPath(deriveAbout({ ...bare, closed: false, anchors }, axis), axis)[0]!;
  return { ...(backwards ? reversePath(whole) : whole), id: given.id };
}

/**
 * Makes nearly symmetric paths exactly so about an axis. Every anchor is paired with its counterparts (the same number of
 * anchors, each nearest when mapped; across paths too, as two eyes are), and all of them become the mean of what they are,
 * or what the leading part is. Where anchors do not pair up but one part leads, the others are made from it anew: for a
 * mirror from where the outline crosses the axis, for a turn from its first anchor to where it has gone one part round.
 *
 * @param lead the mean of all; or one part: mirrored, the side to the left along the axis as seen on screen, or the other
 * @throws MirrotError `not-symmetric` when nothing pairs up that way
 */
export function makeSymmetric(paths: readonly Path[], axis: Axis, lead: Lead): Symmetrical {
  const still = paths.map((p) => (p.form ? freezeFlow(p) : p));
  const map = axis.kind === 'mirror' ? mirrorMap(axis) : axisMaps(axis)[1]!;
  const box = boxOfPoints(still.flatMap((p) => p.anchors));
  const near = PAIRED_WITHIN * Math.hypot(boxWidth(box), boxHeight(box));
  const pairs = (p: Path): boolean => still.some((q) => (bestPairing(p, q, map)?.off ?? Infinity) <= near);
  const paired = still.filter(pairs);
  const pairing = pairUp(paired, map);
  const even = pairing && averagedParts(paired, axis, lead, pairing);
  if (lead === 'all' && (!even || paired.length < still.length)) return refuse();
  /** The path averagedParts out with its counterparts, or null where it has none. */
  const evenOf = (p: Path): Path | null => (even && even[paired.indexOf(p)]) ?? null;
  const result = still.map((p) => {
    const found = evenOf(p);
    if (found) return found;
    return axis.kind === 'mirror' ? mirroredFrom(p, axis, lead) : turnedFrom(p, axis);
  });
  let worst = { distance: 0, at: { x: still[0]?.anchors[0]?.x ?? 0, y: still[0]?.anchors[0]?.y ?? 0 } };
  still.forEach((p, k) => {
    const now = result[k]!;
    p.anchors.forEach((a, i) => {
      // Made anew, anchors have other places: then the nearest counts.
      const d = evenOf(p)
        ? distance(a, now.anchors[i]!)
        : Math.min(...now.anchors.map((b) => distance(a, b)));
      if (d > worst.distance) worst = { distance: d, at: { x: a.x, y: a.y } };
    });
  });
  return { paths: result, worst };
}
