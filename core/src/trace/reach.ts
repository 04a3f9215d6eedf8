import { cubicLength, cubicPoint, scaledCubic, type Cubic } from '../geometry/cubic';
import { distance, scale, type Point } from '../geometry/vector';
import { chainRun, farthestFrom, fitChain, type ChainOptions } from '../path/fit-chain';
import { fitStretch, type Run } from '../path/fit-path';
import {
  ABOUT,
  AHEAD,
  closedOnto,
  cornerNear,
  edgeAlong,
  edgeThrough,
  extendedEdge,
  onRun,
  STRAY_SHARE,
  turnedRound,
  withGrain,
  turns,
  type Arrival,
  type Departure,
} from './edge-run';
import type { Light } from './edge-profile';
import { strengthAt } from './field-form';
import { tileAbout, type FieldTiles } from './field-tiles';
import { isOpen, nearestEdgePixel, ROOM, startWire, strongestNear, wireTo, type Wire } from './live-wire';
import { leastStrength } from './noise';
import { learntInLarger, type Training } from './learnt-edge';
import { isPixelBesideStronger, trainWire } from './wire-training';
import type { KnownEdge, Reached } from './reach-offer';
import { answerOf, FARTHEST_IN_ATTRACTIONS, segmentToPlace, placeOn } from './reach-offer';

/** The picture as the next segment is looked for in it: whole, and made smaller so that far ways stay short. */
export interface ReachField {
  readonly fine: FieldTiles;
  readonly coarse: FieldTiles;
  /** Pixels of the picture that one of the smaller one is wide. */
  readonly ratio: number;
  /** The same for the picture halved, in its pixels: where the picture is soft that is where its edges are looked for. */
  readonly halved?: () => ReachField;
  /** The same with the least blur: two edges close by, one stronger than the other, are one hill by more. */
  readonly finest?: () => ReachField;
}

/**
 * A picture is looked at halved where it is at least so soft, pixels: halved it is still as soft as sharp lenses make it, so that
 * nothing is lost but grain, and the steps of what was enlarged (Lindeberg 1998).
 */
const SOFT_PX = 1.35;

/**
 * A picture is looked at halved, too, where its edges are no stronger than so many times the least there is to speak of: grain is
 * half as large there (the smallest scale that can be relied on; Elder and Zucker 1998).
 */
const FAINT_IN_LEASTS = 2.6;

/** The same picture halved, where it is soft or faint about a place; null where it is sharp, or not to be halved again. */
export function halvedAbout({ fine, halved }: ReachField, at: Point): ReachField | null {
  if (!halved) return null;
  const { seen, clear } = tileAbout(fine, at);
  if (seen >= SOFT_PX) return halved();
  if (clear >= FAINT_IN_LEASTS) return null;
  const half = halved();
  return tileAbout(half.fine, scale(at, 0.5)).clear > clear ? half : null;
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
  /** Where a blurred edge counts as being; as it looks when left out. */
  readonly light?: Light;
  /** Further turns ahead that are told, at most. */
  readonly hints?: number;
  /** Segments offered at once where one cannot hold the edge, at most; one when left out. */
  readonly most?: number;
  /** Unit direction of the sheet's horizontal in the picture, by which extremes are told; the picture's own when left out. */
  readonly level?: Point;
}

/** What is kept from one move of the pointer to the next: the wire of the last anchor, and the edge it led along. */
export interface ReachMemory {
  wire: Wire | null;
  /** Points along what is drawn already. */
  drawn: readonly Point[];
  key: string;
  edge: KnownEdge | null;
  /** The last question was not answered, or not all of it, so as not to take long: asked again, it goes on. */
  open: boolean;
  /** Whether a stronger edge runs close by the one that is followed, and of which beginning in which field that was told. */
  crowded: { readonly key: string; readonly of: FieldTiles; readonly is: boolean } | null;
}
export const reachMemory = (): ReachMemory => ({
  wire: null,
  drawn: [],
  key: '',
  edge: null,
  open: false,
  crowded: null,
});

/** Pixels of the wire that one question works out at most; the next goes on. After so many it is enough for one, too. */
const MOST_AT_ONCE = 5000;
const ENOUGH_AT_ONCE = 2500;
/** So much of a known edge ahead of the pointer is enough not to look for more, pixels. */
const ENOUGH = 90;
/** So far an edge is followed where a path only begins and no turns are asked for, pixels. */
const SHORT_LOOK = 48;
/** A path begins on the nearer of two edges where the stronger one is so much farther off, pixels of the smaller picture. */
const ANOTHER_EDGE_PX = 1;
/** About where a path began what is drawn does not close the way, pixels of the smaller picture. */
const CLOSING_ROOM = 8;

/** A question to the edge: the picture, where the segment starts and the pointer is, and what is kept from the last one. */
interface Question {
  readonly field: ReachField;
  readonly pointer: Point;
  readonly options: ReachOptions;
  readonly memory: ReachMemory;
  /** The strongest pixel of the smaller picture at the pointer, and the middle of it in the whole one. */
  readonly end: Point;
  readonly endAt: Point;
}

/** How a stretch of a grainy edge is fitted. */
const heldBy = (along: ChainOptions, grain: number): ChainOptions => ({
  ...along,
  tolerance: withGrain(along.tolerance, grain),
});

/** Where a path could begin: on the edge at the pointer, with the turns of the edge either way. */
function offerBeginning({ field, pointer, options, endAt }: Question): Reached | null {
  const { tolerance, near, hints = 0, light = 'looks' } = options;
  const training = inFine(field, learntFrom(field, { at: endAt, drawn: [] }));
  const found = edgeThrough(field.fine, endAt, hints > 0 ? AHEAD : SHORT_LOOK, light, training);
  if (!found) return null;
  const { run, index } = found;
  const corner = cornerNear(run, pointer, near);
  const from = corner ?? index;
  const at = corner === null ? onRun(run, from, pointer).at : run.points[from]!;
  if (corner === null && distance(at, pointer) > FARTHEST_IN_ATTRACTIONS * near) return null;
  const back = run.points.length - 1 - from;
  const ahead =
    hints > 0
      ? [
          ...turns(run, from, null, tolerance, hints),
          ...turns(turnedRound(run), back, null, tolerance, hints),
        ]
      : [];
  return {
    at,
    corner: corner !== null,
    segments: [],
    mean: 0,
    worst: 0,
    holds: true,
    farthest: null,
    hints: ahead,
    open: false,
  };
}

/** What the edge looks like that is followed, where a stronger one runs close by. */
const learntFrom = (
  { coarse, ratio }: Pick<ReachField, 'coarse' | 'ratio'>,
  { at, drawn }: Pick<ReachStart, 'at' | 'drawn'>,
): Training | null =>
  coarse.kind === 'line'
    ? null
    : trainWire(
        coarse,
        drawn.map((c) => scaledCubic(c, 1 / ratio)),
        scale(at, 1 / ratio),
      );

/** What was learnt in the smaller picture, in the pixels of the whole one. */
const inFine = ({ ratio }: Pick<ReachField, 'ratio'>, training: Training | null): Training | null =>
  training && ratio !== 1 ? learntInLarger(training, ratio) : training;

/** The picture with the least blur, where a stronger edge runs close by the one that is followed, or at the pointer; else null. */
function crowdedAbout(
  { finest }: ReachField,
  start: ReachStart | null,
  pointer: Point,
  near: number,
  memory: ReachMemory,
): ReachField | null {
  if (!finest) return null;
  const field = finest();
  const { coarse, ratio } = field;
  if (!start) {
    const edge = nearestEdgePixel(coarse, scale(pointer, 1 / ratio), near / ratio);
    return edge && isPixelBesideStronger(coarse, edge) ? field : null;
  }
  const key = `${start.at.x} ${start.at.y} ${start.drawn.length}`;
  if (memory.crowded?.key !== key || memory.crowded.of !== coarse)
    memory.crowded = { key, of: coarse, is: learntFrom(field, start) !== null };
  return memory.crowded.is ? field : null;
}

/** Starts the wire from the last anchor, unless the one that is kept starts there: of it the edge is known in part. */
function wireFrom(
  { field: { coarse, ratio }, options, memory }: Pick<Question, 'field' | 'options' | 'memory'>,
  start: ReachStart,
): Wire {
  const { at, leave, drawn } = start;
  const key = `${at.x} ${at.y} ${leave?.x} ${leave?.y} ${ratio} ${drawn.length} ${coarse.kind} ${options.tolerance} ${options.light}`;
  if (memory.key === key && memory.wire?.field === coarse) return memory.wire;
  const small = (p: Point): Point => ({ x: p.x / ratio, y: p.y / ratio });
  const seed = strongestNear(coarse, small(at), 2) ?? {
    x: Math.floor(at.x / ratio),
    y: Math.floor(at.y / ratio),
  };
  // The place a path began at stays open, for closing.
  memory.drawn = drawn.flatMap(pointsOf);
  const first = memory.drawn[0];
  const closed = memory.drawn.filter((p) => !first || distance(p, first) > CLOSING_ROOM * ratio).map(small);
  memory.key = key;
  memory.edge = null;
  const training = learntFrom({ coarse, ratio }, start);
  memory.wire = startWire(coarse, seed, leastStrength(coarse, seed), closed, memory.wire ?? undefined, training); // prettier-ignore
  return memory.wire;
}

/**
 * Offers a segment on an edge just found, unless its tick would take it back: the tick is told with the next question.
 */
function offerNew(
  { pointer, options, memory }: Question,
  { run, ...edge }: Omit<KnownEdge, 'line'> & { readonly run: Run },
  along: ChainOptions,
): Reached | null {
  memory.edge = { ...edge, line: chainRun(run) };
  memory.open = true;
  const held = heldBy(along, edge.grain);
  const first = segmentToPlace(memory.edge, edge.index, pointer, options.near, held, 0);
  return first?.holds ? { ...first, open: true } : null;
}

/**
 * Offers a segment on the edge that is known, or goes on from its end; as long as the pointer goes along it, nothing about
 * it changes under it. Undefined where the pointer has left it.
 */
function offerKnown(question: Question, edge: KnownEdge, along: ChainOptions): Reached | null | undefined {
  const { field, pointer, options, end, endAt } = question;
  const { near, hints = 0, light = 'looks' } = options;
  const held = heldBy(along, edge.grain);
  const { upTo } = edge.line.run;
  const long = upTo.at(-1)!;
  const laid = edge.ended || long >= edge.wanted;
  const tick = laid ? farthestFrom(edge.line, 0, held) : null;
  const onTick = tick?.holds && distance(tick.cubic[3], pointer) <= near;
  const place = onTick ? tick.count : placeOn(edge, end, endAt, 1.5 * field.ratio + 1);
  if (place === null) return undefined;
  const same = end.x === edge.end.x && end.y === edge.end.y;
  if (laid && (edge.ended || same || long - upTo[place]! > ENOUGH))
    return segmentToPlace(edge, place, pointer, near, held, hints);
  const wanted = laid ? upTo[place]! + AHEAD : edge.wanted;
  const training = inFine(field, question.memory.wire?.training ?? null);
  const on = extendedEdge(field.fine, edge.line.run, edge.track, edge.spacing, light, training);
  return offerNew(question, { ...on, wanted, spacing: edge.spacing, end, index: place }, along);
}

/** The wire's way to the pointer, in the smaller picture's pixels; null while it is not known, or where there is none. */
function wayToPointer({ memory, end }: Question, wire: Wire): readonly Point[] | null {
  const before = wire.count;
  const way = wireTo(wire, end, MOST_AT_ONCE);
  memory.open = way ? wire.count - before > ENOUGH_AT_ONCE : isOpen(wire, end);
  return memory.open || !way || way.length < 3 ? null : way;
}

/** A way home so many times as long as the straight one, and so many pixels more, goes round something else. */
const ROUND_IN_STRAIGHTS = 5;
const ROUND_PX = 40;
/** Whether a way to a place `straight` pixels off is so long that it leads round something else, where no edge leads there. */
function goesRound(way: readonly Point[], ratio: number, straight: number): boolean {
  const long = way.reduce((sum, p, i) => sum + (i > 0 ? distance(p, way[i - 1]!) : 0), 0);
  return ratio * long > ROUND_IN_STRAIGHTS * straight + ROUND_PX;
}

/** Offers what ends in a place given: the edge as far as there, led onto it. */
function offerOnto(
  { memory }: Question,
  { run, index, soft, grain }: Pick<KnownEdge, 'index' | 'soft' | 'grain'> & { readonly run: Run },
  to: Arrival,
  along: ChainOptions,
): Reached {
  const closing = closedOnto(run, index, memory.drawn, to, soft);
  const last = closing.points.length - 1;
  const held = { ...heldBy(along, grain), arrive: to.arrive };
  const one = fitStretch(closing, 0, last, held);
  if (one.holds || held.most === 1) return answerOf(closing, [one], null, []);
  const chain = fitChain(chainRun(closing), last, held);
  const comes = chain.reduce((count, s) => count + s.count, 0) === last;
  return answerOf(closing, comes ? chain : [one], null, []);
}

/**
 * The next segment offered on the picture's edge: the edge between the last anchor and the pointer is found by a live wire
 * (Mortensen and Barrett, 1995), moved onto the edge between pixels, and followed on beyond the pointer; one cubic is
 * fitted to it (Schneider, 1990), leaving as the last anchor does where that is smooth. Of what lies ahead the farthest
 * point is told that one cubic can hold; beyond it the fewest that can are offered, as far as the pointer, if so many are
 * wanted. What takes long is done a piece a question.
 *
 * @param start the last anchor; null where a path is to begin
 * @param memory kept by the caller from one move to the next
 * @returns null where there is no edge at the pointer, or none leads there, or the way is not known yet (`memory.open`)
 * @throws RangeError for a tolerance of 0 or less
 */
export function reach(
  field: ReachField,
  start: ReachStart | null,
  pointer: Point,
  options: ReachOptions,
  memory: ReachMemory,
): Reached | null {
  const { tolerance, near, to, light = 'looks', most = 1, level = { x: 1, y: 0 } } = options;
  const { fine, coarse, ratio } = field;
  if (!(tolerance > 0)) throw new RangeError(`Reach needs a tolerance above 0; it was ${tolerance}.`);
  const half = halvedAbout(field, start?.at ?? pointer);
  if (half) {
    const found = reach(half, start && scaledStart(start, 0.5), scale(pointer, 0.5), scaledOptions(options, 0.5), memory); // prettier-ignore
    if (found) return scaledAnswer(found, 2);
    // By a tip, where soft sides leave little of either, a path may still begin.
    if (start) return null;
  }
  const crowded = crowdedAbout(field, start, pointer, options.near, memory);
  if (crowded) return reach(crowded, start, pointer, options, memory);
  memory.open = false;
  const sought = to?.at ?? pointer;
  const within = to ? 2 : near / ratio;
  const wire = start && wireFrom({ field, options, memory }, start);
  const about = { x: sought.x / ratio, y: sought.y / ratio };
  /** Whether a pixel lies on an edge at all. */
  const isEdge = (found: Point | null): found is Point =>
    found !== null && strengthAt(coarse, found.x, found.y) >= leastStrength(coarse, found);
  const large = (p: Point): Point => ({ x: (p.x + 0.5) * ratio, y: (p.y + 0.5) * ratio });
  const asked = (end: Point): Question => ({ field, pointer, options, memory, end, endAt: large(end) });
  if (!start || !wire) {
    // Where a path begins nothing but nearness tells two edges close by apart.
    const [nearest, strongest] = [
      nearestEdgePixel(coarse, about, within),
      strongestNear(coarse, about, within),
    ];
    const offered = isEdge(strongest) ? offerBeginning(asked(strongest)) : null;
    const isOther = isEdge(nearest) && distance(nearest, strongest ?? nearest) > 1;
    const other = isOther ? offerBeginning(asked(nearest)) : null;
    const off = (found: Reached): number => distance(found.at, pointer);
    return other && (!offered || off(other) < off(offered) - ANOTHER_EDGE_PX * ratio) ? other : offered;
  }
  const end = strongestNear(coarse, about, within, wire);
  if (!isEdge(end)) return null;
  const question = asked(end);
  const along = { tolerance, leave: start.leave, about: ABOUT, stray: STRAY_SHARE, most, level };
  if (memory.edge && !to) {
    const known = offerKnown(question, memory.edge, along);
    if (known !== undefined) return known;
  }
  const way = wayToPointer(question, wire);
  if (!way) return null;
  if (to && goesRound(way, ratio, distance(start.at, to.at))) return null;
  const looked = { ratio, light, training: inFine(field, wire.training), end: to?.at ?? null };
  const found = edgeAlong(fine, start, memory.drawn, way.map(large), looked);
  if (to) return offerOnto(question, found, to, along);
  return offerNew(question, { ...found, wanted: found.run.upTo[found.index]! + AHEAD, end }, along);
}

/** Points along a segment, two pixels apart or less, its end left out. */
function pointsOf(c: Cubic): Point[] {
  const n = Math.max(1, Math.ceil(cubicLength(c) / 2));
  return Array.from({ length: n }, (_, i) => cubicPoint(c, i / n));
}

const scaledStart = ({ at, leave, drawn }: ReachStart, by: number): ReachStart => ({
  at: scale(at, by),
  leave,
  drawn: drawn.map((c) => scaledCubic(c, by)),
});

const scaledOptions = ({ to, tolerance, near, ...others }: ReachOptions, by: number): ReachOptions => ({
  ...others,
  tolerance: by * tolerance,
  near: by * near,
  ...(to && { to: { ...to, at: scale(to.at, by) } }),
});

const scaledAnswer = (found: Reached, by: number): Reached => ({
  ...found,
  at: scale(found.at, by),
  segments: found.segments.map((s) => ({ ...s, cubic: scaledCubic(s.cubic, by) })),
  mean: by * found.mean,
  worst: by * found.worst,
  farthest: found.farthest && scaledCubic(found.farthest, by),
  hints: found.hints.map((p) => scale(p, by)),
});
