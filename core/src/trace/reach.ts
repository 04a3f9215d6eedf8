import { cubicLength, cubicPoint, type Cubic } from '../geometry/cubic';
import { add, distance, scale, subtract, type Point } from '../geometry/vector';
import {
  farthestStretch,
  fitStretch,
  runOf,
  runTangent,
  type Run,
  type Stretch,
  type StretchOptions,
} from '../path/fit-path';
import { LEAST_TO_FOLLOW } from './edge-refine';
import { strengthAt, type FieldTiles } from './field';
import {
  ABOUT,
  edgeThrough,
  AHEAD,
  closedOnto,
  cornerNear,
  edgeAlong,
  extendedEdge,
  onRun,
  turnedRound,
  turns,
  type Arrival,
  type Departure,
} from './edge-run';
import { isOpen, ROOM, startWire, strongestNear, wireTo, type Wire } from './live-wire';

/** The picture as the next segment is looked for in it: whole, and made smaller so that far ways stay short. */
export interface ReachField {
  readonly fine: FieldTiles;
  readonly coarse: FieldTiles;
  /** Pixels of the picture that one of the smaller one is wide. */
  readonly ratio: number;
}

/** The smallest picture a way is looked for in: halved so many times. */
const SMALLEST = 4;

/**
 * How many times the picture is halved for a way to be looked for in it: so that its pixels are about those of the screen,
 * and the way has room.
 *
 * @param shown pixels of the picture that one screen pixel shows
 * @param far from the last anchor to the pointer, picture pixels
 */
export function reachLevel(shown: number, far: number): number {
  const needed = Math.ceil(Math.log2(Math.max(1e-6, far / (0.95 * ROOM))));
  return Math.max(0, Math.min(SMALLEST, Math.max(Math.round(Math.log2(shown)), needed)));
}

/** Where the next segment begins. */
export interface ReachStart extends Departure {
  /** The segments drawn already, in order; they are not gone along again. */
  readonly drawn: readonly Cubic[];
}

export interface ReachOptions {
  /** How far from the edge one segment may lie, picture pixels. */
  readonly tolerance: number;
  /** About the pointer the edge is looked for so far, and its corners and the tick attract, picture pixels. */
  readonly near: number;
  /** The very place it ends, where something else than the edge says so, and the direction back from there if that is given. */
  readonly to?: Arrival;
  /** Further turns ahead that are told, at most. */
  readonly hints?: number;
}

/** The next segment as it could lie on the picture's edge. All in picture pixels. */
export interface Reached {
  /** Where it ends: on the edge, at the pointer. */
  readonly at: Point;
  /** The edge turns sharply there. */
  readonly corner: boolean;
  /** The segment; null where a path only begins. A straight one has its control points on its thirds. */
  readonly cubic: Cubic | null;
  readonly straight: boolean;
  /** How far it lies from the edge. */
  readonly mean: number;
  readonly worst: number;
  /** The longest segment that holds the edge within the tolerance, its end the tick; null where that is `cubic`, or not known. */
  readonly farthest: Cubic | null;
  /** Turns of the edge where further anchors would stand. */
  readonly hints: readonly Point[];
  /** The tick, and turns, are not worked out yet: asked again, they are told. */
  readonly open: boolean;
}

/** The edge as it runs on from the last anchor, and the longest segment that holds it, once that is worked out. */
interface Laid {
  readonly run: Run;
  readonly farthest: Stretch | null;
  /** The edge ends where the run does; else it is only not followed farther. */
  readonly ended: boolean;
  /** Pixels from point to point. */
  readonly spacing: number;
  /** What it was laid for: a pixel, and where on the run that is. */
  readonly end: Point;
  readonly index: number;
}

/** What is kept from one move of the pointer to the next: the wire of the last anchor, and the edge it led along. */
export interface ReachMemory {
  wire: Wire | null;
  /** Points along what is drawn already. */
  drawn: readonly Point[];
  key: string;
  laid: Laid | null;
  /** The last question was not answered, or not all of it, so as not to take long: asked again, it goes on. */
  open: boolean;
}
export const reachMemory = (): ReachMemory => ({ wire: null, drawn: [], key: '', laid: null, open: false });

/** Pixels of the wire that one question works out at most; the next goes on. After so many it is enough for one, too. */
const MOST_AT_ONCE = 5000;
const ENOUGH_AT_ONCE = 2500;
/** An edge farther from the pointer than this many times what attracts is not meant: pixels may be larger than that. */
const FARTHEST_IN_ATTRACTIONS = 1.25;
/** So much of a known edge ahead of the pointer is enough not to look for more, pixels. */
const ENOUGH = 90;
const isStraight = ([a, b, , d]: Cubic): boolean =>
  distance(b, add(a, scale(subtract(d, a), 1 / 3))) <= 1e-9 * (1 + distance(a, d));

/**
 * The next segment offered on the picture's edge: the edge between the last anchor and the pointer is found by a live wire
 * (Mortensen and Barrett, 1995), moved onto the edge between pixels, and followed on beyond the pointer; one cubic is
 * fitted to it (Schneider, 1990), leaving as the last anchor does where that is smooth. Of what lies ahead the farthest
 * point is told that one cubic can hold. What takes long is done a piece a question.
 *
 * @param start the last anchor; null where a path is to begin
 * @param memory kept by the caller from one move to the next
 * @returns null where there is no edge at the pointer, or none leads there, or the way is not known yet (`memory.open`)
 */
export function reach(
  { fine, coarse, ratio }: ReachField,
  start: ReachStart | null,
  pointer: Point,
  { tolerance, near, to, hints = 0 }: ReachOptions,
  memory: ReachMemory,
): Reached | null {
  if (!(tolerance > 0)) throw new RangeError(`Reach needs a tolerance above 0; it was ${tolerance}.`);
  memory.open = false;
  const small = (p: Point): Point => ({ x: p.x / ratio, y: p.y / ratio });
  const least = LEAST_TO_FOLLOW[fine.kind];
  const end = strongestNear(coarse, small(to?.at ?? pointer), to ? 2 : near / ratio);
  if (!end || strengthAt(coarse, end.x, end.y) < least) return null;
  const large = (p: Point): Point => ({ x: (p.x + 0.5) * ratio, y: (p.y + 0.5) * ratio });
  if (!start) {
    const found = edgeThrough(fine, large(end), hints > 0 ? AHEAD : 24);
    if (!found) return null;
    const { run, index } = found;
    const corner = cornerNear(run, pointer, near);
    const at = corner ?? index;
    const there = corner === null ? onRun(run, at, pointer).at : run.points[at]!;
    if (corner === null && distance(there, pointer) > FARTHEST_IN_ATTRACTIONS * near) return null;
    const ring = hints > 0 ? [...turns(run, at, null, tolerance, hints), ...turns(turnedRound(run), run.points.length - 1 - at, null, tolerance, hints)] : []; // prettier-ignore
    return { at: there, corner: corner !== null, cubic: null, straight: false, mean: 0, worst: 0, farthest: null, hints: ring, open: false }; // prettier-ignore
  }
  const seed = strongestNear(coarse, small(start.at), 2) ?? { x: Math.floor(start.at.x / ratio), y: Math.floor(start.at.y / ratio) }; // prettier-ignore
  const { at, leave } = start;
  const key = `${at.x} ${at.y} ${leave?.x} ${leave?.y} ${ratio} ${start.drawn.length} ${coarse.kind} ${tolerance}`;
  if (memory.key !== key || !memory.wire || memory.wire.field !== coarse) {
    // The place a path began at stays open, for closing.
    memory.drawn = start.drawn.flatMap(pointsOf);
    const first = memory.drawn[0];
    const closed = memory.drawn.filter((p) => !first || distance(p, first) > 8 * ratio).map(small);
    memory.wire = startWire(coarse, seed, least, closed, memory.wire ?? undefined);
    memory.key = key;
    memory.laid = null;
  }
  const along = { tolerance, leave, about: ABOUT };
  /** An edge newly laid: the segment on it is told, unless its tick would take it back, and the tick with the next question. */
  const begun = (laid: Omit<Laid, 'farthest'>): Reached | null => {
    memory.laid = { ...laid, farthest: null };
    memory.open = true;
    const first = offered(memory.laid, laid.index, pointer, near, along, 0);
    return first && first.worst <= tolerance ? { ...first, open: true } : null;
  };
  // As long as the pointer goes along the edge that is known, nothing about that changes under it.
  if (memory.laid && !to) {
    const known = withFarthest(memory.laid, along);
    memory.laid = known;
    const place = distance(known.farthest.cubic[3], pointer) <= near ? known.farthest.count : placeOn(known, end, large(end), 1.5 * ratio + 1); // prettier-ignore
    if (place !== null) {
      const { points, upTo } = known.run;
      const enough = known.ended || (end.x === known.end.x && end.y === known.end.y) || upTo[points.length - 1]! - upTo[place]! > ENOUGH; // prettier-ignore
      if (enough) return offered(known, place, pointer, near, along, hints);
      // It goes on from its end, so that nothing before that changes.
      const on = extendedEdge(fine, known.run, known.spacing);
      return begun({ ...on, spacing: known.spacing, end, index: place });
    }
  }
  const before = memory.wire.count;
  const way = wireTo(memory.wire, end, MOST_AT_ONCE);
  memory.open = way ? memory.wire.count - before > ENOUGH_AT_ONCE : isOpen(memory.wire, end);
  if (memory.open || !way || way.length < 3) return null;
  const found = edgeAlong(fine, start, memory.drawn, way.map(large), ratio, to?.at ?? null);
  if (to) {
    const run = closedOnto(found.run, found.index, memory.drawn, to);
    const last = run.points.length - 1;
    return answerOf(run, last, fitStretch(run, 0, last, { ...along, arrive: to.arrive }), null, []);
  }
  return begun({ ...found, end });
}

const withFarthest = (laid: Laid, along: StretchOptions): Laid & { readonly farthest: Stretch } => ({
  ...laid,
  farthest: laid.farthest ?? farthestStretch(laid.run, 0, laid.run.points.length - 1, along),
});

/** Points along a segment, two pixels apart or less, its end left out. */
function pointsOf(c: Cubic): Point[] {
  const n = Math.max(1, Math.ceil(cubicLength(c) / 2));
  return Array.from({ length: n }, (_, i) => cubicPoint(c, i / n));
}

/** Where on a known edge a place lies; null where it does not. */
function placeOn(laid: Laid, end: Point, p: Point, within: number): number | null {
  const { points } = laid.run;
  if (end.x === laid.end.x && end.y === laid.end.y) return laid.index;
  let [best, near] = [-1, within];
  for (let i = 1; i < points.length; i++) {
    const d = distance(points[i]!, p);
    if (d < near) [best, near] = [i, d];
  }
  return best < 0 ? null : best;
}

const answerOf = (
  run: Run,
  index: number,
  { cubic, mean, worst }: Stretch,
  longest: Cubic | null,
  hints: readonly Point[],
): Reached => ({
  at: cubic[3],
  corner: run.corners.has(index),
  cubic,
  straight: isStraight(cubic),
  mean,
  worst,
  farthest: longest,
  hints,
  open: false,
});

/** The segment to a place on a known edge: its corner or the tick where one of those attracts. */
function offered(
  { run, farthest, ended }: Laid,
  place: number,
  pointer: Point,
  near: number,
  along: StretchOptions,
  hints: number,
): Reached | null {
  const count = farthest?.count ?? -1;
  const corner = cornerNear(run, pointer, near);
  const tick = farthest && distance(farthest.cubic[3], pointer) <= near ? count : place;
  const index = corner !== null && corner > 0 ? corner : tick;
  const turn = count < 0 || run.corners.has(count) ? null : runTangent(run, count, 0, ABOUT);
  const further = hints > 0 && farthest ? turns(run, count, turn, along.tolerance, hints) : [];
  if (farthest && index === count) return answerOf(run, count, farthest, null, further);
  // Where the edge is not known farther, the end is no tick; where it ends, it is.
  const longest = farthest && (count < run.points.length - 1 || ended) ? farthest.cubic : null;
  if (index !== place) return answerOf(run, index, fitStretch(run, 0, index, along), longest, further);
  // It ends right at the pointer, between the places the edge was looked at.
  const { at, nearest } = onRun(run, place, pointer);
  if (distance(at, pointer) > FARTHEST_IN_ATTRACTIONS * near) return null;
  const { points } = run;
  const until = runOf([...points.slice(0, nearest), at, ...points.slice(nearest + 1)], run.corners);
  return answerOf(until, nearest, fitStretch(until, 0, nearest, along), longest, further);
}
