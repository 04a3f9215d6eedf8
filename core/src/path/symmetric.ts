import { withoutMark } from './anchor';
import { apply, applyLinear, invert, type Affine } from '../geometry/affine';
import { boxHeight, boxOfPoints, boxWidth } from '../geometry/bounds';
import { cubicLineIntersections } from '../geometry/intersect';
import {
  add,
  cross,
  distance,
  dot,
  length,
  ORIGIN,
  scale,
  subtract,
  unit,
  type Point,
} from '../geometry/vector';
import { MirrotError } from '../error';
import {
  axisMaps,
  mirrorMap,
  deriveAbout,
  spreadPath,
  type Axis,
  type MirrorAxis,
  type TurnAxis,
} from './axis';
import { startAt } from './cut';
import { freezeFlow } from './flow';
import { insertAnchor } from './insert';
import { pathCubics, reversePath, type Anchor, type Path } from './path';
import { withoutForm } from './form';

/** Who says what all parts become: their average, the first part, or (mirrored) the other one. */
export type Lead = 'all' | 'one' | 'other';

export interface Symmetrical {
  /** The paths in the order given, ids kept. */
  readonly paths: readonly Path[];
  /** The farthest that an anchor went, or lies from the nearest one where the path was made anew, and where it was. */
  readonly worst: { readonly distance: number; readonly at: Point };
}

/** Anchors count as counterparts when they lie within this share of the whole drawing's diagonal. */
const NEAR = 0.12;

interface Spot {
  readonly path: number;
  readonly index: number;
}
/** Where each anchor goes: the counterpart of every spot, and whether its path runs the other way there. */
interface Pairing {
  readonly to: readonly (readonly Spot[])[];
  readonly flips: readonly boolean[];
}

/** How path `a`, mapped, lies best on path `b`: from each anchor of `a` to one of `b`; null when they cannot pair. */
function lay(
  a: Path,
  b: Path,
  map: Affine,
): { to: number[]; flips: boolean; sum: number; off: number } | null {
  const n = a.anchors.length;
  if (b.anchors.length !== n || a.closed !== b.closed) return null;
  const seen = a.anchors.map((p) => apply(map, p));
  let best: { shift: number; flips: boolean; sum: number } | null = null;
  for (const flips of [false, true])
    for (let shift = 0; shift < (a.closed ? n : 1); shift++) {
      let sum = 0;
      for (let i = 0; i < n && (!best || sum < best.sum); i++) {
        const q = b.anchors[place(i, n, shift, flips)]!;
        sum += (seen[i]!.x - q.x) ** 2 + (seen[i]!.y - q.y) ** 2;
      }
      if (!best || sum < best.sum) best = { shift, flips, sum };
    }
  if (!best) return null;
  const { shift, flips, sum } = best;
  const to = seen.map((_, i) => place(i, n, shift, flips));
  return { to, flips, sum, off: Math.max(...seen.map((p, i) => distance(p, b.anchors[to[i]!]!))) };
}

const place = (i: number, n: number, shift: number, flips: boolean): number =>
  flips ? (((shift - i) % n) + n + n - 1) % n : (i + shift) % n;

/** Counterparts of all anchors under a map, path by path; null when a path has none. */
function pairUp(paths: readonly Path[], map: Affine): Pairing | null {
  const to: Spot[][] = [];
  const flips: boolean[] = [];
  for (const a of paths) {
    let best: { path: number; laid: NonNullable<ReturnType<typeof lay>> } | null = null;
    // Where two lie alike, as circles on one spot, each pairs with itself.
    const alike = 1e-12 * a.anchors.reduce((sum, p) => sum + p.x * p.x + p.y * p.y, 0);
    paths.forEach((b, path) => {
      const laid = lay(a, b, map);
      if (laid && (!best || laid.sum + (b === a ? -alike : alike) < best.laid.sum)) best = { path, laid };
    });
    if (!best) return null;
    const { path, laid } = best as { path: number; laid: NonNullable<ReturnType<typeof lay>> };
    to.push(laid.to.map((index) => ({ path, index })));
    flips.push(laid.flips);
  }
  return { to, flips };
}

const turned = (a: Anchor, map: Affine, flips: boolean): Anchor => {
  const over = (h: Point | null): Point | null => h && applyLinear(map, h);
  const [arriving, leaving] = flips ? [a.out, a.in] : [a.in, a.out];
  return { ...a, ...apply(map, a), in: over(arriving), out: over(leaving) };
};

/** The mean of anchors: smooth or flowing where all are, handles of a smooth one brought into line. */
function meanAnchor(anchors: readonly Anchor[]): Anchor {
  const n = anchors.length;
  const first = anchors[0]!;
  const mean = (of: (a: Anchor) => Point): Point => scale(anchors.map(of).reduce(add, ORIGIN), 1 / n);
  const handle = (side: 'in' | 'out'): Point | null =>
    anchors.some((a) => a[side]) ? mean((a) => a[side] ?? ORIGIN) : null;
  const kind = anchors.every((a) => a.kind === first.kind)
    ? first.kind
    : anchors.some((a) => a.kind === 'corner')
      ? 'corner'
      : 'smooth';
  const bare = withoutMark(withoutMark(first, 'equal'), 'shared');
  const one: Anchor = {
    ...bare,
    ...mean((a) => a),
    kind,
    in: handle('in'),
    out: handle('out'),
    ...(kind === 'smooth' && anchors.every((a) => a.equal) ? { equal: true as const } : {}),
  };
  if (kind !== 'smooth' || !one.in || !one.out) return one;
  const along = unit(subtract(one.out, one.in));
  return along ? { ...one, in: scale(along, -length(one.in)), out: scale(along, length(one.out)) } : one;
}

const sideOf = (axis: MirrorAxis, p: Point): number =>
  Math.cos(axis.angle) * (p.y - axis.y) - Math.sin(axis.angle) * (p.x - axis.x);

/** All anchors made exactly what their counterparts are; null when they do not go round to where they began. */
function evened(paths: readonly Path[], axis: Axis, lead: Lead, { to, flips }: Pairing): Path[] | null {
  const maps = axisMaps(axis);
  const back = maps.map((m) => invert(m)!);
  const done: (Anchor | undefined)[][] = paths.map((p) => new Array<Anchor | undefined>(p.anchors.length));
  for (let p = 0; p < paths.length; p++)
    for (let i = 0; i < paths[p]!.anchors.length; i++) {
      if (done[p]![i]) continue;
      // The anchor and its counterparts in all parts, and whether their paths run the other way.
      const orbit: (Spot & { flips: boolean })[] = [];
      let at: Spot & { flips: boolean } = { path: p, index: i, flips: false };
      for (let m = 0; m < maps.length; m++) {
        orbit.push(at);
        at = { ...to[at.path]![at.index]!, flips: at.flips !== flips[at.path]! };
      }
      if (at.path !== p || at.index !== i || at.flips) return null;
      const here = orbit.map((s) => paths[s.path]!.anchors[s.index]!);
      const seen = orbit.map((s, m) => turned(here[m]!, back[m]!, s.flips));
      const wholly = orbit.every((s) => s.path === p && s.index === i);
      // Turned, the first part leads; mirrored, the side that is asked for. It stays to the last digit.
      let leads: number | null = null;
      if (lead !== 'all' && !wholly) {
        const sides = axis.kind === 'mirror' ? here.map((a) => sideOf(axis, a)) : [0, 0];
        leads = (lead === 'one') === sides[0]! <= sides[1]! ? 0 : 1;
      }
      const one = meanAnchor(leads === null ? seen : [seen[leads]!]);
      orbit.forEach((s, m) => {
        const { shared } = here[m]!;
        done[s.path]![s.index] ??=
          m === leads ? here[m]! : { ...turned(one, maps[m]!, s.flips), ...(shared ? { shared } : {}) };
      });
    }
  return paths.map((path, p) => {
    const bare = withoutForm(path);
    return { ...bare, anchors: done[p] as Anchor[] };
  });
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
function anchored(path: Path, { segment, t }: { segment: number; t: number }): { path: Path; index: number } {
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
    const put = anchored(path, f);
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
  const put = anchored(path, found[0]!);
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
  const near = NEAR * Math.hypot(boxWidth(box), boxHeight(box));
  const pairs = (p: Path): boolean => still.some((q) => (lay(p, q, map)?.off ?? Infinity) <= near);
  const paired = still.filter(pairs);
  const pairing = pairUp(paired, map);
  const even = pairing && evened(paired, axis, lead, pairing);
  if (lead === 'all' && (!even || paired.length < still.length)) return refuse();
  /** The path evened out with its counterparts, or null where it has none. */
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

/**
 * The mirror axis that paths' anchors lie about best: for every way a path's anchors can be paired with each other
 * running the other way, the line that brings the pairs together by least squares (through the mean of the anchors,
 * along the main direction of their sums and differences), the nearest of all. Only the longest path is looked at.
 *
 * @returns null for paths with fewer than three anchors
 */
export function ownMirrorAxis(paths: readonly Path[]): MirrorAxis | null {
  const path = paths.reduce<Path | null>((a, b) => (!a || b.anchors.length > a.anchors.length ? b : a), null);
  const n = path?.anchors.length ?? 0;
  if (!path || n < 3) return null;
  const centre = ownCentre(paths);
  const from = path.anchors.map((a) => subtract(a, centre));
  let best: { angle: number; sum: number } | null = null;
  for (let shift = 0; shift < (path.closed ? n : 1); shift++) {
    // Maximise Σ p·M(θ)q over θ: M's matrix is [cos 2θ, sin 2θ; sin 2θ, −cos 2θ].
    let c = 0;
    let s = 0;
    let sum = 0;
    for (let i = 0; i < n; i++) {
      const p = from[i]!;
      const q = from[place(i, n, shift, true)]!;
      c += p.x * q.x - p.y * q.y;
      s += p.x * q.y + p.y * q.x;
      sum += dot(p, p) + dot(q, q);
    }
    const off = sum - 2 * Math.hypot(c, s);
    if (!best || off < best.sum - 1e-9 * sum) best = { angle: Math.atan2(s, c) / 2, sum: off };
  }
  return { kind: 'mirror', x: centre.x, y: centre.y, angle: best!.angle };
}

/** Mean of the anchors of the path that has most: the centre of what turns about itself. */
export function ownCentre(paths: readonly Path[]): Point {
  const path = paths.reduce((a, b) => (b.anchors.length > a.anchors.length ? b : a));
  return scale(path.anchors.reduce<Point>(add, ORIGIN), 1 / path.anchors.length);
}
