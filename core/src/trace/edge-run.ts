import { toRadians } from '../geometry/angle';
import { add, distance, dot, scale, subtract, unit, type Point } from '../geometry/vector';
import { farthestStretch, runOfPoints, runTangent, type Run } from '../path/fit-path';
import { sharpenCorners } from './edge-corners';
import { followEdge } from './edge-follow';
import { edgeWay } from './edge-peak';
import { grainOf, ontoEdge, ontoPlaces } from './edge-refine';
import { clearanceAt, FARTHEST_CLEARANCE_PX } from './corner-clearance';
import type { Light } from './edge-profile';
import type { FieldTiles } from './field-tiles';
import type { Training } from './learnt-edge';
import { SIDE_PX } from './sides-meet';

// An edge of the picture laid out as a run of points, for segments to be fitted to.

/** Where a segment begins. */
export interface Departure {
  readonly at: Point;
  /** Unit direction it leaves in, where the last anchor is smooth; null where it is a corner. */
  readonly leave: Point | null;
}
/** The very place one ends, and the unit direction back from there if that is given. */
export interface Arrival {
  readonly at: Point;
  readonly arrive: Point | null;
}

/** An edge is followed on so far beyond the pointer, so much of it at once; picture pixels. */
export const AHEAD = 260;
const AHEAD_AT_ONCE = 90;
/** Length about a point by which the edge's direction is told, pixels. */
export const ABOUT = 7;
/** Grain's deviations that a segment's tolerance has room for. */
const GRAIN_DEVIATIONS = 2;
/** Within what a segment holds an edge told so grainily: the tolerance, and what is grain's. */
export const withGrain = (tolerance: number, grain: number): number =>
  Math.hypot(tolerance, GRAIN_DEVIATIONS * grain);
/** Share of an edge's points that may lie beyond a segment's tolerance: grain must not end it. */
export const STRAY_SHARE = 0.06;
/** How far ahead or back a corner's sides are looked at, pixels. */
const LOOK = 14;
/** A corner whose other side is not known is taken to turn so much. */
const LIKELY_TURN = toRadians(120);

/** The edge's corner, or the edge itself, nearest to a place on it; and the run of edge about it, to `far` either way. */
export function edgeThrough(
  field: FieldTiles,
  p: Point,
  far: number,
  light: Light,
  training: Training | null,
): { run: Run; index: number } | null {
  const way = edgeWay(field, p);
  if (!way) return null;
  const [at] = ontoEdge(field, [p, add(p, way)], 2) as [Point];
  const back = followEdge(field, at, scale(way, -1), far, [], training);
  const ahead = followEdge(field, at, way, far, back.toReversed(), training);
  const seen = ontoPlaces(field, ontoEdge(field, [...back.toReversed(), at, ...ahead], 1.5), light);
  const { points, corners } = sharpenCorners(seen.points, seen.soft);
  // Corners made sharp leave fewer points than were followed.
  return { run: runOfPoints(points, corners), index: nearestIndex(points, at, back.length) };
}

/** A corner of the run within reach of a place, the nearest. */
export function cornerNear({ points, corners }: Run, p: Point, within: number): number | null {
  let best: number | null = null;
  for (const c of corners)
    if (
      distance(points[c]!, p) <= within &&
      (best === null || distance(points[c]!, p) < distance(points[best]!, p))
    )
      best = c;
  return best;
}

/** Turns ahead of a place on a run: where one segment after the other would end. */
export function turns(run: Run, from: number, leave: Point | null, tolerance: number, most: number): Point[] {
  const out: Point[] = [];
  const last = run.points.length - 1;
  let [at, way] = [from, leave];
  while (out.length < most && at < last - 4) {
    const s = farthestStretch(run, at, last - at, {
      tolerance,
      leave: way,
      about: ABOUT,
      stray: STRAY_SHARE,
    });
    at += s.count;
    if (at >= last) break;
    out.push(run.points[at]!);
    way = run.corners.has(at) ? null : runTangent(run, at, 0, ABOUT);
  }
  return out;
}

/** How an edge is looked for. */
interface Looked {
  /** Pixels of the picture that one of the rough way's is wide. */
  readonly ratio: number;
  readonly light: Light;
  /** What was learnt of the edge, if that was. */
  readonly training: Training | null;
  /** The very place the edge ends in, where that is given. */
  readonly end: Point | null;
}

/** An edge laid out, as far as it is followed. */
interface FoundEdge {
  readonly run: Run;
  /** The last of the places it was found at, before they were laid onto it: what it is followed on from. */
  readonly track: readonly Point[];
  /** It ends where the run does. */
  readonly ended: boolean;
  /** How softly it was read, and how far grain puts its points off: standard deviations, pixels. */
  readonly soft: number;
  readonly grain: number;
}

/** The edge along a rough way from the last anchor, and followed on from its end by a piece unless that is given. */
export function edgeAlong(
  field: FieldTiles,
  start: Departure,
  drawn: readonly Point[],
  rough: readonly Point[],
  { ratio, light, training, end }: Looked,
): FoundEdge & { readonly index: number; readonly spacing: number } {
  const spacing = Math.max(1, Math.min(2, (rough.length * ratio) / 500));
  const edge = ontoEdge(field, rough, 1.5 * ratio + 0.5, spacing);
  const there = edge.at(-1)!;
  const onward = unit(subtract(there, edge[Math.max(0, edge.length - 1 - Math.ceil(4 / spacing))]!));
  const ahead = end || !onward ? [] : followEdge(field, there, onward, AHEAD_AT_ONCE, edge, training);
  const track = [...edge, ...ahead];
  const seen = ontoPlaces(field, ontoEdge(field, track, 1.5, spacing), light, spacing);
  const whole = sharpenCorners(seen.points, seen.soft, spacing);
  // Where on it the pointer is: corners and even steps have changed the count by little.
  const reached = nearestIndex(whole.points, there, edge.length - 1);
  const from = start.leave ? 2 : roundWithin(start.at, drawn.toReversed(), whole.points, seen.soft);
  let skipped = 0;
  while (
    skipped < reached &&
    distance(whole.points[skipped]!, start.at) < from &&
    !whole.corners.includes(skipped)
  )
    skipped++;
  const shift = 1 - skipped;
  const points = [start.at, ...whole.points.slice(skipped)];
  const corners = whole.corners.map((c) => c + shift).filter((c) => c > 0);
  return {
    run: runOfPoints(points, corners),
    track: track.slice(-KEPT),
    index: Math.max(1, reached + shift),
    ended: ahead.length < AHEAD_AT_ONCE,
    spacing,
    soft: seen.soft,
    grain: grainOf(seen.points, spacing),
  };
}

/** Of a run that goes on, its last pixels are found anew, from so far back that a corner there has its sides. */
const ANEW = FARTHEST_CLEARANCE_PX + SIDE_PX + 2;
/** So many places of its track are kept for that. */
const KEPT = 2 * ANEW;
/** A run that comes so near to its beginning has come round, pixels. */
const ROUND_AGAIN = 2;

/**
 * A run along an edge followed on from its end by a piece; but for its last pixels it stays as it was.
 *
 * @param kept the last places of its track
 */
export function extendedEdge(
  field: FieldTiles,
  run: Run,
  kept: readonly Point[],
  spacing: number,
  light: Light,
  training: Training | null,
): FoundEdge {
  const { points } = run;
  const n = points.length;
  const cut = Math.max(1, n - Math.ceil(ANEW / spacing));
  const there = kept.at(-1)!;
  const onward = unit(subtract(there, kept[Math.max(0, kept.length - 1 - Math.ceil(4 / spacing))]!));
  const ahead = onward ? followEdge(field, there, onward, AHEAD_AT_ONCE, points, training) : [];
  const round = ahead.findIndex((p) => distance(p, points[0]!) < ROUND_AGAIN);
  const more = round < 0 ? ahead : ahead.slice(0, round);
  const track = [...kept, ...more];
  const seen = ontoPlaces(field, ontoEdge(field, track, 1.5, spacing), light, spacing);
  const redone = sharpenCorners(seen.points, seen.soft, spacing);
  // The track ends where the run does, before what is new.
  const end = redone.points.length - 1 - Math.round(more.length / spacing);
  const joint = nearestIndex(redone.points, points[cut]!, end - (n - 1 - cut));
  const shift = cut - joint;
  return {
    run: runOfPoints(
      [...points.slice(0, cut), ...redone.points.slice(joint)],
      [
        ...[...run.corners].filter((c) => c < cut),
        ...redone.corners.map((c) => c + shift).filter((c) => c >= cut),
      ],
    ),
    track: track.slice(-KEPT),
    ended: more.length < AHEAD_AT_ONCE,
    soft: seen.soft,
    grain: grainOf(seen.points, spacing),
  };
}

/** A run up to a place that ends at a given point instead. */
export function closedOnto(
  { points, corners }: Run,
  index: number,
  drawn: readonly Point[],
  to: Arrival,
  soft: number,
): Run {
  const kept = points.slice(0, index);
  const within = to.arrive ? 2 : roundWithin(to.at, drawn, kept.toReversed(), soft);
  while (kept.length > 1 && distance(kept.at(-1)!, to.at) < within) kept.pop();
  return runOfPoints([...kept, to.at], [...corners].filter((c) => c < kept.length)); // prettier-ignore
}

/** The point of a run nearest to `p`, between its points too, about the one at `place`. */
export function onRun({ points }: Run, place: number, p: Point): { at: Point; nearest: number } {
  // First along it: `place` was told by a pixel, not by the pointer.
  let i = place;
  const far = (k: number): number => distance(points[k]!, p);
  while (i + 1 < points.length && far(i + 1) < far(i)) i++;
  while (i > 1 && far(i - 1) < far(i)) i--;
  let best = points[i]!;
  for (const k of [i - 1, i]) {
    const [a, b] = [points[k], points[k + 1]];
    if (!a || !b) continue;
    const way = subtract(b, a);
    const size = dot(way, way);
    const t = size > 0 ? Math.max(0, Math.min(1, dot(subtract(p, a), way) / size)) : 0;
    const q = add(a, scale(way, t));
    if (distance(q, p) < distance(best, p)) best = q;
  }
  return { at: best, nearest: i };
}

/** How far about a corner its edge is round, told by how sharply its two sides, lines that lead away from it, turn there. */
function roundWithin(at: Point, one: readonly Point[], other: readonly Point[], soft: number): number {
  const away = (line: readonly Point[]): Point | null => {
    const p = line.find((q) => distance(q, at) >= LOOK);
    return p ? unit(subtract(p, at)) : null;
  };
  const [a, b] = [away(one), away(other)];
  if (!a || !b) return clearanceAt(LIKELY_TURN, soft, 'sought');
  return Math.max(3, clearanceAt(Math.PI - Math.acos(Math.max(-1, Math.min(1, dot(a, b)))), soft, 'sought'));
}

/** The point of a line nearest to `p`, by index, sought about one that is likely. */
function nearestIndex(points: readonly Point[], p: Point, likely: number): number {
  let best = Math.min(points.length - 1, likely);
  for (let i = Math.max(0, likely - 12); i < Math.min(points.length, likely + 12); i++)
    if (distance(points[i]!, p) < distance(points[best]!, p)) best = i;
  return best;
}

/** The same run the other way. */
export const turnedRound = ({ points, corners }: Run): Run =>
  runOfPoints(
    points.toReversed(),
    [...corners].map((c) => points.length - 1 - c),
  );
