import { toRadians } from '../geometry/angle';
import { cubicLength, cubicPoint, lineCubic, type Cubic } from '../geometry/cubic';
import { footNear, nearestOnCubic } from '../geometry/nearest';
import { nearestParabola } from '../geometry/parabola';
import { add, distance, dot, negate, scale, subtract, unit, type Point } from '../geometry/vector';
import { fitCubic } from './fit';
import { corner, type Anchor } from './anchor';
import type { Path } from './path';

/** Points along a line, in order, of which some are corners. */
export interface Run {
  readonly points: readonly Point[];
  /** Length of the line up to each point; one more entry than points where the run closes. */
  readonly upTo: Float64Array;
  readonly corners: ReadonlySet<number>;
  readonly closed: boolean;
}

/** A run of points; those at `corners` are where the line turns sharply. */
export function runOfPoints(points: readonly Point[], corners: Iterable<number> = [], closed = false): Run {
  const n = points.length;
  const upTo = new Float64Array(n + (closed ? 1 : 0));
  for (let i = 1; i < upTo.length; i++) upTo[i] = upTo[i - 1]! + distance(points[i - 1]!, points[i % n]!);
  return { points, upTo, corners: new Set(corners), closed };
}

const wrapped = (i: number, n: number): number => ((i % n) + n) % n;

/** Length between a point and one `k` on, round the seam where the run closes. */
function lengthTo({ points, upTo, closed }: Run, i: number, k: number): number {
  const n = points.length;
  if (!closed) return upTo[i + k]! - upTo[i]!;
  const turns = Math.floor((i + k) / n);
  return upTo[wrapped(i + k, n)]! - upTo[i]! + turns * upTo[n]!;
}

/**
 * Direction of a run at a point, by the parabola that lies nearest to the points within `about` of it: both sides of it,
 * or one only (−1 before, 1 after). Neither end nor corner is looked past.
 *
 * @returns a unit vector in the run's direction, or null where all points coincide
 */
export function runTangent(run: Run, i: number, side: -1 | 0 | 1, about: number): Point | null {
  const { points, corners, closed } = run;
  const n = points.length;
  const rows: { s: number; p: Point }[] = [{ s: 0, p: points[wrapped(i, n)]! }];
  for (const way of side === 0 ? ([-1, 1] as const) : [side])
    for (let k = 1; k < n; k++) {
      const j = i + way * k;
      if (!closed && (j < 0 || j >= n)) break;
      const s = way > 0 ? lengthTo(run, wrapped(i, n), k) : -lengthTo(run, wrapped(j, n), k);
      if (Math.abs(s) > about && k > 2) break;
      rows.push({ s, p: points[wrapped(j, n)]! });
      if (corners.has(wrapped(j, n))) break;
    }
  if (rows.length < 2) return null;
  return unit(nearestParabola(rows).curve.slope) ?? unit(subtract(rows.at(-1)!.p, rows[0]!.p));
}

/** One cubic in place of a stretch of a run. */
export interface Stretch {
  readonly cubic: Cubic;
  /** How many points on the stretch ends. */
  readonly count: number;
  /** The farthest, and the mean, that its points lie from the cubic. */
  readonly worst: number;
  readonly mean: number;
  /** It lies within the tolerance, and does not wind. */
  readonly holds: boolean;
}

/** Points of a stretch that are looked at when a cubic is fitted, and when it is judged. */
const FITTED = 40;
const JUDGED = 64;
/** A curve longer than its stretch by more than this share winds. */
const WINDS = 1.08;
/** Cosine of the angle within which a straight stretch is in line with what is before: 2.5°. */
const STRAIGHT = Math.cos(toRadians(2.5));
/** Rounds of refinement in a fit. */
const TRIAL = 6;

const samplePoints = (run: Run, from: number, count: number, most: number): Point[] => {
  const n = run.points.length;
  const steps = Math.min(count, most);
  return Array.from(
    { length: steps + 1 },
    (_, k) => run.points[(from + Math.round((k * count) / steps)) % n]!,
  );
};

/** What a stretch may be off: none of its points farther than `limit`, and no more than `stray` of them than `tolerance`. */
interface Limits {
  readonly limit: number;
  readonly tolerance: number;
  readonly stray: number;
}
type Off = Pick<Stretch, 'worst' | 'mean' | 'holds'>;

/**
 * How far points of a stretch lie from a cubic; Infinity where the cubic winds.
 *
 * @param whole all of them are looked at, also where one lies beyond the limits; else it is Infinity as soon as one does
 */
function stretchOff(
  run: Run,
  from: number,
  count: number,
  cubic: Cubic,
  { limit, tolerance, stray }: Limits,
  whole: boolean,
): Off {
  const points = samplePoints(run, from, count, JUDGED);
  const most = Math.floor(stray * points.length);
  let [worst, sum, t, strayed] = [0, 0, 0, 0];
  let holds = true;
  for (let i = 0; i < points.length; i++) {
    const p = points[i]!;
    // They lie along it in order: the next foot is not far from the last.
    t = footNear(cubic, p, Math.max(t, i / points.length));
    let d = distance(cubicPoint(cubic, t), p);
    if (d > Math.min(tolerance, limit, worst)) {
      const nearest = nearestOnCubic(cubic, p);
      ({ t, distance: d } = nearest);
    }
    if (d > tolerance) strayed++;
    if (d > limit || strayed > most) holds = false;
    if (!holds && !whole) return { worst: Infinity, mean: Infinity, holds };
    worst = Math.max(worst, d);
    sum += d;
  }
  const winds = cubicLength(cubic) > WINDS * lengthTo(run, from, count) + 1e-9;
  return { worst: winds ? Infinity : worst, mean: sum / points.length, holds: holds && !winds };
}

export interface StretchOptions {
  /** How far points may lie from the cubic. */
  readonly tolerance: number;
  /** Direction the stretch leaves in, where it goes on smoothly from what is before; null when free. */
  readonly leave?: Point | null;
  /** Direction it arrives in, pointing back from its end, where that is given. */
  readonly arrive?: Point | null;
  /** Length about a point by which its direction is told; eight tolerances when left out. */
  readonly about?: number;
  /** Share of a stretch's points that may lie beyond the tolerance, up to half as far again: grain's. None when left out. */
  readonly stray?: number;
}

/** Stray points lie no farther than so many tolerances. */
const STRAY_IN_TOLERANCES = 1.5;

/** A cubic along `count` steps of a run from point `from`, and how far off it is: a straight one where that holds as well. */
export const fitStretch = (run: Run, from: number, count: number, options: StretchOptions): Stretch =>
  fitted(run, from, count, options, true);

/** The limits of a tolerance. */
const limitsOf = ({ tolerance, stray = 0 }: StretchOptions): Limits => ({
  limit: stray > 0 ? STRAY_IN_TOLERANCES * tolerance : tolerance,
  tolerance,
  stray,
});
/** A straight stretch is told by half the tolerance. */
const withinHalf = (options: StretchOptions): Limits =>
  limitsOf({ ...options, tolerance: options.tolerance / 2 });

/** @param whole how far off it is, is told also where it does not hold */
function fitted(run: Run, from: number, count: number, options: StretchOptions, whole: boolean): Stretch {
  const { tolerance, about = 8 * tolerance } = options;
  const n = run.points.length;
  const end = wrapped(from + count, n);
  const [a, b] = [run.points[from]!, run.points[end]!];
  const leave = options.leave ?? null;
  const line = lineCubic(a, b);
  const straight = stretchOff(run, from, count, line, withinHalf(options), false);
  const way = unit(subtract(b, a));
  // It goes on in line with what is before.
  const held = (t: Point | null | undefined, w: Point): boolean => !t || dot(t, w) > STRAIGHT;
  if (straight.holds && way && held(leave, way) && held(options.arrive, negate(way)))
    return { cubic: line, count, ...straight };
  // At a corner the curve may arrive as it likes; where the line goes on, so must the next stretch.
  const turns = run.corners.has(end) || (!run.closed && end === n - 1);
  const back = turns ? null : runTangent(run, from + count, 0, about);
  const arrive = options.arrive ?? (back && negate(back));
  const points = samplePoints(run, from, count, FITTED);
  const cubic = fitCubic(points, leave, arrive, TRIAL);
  return { cubic, count, ...stretchOff(run, from, count, cubic, limitsOf(options), whole) };
}

/**
 * The longest stretch of a run, from point `from` on, that one cubic holds within a tolerance; it ends at a corner at the
 * latest. Found by doubling and halving.
 *
 * @param most steps at most
 * @throws RangeError for a tolerance of 0 or less, or a run of one point
 */
export function farthestStretch(run: Run, from: number, most: number, options: StretchOptions): Stretch {
  if (!(options.tolerance > 0)) throw new RangeError(`A tolerance is above 0; it was ${options.tolerance}.`);
  if (run.points.length < 2) throw new RangeError('A stretch needs two points or more.');
  const n = run.points.length;
  let limit = 1;
  while (limit < most && !run.corners.has(wrapped(from + limit, n))) limit++;
  let good = fitStretch(run, from, 1, options);
  let bad = limit + 1;
  for (let count = Math.min(limit, 16); count > good.count && count < bad;) {
    const s = fitted(run, from, count, options, false);
    if (s.holds) good = s;
    else bad = count;
    count = bad > limit ? Math.min(limit, good.count * 2) : Math.floor((good.count + bad) / 2);
  }
  // A corner not far off may hold although the way to it does not: there the curve arrives as it likes.
  if (good.count < limit && good.count > 0.6 * limit && run.corners.has(wrapped(from + limit, n))) {
    const whole = fitted(run, from, limit, options, false);
    if (whole.holds) return whole;
  }
  return good;
}

export interface FitPathOptions {
  readonly tolerance: number;
  readonly closed?: boolean;
  /** Points at which the line turns sharply, by index. */
  readonly corners?: Iterable<number>;
  /** Length about a point by which its direction is told; eight tolerances when left out. */
  readonly about?: number;
  /** As of `StretchOptions`. */
  readonly stray?: number;
}

/**
 * A path through points with as few anchors as hold them within a tolerance: from each anchor the longest stretch that one
 * cubic can hold, smooth from one to the next but at corners (after Schneider, Graphics Gems, 1990, who cuts at the worst
 * point instead). Straight stretches have no handles.
 *
 * @param points two or more; on a closed run the first is not repeated at the end
 * @throws RangeError for fewer than two points or a tolerance of 0 or less
 */
export function fitPath(
  points: readonly Point[],
  { tolerance, closed = false, corners = [], about, stray = 0 }: FitPathOptions,
): Path {
  if (points.length < 2) throw new RangeError('A path is fitted to two points or more.');
  const run = runOfPoints(points, corners, closed);
  const n = points.length;
  const first = closed ? (run.corners.values().next().value ?? 0) : 0;
  const total = closed ? n : n - 1;
  const round = about ?? 8 * tolerance;
  // A ring without a corner goes on where it began.
  const seam = closed && run.corners.size === 0 ? runTangent(run, first, 0, round) : null;
  const anchors: Anchor[] = [
    { ...corner(points[first]!.x, points[first]!.y), kind: seam ? 'smooth' : 'corner' },
  ];
  let leave: Point | null = seam;
  for (let at = 0; at < total;) {
    const from = (first + at) % n;
    // Two anchors at least on a ring: one alone has no direction to go round in.
    const most = closed && at === 0 ? Math.ceil(total / 2) : total - at;
    const options = { tolerance, leave, about: round, stray };
    let s = farthestStretch(run, from, most, options);
    const closes = closed && at + s.count === total;
    if (closes && seam) {
      const end = fitStretch(run, from, s.count, { ...options, arrive: negate(seam) });
      // Where it does not arrive as the ring began, one more anchor halfway does.
      if (end.worst > limitsOf(options).limit && s.count > 1)
        s = fitStretch(run, from, Math.ceil(s.count / 2), options);
      else s = end;
    }
    const [a, b, c, d] = s.cubic;
    const straight = isLine(s.cubic);
    const last = anchors.length - 1;
    if (!straight) anchors[last] = { ...anchors[last]!, out: subtract(b, a) };
    const way = straight ? subtract(a, d) : subtract(c, d);
    at += s.count;
    if (closed && at === total) {
      if (!straight) anchors[0] = { ...anchors[0]!, in: way };
      break;
    }
    const turns = run.corners.has((first + at) % n);
    anchors.push({
      ...corner(d.x, d.y),
      kind: turns || at === total ? 'corner' : 'smooth',
      in: straight ? null : way,
    });
    leave = turns ? null : unit(negate(way));
  }
  return { id: 'fitted', closed, anchors };
}

const isLine = ([a, b, c, d]: Cubic): boolean =>
  distance(b, add(a, scale(subtract(d, a), 1 / 3))) < 1e-9 + 1e-9 * distance(a, d) &&
  distance(c, add(a, scale(subtract(d, a), 2 / 3))) < 1e-9 + 1e-9 * distance(a, d);
