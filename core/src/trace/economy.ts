import { add, cross, distance, dot, scale, type Point } from '../geometry/vector';
import { fitPath } from '../path/fit-path';
import { meantSegments } from '../path/meant';
import { segmentCount, tangentAt, type Path } from '../path/path';
import { spareAnchors } from '../path/thin';
import type { Drift } from './drift';
import { STRAY_SHARE } from './edge-run';
import { CORNER } from './stations';

/** What a path costs beside what it could. */
export interface Economy {
  readonly anchors: number;
  /** The fewest anchors found that hold the same edge within the tolerance. */
  readonly fewest: number;
  /** Anchors that could go without the line itself leaving where it is by more than the tolerance, by index. */
  readonly spare: readonly number[];
}

/** Length about a point by which the edge's direction is told, pixels. */
const ABOUT = 7;
/** Beside a corner an edge is told from a little farther on, pixels. */
const ROUND = 2;
/** More points than this along an edge are taken every other one, and so on. */
const MOST_POINTS = 1500;

/**
 * Drift at every entry: between measured places evenly from one to the next, or where a corner lies between, as it is on
 * either side of that; beyond the last as it was there.
 *
 * @param turns whether a corner lies before an entry
 */
function fillBetween(value: Float64Array, turns: readonly boolean[], ring: boolean): Float64Array {
  const n = value.length;
  const known: number[] = [];
  for (let i = 0; i < n; i++) if (!Number.isNaN(value[i]!)) known.push(i);
  const out = new Float64Array(n);
  known.forEach((from, k) => {
    const last = k + 1 === known.length;
    const to = known[(k + 1) % known.length]!;
    const steps = last ? to + n - from : to - from;
    const end = last && !ring ? value[from]! : value[to]!;
    let corner = -1;
    for (let s = 1; s <= steps; s++) if (turns[(from + s) % n]) corner = corner < 0 ? s : corner;
    for (let s = 0; s < steps; s++) {
      const i = from + s;
      if (i >= n && !ring) break;
      const share = corner < 0 ? s / steps : s < corner ? 0 : 1;
      out[i % n] = value[from]! + (end - value[from]!) * share;
    }
  });
  if (!ring && known.length > 0) out.fill(value[known[0]!]!, 0, known[0]);
  return out;
}

/** How much a corner moves that both its sides move by, along their normals. */
function cornerMove(before: { n: Point; v: number }, after: { n: Point; v: number }): Point {
  const det = cross(before.n, after.n);
  if (Math.abs(det) < 0.2) return scale(add(scale(before.n, before.v), scale(after.n, after.v)), 0.5);
  return {
    x: (before.v * after.n.y - after.v * before.n.y) / det,
    y: (after.v * before.n.x - before.v * after.n.x) / det,
  };
}

/**
 * The picture's edge along a path, as points: the path moved by its drift, its corners to where their sides meet; where
 * there is no edge, evenly from one place where there is to the next; segments meant so stay where they are.
 *
 * @param path in picture pixels
 * @param drift of that path
 */
export function trackedEdge(path: Path, drift: Drift): { points: Point[]; corners: number[] } {
  const n = drift.value.length;
  const step = Math.max(1, Math.ceil(n / MOST_POINTS));
  const sharp = path.anchors.map((_, i) => {
    const [a, b] = [tangentAt(path, i, 'in'), tangentAt(path, i, 'out')];
    return a !== null && b !== null && dot(a, b) < CORNER;
  });
  const begins = (i: number): boolean => i === 0 || drift.segment[i] !== drift.segment[i - 1];
  const turns = Array.from(drift.segment, (s, i) => begins(i) && (path.closed || s > 0) && sharp[s]!);
  const v = fillBetween(drift.value, turns, path.closed);
  // What is meant so is its own edge.
  const meant = meantSegments(path);
  if (meant.size > 0) drift.segment.forEach((s, i) => meant.has(s) && (v[i] = 0));
  const side = (i: number): { n: Point; v: number } => ({
    n: { x: drift.nx[i]!, y: drift.ny[i]! },
    v: v[i]!,
  });
  const at = (i: number): Point => ({
    x: drift.x[i]! + v[i]! * drift.nx[i]!,
    y: drift.y[i]! + v[i]! * drift.ny[i]!,
  });
  const points: Point[] = [];
  const corners: number[] = [];
  /** How far each of them moved. */
  const moved: number[] = [];
  const anchorPoint = (anchor: number, before: number, after: number): number => {
    const a = path.anchors[anchor]!;
    const by = cornerMove(side(before), side(after));
    points.push(add({ x: a.x, y: a.y }, by));
    return Math.hypot(by.x, by.y);
  };
  let first = 0;
  for (let i = 0; i < n; i++) {
    const segment = drift.segment[i]!;
    if (begins(i)) first = i;
    if (turns[i]) {
      corners.push(points.length);
      moved.push(anchorPoint(segment, i > 0 ? i - 1 : n - 1, i));
    } else if (i === 0 && !path.closed) anchorPoint(0, 0, 0);
    if ((i - first) % step === 0) points.push(at(i));
  }
  if (!path.closed && n > 0) anchorPoint(path.anchors.length - 1, n - 1, n - 1);
  return withoutOvershoot(points, corners, moved, path.closed);
}

/** Without the points beside corners that lie past them, now that the sides have moved. */
function withoutOvershoot(
  points: readonly Point[],
  corners: readonly number[],
  moved: readonly number[],
  closed: boolean,
): { points: Point[]; corners: number[] } {
  const n = points.length;
  const gone = new Set<number>();
  const own = new Set(corners);
  corners.forEach((c, k) => {
    const clear = moved[k]! + ROUND;
    for (const way of [1, -1])
      for (let s = 1; s < n; s++) {
        const i = c + way * s;
        if ((!closed && (i < 0 || i >= n)) || own.has((i + n) % n)) break;
        if (distance(points[(i + n) % n]!, points[c]!) > clear) break;
        gone.add((i + n) % n);
      }
  });
  const kept: number[] = [];
  points.forEach((_, i) => {
    if (!gone.has(i)) kept.push(i);
  });
  return { points: kept.map((i) => points[i]!), corners: kept.flatMap((i, k) => (own.has(i) ? [k] : [])) };
}

/**
 * What a path costs: its anchors beside the fewest that a fit to the tracked edge needs (`fitPath`), and which of its own
 * could go (`spareAnchors`).
 *
 * @param path in picture pixels
 * @param drift of that path, whole
 * @returns null where no edge lies under it, or it has no segment
 * @throws RangeError for a tolerance of 0 or less
 */
export function measureEconomy(path: Path, drift: Drift, tolerance: number): Economy | null {
  if (!(tolerance > 0)) throw new RangeError(`Economy needs a tolerance above 0; it was ${tolerance}.`);
  if (segmentCount(path) === 0 || !drift.value.some((v) => !Number.isNaN(v))) return null;
  const { points, corners } = trackedEdge(path, drift);
  if (points.length < 2 || (path.closed && points.length < 3)) return null;
  const fit = (from: number): number => {
    const turned = from === 0 ? points : [...points.slice(from), ...points.slice(0, from)];
    return fitPath(turned, { tolerance, closed: path.closed, corners, about: ABOUT, stray: STRAY_SHARE })
      .anchors.length;
  };
  // Where a ring has no corner it is cut at two places, and the better cut counts.
  const seamless = path.closed && corners.length === 0;
  const fitted = Math.min(fit(0), seamless ? fit(Math.floor(points.length / 3)) : Infinity);
  // Where the path itself holds the edge, it needs no more than it has.
  const anchors = path.anchors.length;
  const meant = meantSegments(path);
  const holds = drift.value.every(
    (v, i) => Number.isNaN(v) || meant.has(drift.segment[i]!) || Math.abs(v) <= tolerance,
  );
  const fewest = holds ? Math.min(fitted, anchors) : fitted;
  return { anchors, fewest, spare: spareAnchors(path, { tolerance }) };
}
