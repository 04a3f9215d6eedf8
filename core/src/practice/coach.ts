import { hexesApart } from '../colour/palette';
import { toRadians } from '../geometry/angle';
import { cubicLength, cubicPoint, type Cubic } from '../geometry/cubic';
import { cross, distance, negate, subtract, unit, type Point } from '../geometry/vector';
import type { Anchor } from '../path/anchor';
import { pathCubics, segmentCount, turnAt, type Path } from '../path/path';
import { nearestOnPath } from '../path/path-measure';
import type { TruthShape } from './exercise';
import { FAR_PX, type DrawnShape } from './score';
import { bendOf, nearestPlace, stretchOf, trueLine, turnOf, type TrueLine } from './true-line';

// The one thing that would help most in a drawing as it is now. It never says where the truth lies.

/** What may be said, what helps most first. Places are told by anchors, counted from 1. */
export const ADVICE = [
  'begin',
  'astray',
  'twice',
  'side-by-side',
  'anchor-off',
  'corner-cut',
  'corner-smooth',
  'corner-false',
  'crossed',
  'straight-bent',
  'pull',
  'bends-twice',
  'turns-far',
  'handle-turned',
  'handles-short',
  'handles-long',
  'spare',
  'close',
  'go-on',
  'hole',
  'next',
  'colour',
] as const;
export type AdviceCode = (typeof ADVICE)[number];

export interface Advice {
  readonly code: AdviceCode;
  /** The anchor it is about, or the one before the segment it is about, from 1; null where it is about the whole. */
  readonly anchor: number | null;
}

/** An anchor farther from the edge than this is moved first, pixels of the picture. */
const ANCHOR_OFF_PX = 4;
/** Anchors nearer to each other than this are one too many. */
const SIDE_BY_SIDE_PX = 6;
/** So near to an anchor a corner counts as its own. */
const OWN_CORNER_PX = 12;
/** A segment nearer to the edge than this lies well. */
const WELL_PX = 1.5;
/** A stretch that bows by less is straight. */
const STRAIGHT_PX = 1;
/** Ends that are to be closed lie nearer than this. */
const CLOSING_PX = 30;
/** A drawn anchor that turns by less is smooth to the eye. */
const FLAT = toRadians(12);
/** A stretch bends both ways where each is at least so much. */
const BOTH_WAYS = toRadians(18);
/** One segment holds no stretch that turns farther. Common practice, no source. */
const FARTHEST_TURN = toRadians(130);
/** A handle that leaves the edge's direction by more is seen to. */
const TURNED_HANDLE = toRadians(14);
/** Colours nearer than this look alike: CIEDE2000. */
const ALIKE_DELTA_E = 3;
/** A line with less of it drawn is not finished. */
const WHOLE_SHARE = 0.9;
/** Of two lines along the same truth, each lies along so much of it. */
const SAME_SHARE = 0.7;

/** A drawn line beside the line of the truth that it is meant for. */
interface Beside {
  readonly path: Path;
  /** Which line of the truth, and whether enough of it lies near any. */
  readonly meant: number | null;
}

interface Segment {
  /** Index of the anchor it leaves. */
  readonly index: number;
  readonly cubic: Cubic;
  readonly straight: boolean;
  /** The truth's stretch from its one end to the other. */
  readonly stretch: readonly Point[];
  /** Whether the truth has corners on that stretch, and anchors at all, away from its ends. */
  readonly cornered: boolean;
  readonly anchored: boolean;
  /** How far it lies off at most, and by how much it bows less than the truth there (above 0) or more. */
  readonly off: number;
  readonly lacks: number;
}

const PARTS = [0.2, 0.35, 0.5, 0.65, 0.8];

function segmentsOf(path: Path, line: TrueLine): Segment[] {
  return pathCubics(path).map((cubic, index): Segment => {
    const [a, , , d] = cubic;
    const [from, to] = [nearestPlace(line, a), nearestPlace(line, d)];
    const places = stretchOf(line, from, to, cubicPoint(cubic, 0.5));
    const stretch = places.map((i) => line.points[i]!);
    const chord = unit(subtract(d, a));
    const bow = (p: Point): number => (chord ? cross(chord, subtract(p, a)) : 0);
    // A place of the truth as far along as one of the segment: their distances are as those of the two curves are.
    const off = PARTS.map((t) => Math.min(...stretch.map((q) => distance(q, cubicPoint(cubic, t)))));
    const most = stretch.reduce((best, q) => (Math.abs(bow(q)) > Math.abs(bow(best)) ? q : best), a);
    const drawnMost = PARTS.map((t) => bow(cubicPoint(cubic, t))).reduce((x, y) =>
      Math.abs(y) > Math.abs(x) ? y : x,
    );
    const within = new Set(places.filter((i) => distance(line.points[i]!, a) > OWN_CORNER_PX && distance(line.points[i]!, d) > OWN_CORNER_PX)); // prettier-ignore
    const side = Math.sign(bow(most)) || 1;
    const { anchors } = path;
    return {
      index,
      cubic,
      straight: anchors[index]!.out === null && anchors[(index + 1) % anchors.length]!.in === null,
      stretch,
      cornered: line.corners.some((i) => within.has(i)),
      anchored: line.anchors.some((i) => within.has(i)),
      off: Math.max(...off),
      lacks: side * (bow(most) - drawnMost),
    };
  });
}

/** What is looked at to say something: a drawn line, its segments and the truth it is meant for. */
interface Looked extends Beside {
  readonly line: TrueLine;
  readonly segments: readonly Segment[];
  /** Anchors beside the original's. */
  readonly own: number;
}

/** The truth's direction about a place, along the way that leads towards `to`. */
function directionAt({ points, closed }: TrueLine, i: number, to: Point): Point | null {
  const n = points.length;
  const at = (k: number): Point => points[closed ? ((k % n) + n) % n : Math.max(0, Math.min(n - 1, k))]!;
  const way = unit(subtract(at(i + 2), at(i - 2)));
  if (!way) return null;
  const aims = subtract(to, points[i]!);
  return way.x * aims.x + way.y * aims.y >= 0 ? way : negate(way);
}

const cornerNear = ({ points, corners }: TrueLine, p: Point): boolean =>
  corners.some((i) => distance(points[i]!, p) <= OWN_CORNER_PX);

const worst = <T>(list: readonly T[], by: (t: T) => number): T | null =>
  list.reduce<T | null>((best, t) => (best === null || by(t) > by(best) ? t : best), null);

/** What can be said of one line, in the order in which it helps. */
const OF_LINE: readonly (readonly [AdviceCode, (looked: Looked) => number | null])[] = [
  ['side-by-side', ({ segments }) => segments.find((s) => cubicLength(s.cubic) < SIDE_BY_SIDE_PX)?.index ?? null],
  ['anchor-off', ({ path, line }) => {
    const off = path.anchors.map((a, i) => ({ i, far: distance(line.points[nearestPlace(line, a)]!, a) }));
    const far = worst(off, (o) => o.far);
    return far && far.far > ANCHOR_OFF_PX ? far.i : null;
  }],
  ['corner-cut', ({ segments }) => segments.find((s) => s.cornered && s.off > WELL_PX)?.index ?? null],
  ['corner-smooth', ({ path, line }) => {
    const i = path.anchors.findIndex((a, k) => cornerNear(line, a) && (turnAt(path, k) ?? Infinity) < FLAT);
    return i < 0 ? null : i;
  }],
  ['corner-false', ({ path, line }) => {
    const bent = (a: Anchor): boolean => a.in !== null || a.out !== null;
    const i = path.anchors.findIndex((a, k) => bent(a) && !cornerNear(line, a) && (turnAt(path, k) ?? 0) > 2 * FLAT);
    return i < 0 ? null : i;
  }],
  ['crossed', ({ segments }) => {
    const reach = ([a, b, c, d]: Cubic): number => Math.max(distance(a, b), distance(c, d)) / Math.max(1e-6, distance(a, d));
    return segments.find((s) => s.off > WELL_PX && reach(s.cubic) > 1.2)?.index ?? null;
  }],
  ['straight-bent', ({ segments }) => segments.find((s) => !s.straight && s.off > WELL_PX && bowOf(s.stretch) < STRAIGHT_PX)?.index ?? null],
  ['pull', ({ segments }) => segments.find((s) => s.straight && s.off > WELL_PX && !isTwofold(s) && !turnsFar(s))?.index ?? null],
  ['bends-twice', ({ segments }) => segments.find((s) => s.off > WELL_PX && isTwofold(s))?.index ?? null],
  ['turns-far', ({ segments }) => segments.find((s) => s.off > WELL_PX && turnsFar(s))?.index ?? null],
  ['handle-turned', ({ segments, line }) => {
    const turned = (at: Point, handle: Point, other: Point): boolean => {
      const drawn = unit(subtract(handle, at));
      const right = directionAt(line, nearestPlace(line, at), other);
      return drawn !== null && right !== null && !cornerNear(line, at) && Math.abs(turnOf(drawn, right)) > TURNED_HANDLE;
    };
    const bad = segments.find(({ cubic: [a, b, c, d], off }) => off > WELL_PX && (turned(a, b, d) || turned(d, c, a)));
    return bad?.index ?? null;
  }],
  ['handles-short', ({ segments }) => segments.find((s) => s.off > WELL_PX && s.lacks > 0)?.index ?? null],
  ['handles-long', ({ segments }) => segments.find((s) => s.off > WELL_PX)?.index ?? null],
  ['spare', ({ path, line, own, segments }) => {
    if (path.anchors.length <= own) return null;
    const smooth = path.anchors.map((a, i) => ({ i, a })).filter(({ a, i }) => !cornerNear(line, a) && (turnAt(path, i) ?? Infinity) < FLAT);
    // The one between the two shortest sides.
    const sides = (i: number): number => cubicLength(segments[(i - 1 + segments.length) % segments.length]!.cubic) + cubicLength(segments[i % segments.length]!.cubic);
    return worst(smooth, ({ i }) => -sides(i))?.i ?? null;
  }],
  ['close', ({ path, line }) => {
    const [first, last] = [path.anchors[0]!, path.anchors.at(-1)!];
    return !path.closed && line.closed && segmentCount(path) > 1 && distance(first, last) < CLOSING_PX ? path.anchors.length - 1 : null;
  }],
]; // prettier-ignore

/** How far a stretch bows from the straight between its ends. */
function bowOf(points: readonly Point[]): number {
  const [a, d] = [points[0]!, points.at(-1)!];
  const chord = unit(subtract(d, a));
  return chord ? Math.max(...points.map((p) => Math.abs(cross(chord, subtract(p, a))))) : 0;
}
function isTwofold({ stretch }: Segment): boolean {
  const { right, left } = bendOf(stretch);
  return Math.min(right, left) > BOTH_WAYS;
}
/** One segment is not enough for it, and was not for the original. */
function turnsFar({ stretch, anchored }: Segment): boolean {
  if (!anchored) return false;
  const { right, left } = bendOf(stretch);
  return Math.max(right, left) > FARTHEST_TURN;
}

/** Which line of the truth most of a drawn one lies near; null where most of it lies near none. */
function meantBy(path: Path, trueLines: readonly Path[]): number | null {
  const shares = trueLines.map(() => 0);
  let [near, all] = [0, 0];
  for (const c of pathCubics(path))
    for (const t of PARTS) {
      const long = cubicLength(c);
      all += long;
      const found = trueLines.map(
        (line) => nearestOnPath(line, cubicPoint(c, t), FAR_PX)?.distance ?? Infinity,
      );
      const least = Math.min(...found);
      if (least > FAR_PX) continue;
      near += long;
      shares[found.indexOf(least)]! += long;
    }
  return near > all / 2 ? shares.indexOf(Math.max(...shares)) : null;
}

/** Share of a line of the truth that lies near a drawn one. */
function shareOf(line: TrueLine, path: Path): number {
  const every = line.points.filter((_, i) => i % 4 === 0);
  return every.filter((p) => nearestOnPath(path, p, CLOSING_PX) !== null).length / every.length;
}

/**
 * The one thing that would help most now, told by the truth but never telling it: the line drawn last is looked at first, what is
 * wrong with its anchors before what is wrong with its handles, and what is missing only once what is there lies well.
 *
 * @param drawn pixels of the picture, in the order drawn
 * @returns null where nothing is left to be said
 */
export function coach(drawn: readonly DrawnShape[], truth: readonly TruthShape[]): Advice | null {
  const paths = drawn.flatMap((shape) => shape.paths);
  if (paths.length === 0) return { code: 'begin', anchor: null };
  const trueLines = truth.flatMap((shape) => shape.paths);
  const lines = trueLines.map(trueLine);
  const beside: Beside[] = paths.map((path) => ({ path, meant: meantBy(path, trueLines) }));
  const last = beside.at(-1)!;
  if (last.meant === null) return { code: 'astray', anchor: null };
  const same = beside.filter(
    ({ path, meant }) => meant === last.meant && shareOf(lines[last.meant!]!, path) > SAME_SHARE,
  );
  if (same.length > 1) return { code: 'twice', anchor: null };
  for (const { path, meant } of beside.toReversed()) {
    if (meant === null) continue;
    const line = lines[meant]!;
    const looked: Looked = {
      path,
      meant,
      line,
      segments: segmentsOf(path, line),
      own: trueLines[meant]!.anchors.length,
    };
    for (const [code, find] of OF_LINE) {
      const index = find(looked);
      if (index !== null) return { code, anchor: index + 1 };
    }
  }
  const begun = beside.flatMap(({ meant }) => (meant === null ? [] : [meant]));
  const unfinished = begun.find((meant) => {
    const share = beside.reduce((n, b) => n + (b.meant === meant ? shareOf(lines[meant]!, b.path) : 0), 0);
    return share < WHOLE_SHARE;
  });
  if (unfinished !== undefined) {
    // A closed line that leaves a part out has a side that lies along another: the one drawn last is to go round there.
    const closed = beside.findLast(({ path, meant }) => meant === unfinished && path.closed);
    return closed ? { code: 'pull', anchor: closed.path.anchors.length } : { code: 'go-on', anchor: null };
  }
  const done = new Set(beside.map(({ meant }) => meant));
  const missing = trueLines.map((_, i) => i).filter((i) => !done.has(i));
  if (missing.length > 0) {
    const shapeOf = (i: number): number => truth.findIndex((s) => s.paths.includes(trueLines[i]!));
    const started = new Set([...done].flatMap((i) => (i === null ? [] : [shapeOf(i)])));
    return { code: missing.some((i) => started.has(shapeOf(i))) ? 'hole' : 'next', anchor: null };
  }
  const offColour = truth.some((shape) => {
    if (shape.fill === null) return false;
    const own = drawn.find((d) =>
      d.paths.some((p) => shape.paths.includes(trueLines[meantBy(p, trueLines) ?? -1]!)),
    );
    return !own?.fill || hexesApart(own.fill, shape.fill) > ALIKE_DELTA_E;
  });
  return offColour ? { code: 'colour', anchor: null } : null;
}
