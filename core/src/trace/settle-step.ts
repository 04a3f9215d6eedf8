import { cubicLength } from '../geometry/cubic';
import { solveDamped } from '../geometry/least-squares';
import { add, distance, scale, type Point } from '../geometry/vector';
import { anchorAt, segmentCount, segmentCubic, type Path } from '../path/path';
import { FARTHEST_CLEARANCE_PX } from './corner-clearance';
import type { Drift } from './drift';
import type { Freedom } from './settle-freedoms';
import { isCorner } from './settle-freedoms';
import { SIDE_PX, sidesMeet, type OnSide } from './sides-meet';

export const STEPS_TO_ONE_TRACK = 2;
/** Residuals that a segment gives at most. */
export const MOST_RESIDUALS = 24;
/** Weight of staying where there is no edge, and of not sliding along it. */
const STAY = 0.05;
const HOLD = 0.02;

interface Residual {
  readonly segment: number;
  readonly t: number;
  readonly n: Point;
  readonly target: Point;
  readonly weight: number;
}

/** The places of each segment, by their index. */
function listsBySegment(
  segments: ArrayLike<number>,
  counts: (i: number) => boolean = () => true,
): Map<number, number[]> {
  const lists = new Map<number, number[]>();
  for (let i = 0; i < segments.length; i++) {
    if (!counts(i)) continue;
    const list = lists.get(segments[i]!);
    if (list) list.push(i);
    else lists.set(segments[i]!, [i]);
  }
  return lists;
}

/** Where the curve should be: on the track where there is one, where it is where there is none; nothing near corners. */
export function targetsOn(path: Path, drift: Drift, only: ReadonlySet<number> | null): Residual[] {
  const lengths = Array.from({ length: segmentCount(path) }, (_, s) => cubicLength(segmentCubic(path, s)));
  const rows: Residual[] = [];
  const strong = [...drift.strength].sort((a, b) => a - b)[Math.floor(drift.strength.length / 2)] ?? 0;
  let i = 0;
  while (i < drift.segment.length) {
    const segment = drift.segment[i]!;
    let end = i;
    while (end < drift.segment.length && drift.segment[end] === segment) end++;
    const count = end - i;
    const step = Math.max(1, count / MOST_RESIDUALS);
    const [from, to] = [segment, (segment + 1) % path.anchors.length];
    const [cornerAtStart, cornerAtEnd] = [isCorner(path, from), isCorner(path, to)];
    for (let f = 0; f < count && (!only || only.has(segment)); f += step) {
      const k = i + Math.floor(f);
      const s = ((k - i + 0.5) / count) * lengths[segment]!;
      const v = drift.value[k]!;
      const on = !Number.isNaN(v);
      const besideCorner = (cornerAtStart && s < FARTHEST_CLEARANCE_PX) || (cornerAtEnd && lengths[segment]! - s < FARTHEST_CLEARANCE_PX); // prettier-ignore
      if (besideCorner && !on) continue;
      const n = { x: drift.nx[k]!, y: drift.ny[k]! };
      const at = { x: drift.x[k]!, y: drift.y[k]! };
      rows.push({
        segment,
        t: drift.t[k]!,
        n,
        target: on ? add(at, scale(n, v)) : at,
        weight: on ? drift.strength[k]! / (drift.strength[k]! + 0.3 * strong + 1e-9) : STAY,
      });
    }
    i = end;
  }
  return [...rows, ...cornersMeant(path, drift, only)];
}

/** The sides of a corner meet where they do by so much of a side's weight: at an acute tip little else says where it is. */
const MEET = 0.1;
/** A corner is drawn to where its sides meet no farther off than this, pixels; a side is told by so many places at least. */
const FARTHEST_MEETING_PX = 2 * FARTHEST_CLEARANCE_PX;
const FEWEST_ON_SIDE = 4;
/** Sides first seen farther from their corner than this tell nothing of it, pixels. */
const FARTHEST_GAP_PX = 20;

/** Corners where the edges of their two sides, drawn on, meet. */
function cornersMeant(path: Path, drift: Drift, only: ReadonlySet<number> | null): Residual[] {
  const bySegment = listsBySegment(drift.segment, (k) => !Number.isNaN(drift.value[k]!));
  /** The edge along a side, from the corner on as far as corners are told by. */
  const side = (corner: Point, places: readonly number[], way: 1 | -1): OnSide[] => {
    const ordered = way > 0 ? places : places.toReversed();
    const rows: OnSide[] = [];
    let before = corner;
    let s = 0;
    let first = 0;
    for (const k of ordered) {
      const v = drift.value[k]!;
      const p = { x: drift.x[k]! + v * drift.nx[k]!, y: drift.y[k]! + v * drift.ny[k]! };
      s += distance(before, p);
      before = p;
      if (rows.length === 0) first = s;
      if (first > FARTHEST_GAP_PX) return [];
      if (s > first + SIDE_PX) break;
      rows.push({ s: way * s, p });
    }
    return rows;
  };
  return path.anchors.flatMap((anchor, i): Residual[] => {
    const before = anchorAt(path, i, -1);
    if (before === null || anchorAt(path, i, 1) === null || !isCorner(path, i)) return [];
    if (only && !(only.has(before) && only.has(i))) return [];
    const [a, b] = [side(anchor, bySegment.get(before) ?? [], -1), side(anchor, bySegment.get(i) ?? [], 1)];
    if (a.length < FEWEST_ON_SIDE || b.length < FEWEST_ON_SIDE) return [];
    const met = sidesMeet(a, b);
    if (!met || distance(met.at, anchor) > FARTHEST_MEETING_PX) return [];
    return [{ x: 1, y: 0 }, { x: 0, y: 1 }].map((n) => ({ segment: i, t: 0, n, target: met.at, weight: MEET })); // prettier-ignore
  });
}

/** One damped Gauss–Newton step towards the targets, along the normals (Marquardt 1963); the path itself where none helps. */
export function settleStep(path: Path, free: readonly Freedom[], rows: readonly Residual[]): Path {
  const bySegment = listsBySegment(rows.map((r) => r.segment));
  const every = [...bySegment.keys()];
  /** How far the curve lies from the targets on some segments, along the normals. */
  const offs = (p: Path, segments: readonly number[], move: (i: number, off: number) => void): void => {
    for (const s of segments) {
      const list = bySegment.get(s);
      if (!list) continue;
      const [a, b, c, d] = segmentCubic(p, s);
      for (const i of list) {
        const { t, n, target } = rows[i]!;
        const u = 1 - t;
        const [w0, w1, w2, w3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
        const x = w0 * a.x + w1 * b.x + w2 * c.x + w3 * d.x - target.x;
        const y = w0 * a.y + w1 * b.y + w2 * c.y + w3 * d.y - target.y;
        move(i, n.x * x + n.y * y);
      }
    }
  };
  const cost = (p: Path): number => {
    let sum = 0;
    offs(p, every, (i, off) => (sum += rows[i]!.weight * off * off));
    return sum;
  };
  const H = 0.01;
  const here = new Float64Array(rows.length);
  offs(path, every, (i, off) => (here[i] = off));
  // How each residual changes with each freedom: few do, since a freedom moves two segments or so.
  const system = rows.map(({ weight }, i) => ({
    at: [] as number[],
    by: [] as number[],
    weight,
    right: -here[i]!,
  }));
  free.forEach((f, j) => {
    offs(f.move(path, H), f.segments, (i, off) => {
      const d = (off - here[i]!) / H;
      if (d === 0) return;
      system[i]!.at.push(j);
      system[i]!.by.push(d);
    });
  });
  const least = cost(path);
  for (let damping = 1e-3; damping < 1e4; damping *= 12) {
    // A step farther than a handle is long would fold the curve over.
    const by = solveDamped(system, free.length, damping, HOLD).map((b) => Math.max(-12, Math.min(12, b)));
    const next = free.reduce((p, f, j) => f.move(p, by[j]!), path);
    if (cost(next) < least) return next;
  }
  return path;
}
