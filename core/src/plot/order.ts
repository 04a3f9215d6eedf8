import Flatbush from 'flatbush';
import type { Point } from '../geometry/vector';
import type { PenStroke } from '../path/pen-stroke';
import { byDepth } from './inner-first';

// The order in which strokes are drawn, so that little way lies between them: the nearest one next, then pieces of the way
// turned round (2-opt, Croes 1958) or put elsewhere (Or 1976) as long as that shortens it; from memory.

/** How many places near each end are looked at when the way is shortened. */
const NEAR = 10;
/** Pieces of so many strokes at most are put elsewhere. */
const LONGEST_PIECE = 3;
/** Steps of shortening at most, for each stroke. */
const MOST_STEPS = 200;
/** How often closed strokes are started anew where that is shortest. */
const MOST_STARTS = 4;
/** A way that is shorter by less, millimetres, is no shorter. */
const LEAST_GAIN = 1e-9;

const apart = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** A stroke in the way: where the pen is put down and lifted, and which of its points that is. */
interface Leg {
  readonly stroke: PenStroke;
  entry: Point;
  exit: Point;
  /** Of an open one: from its last point to its first. Of a closed one: the point it is started at. */
  turned: boolean;
  first: number;
  /** Its place in the way. */
  place: number;
}

const legOf = (stroke: PenStroke, turned = false, first = 0): Leg => {
  const { points, closed } = stroke;
  if (closed) return { stroke, entry: points[first]!, exit: points[first]!, turned: false, first, place: 0 };
  const [from, to] = turned ? [points.at(-1)!, points[0]!] : [points[0]!, points.at(-1)!];
  return { stroke, entry: from, exit: to, turned, first: 0, place: 0 };
};

/** The stroke as it is drawn in the way. */
function drawnStroke({ stroke, turned, first }: Leg): PenStroke {
  const { points, closed } = stroke;
  if (closed && first > 0) return { ...stroke, points: [...points.slice(first), ...points.slice(0, first)] };
  return turned ? { ...stroke, points: [...points].reverse() } : stroke;
}

/** Places at which strokes can be begun, with the stroke each belongs to. */
function placesOf(strokes: readonly PenStroke[]): {
  readonly tree: Flatbush;
  readonly owner: number[];
  readonly index: number[];
} {
  const owner: number[] = [];
  const index: number[] = [];
  const all: Point[] = [];
  strokes.forEach(({ points, closed }, s) => {
    for (const i of closed ? points.keys() : [0, points.length - 1]) {
      owner.push(s);
      index.push(i);
      all.push(points[i]!);
    }
  });
  const tree = new Flatbush(Math.max(1, all.length));
  for (const { x, y } of all) tree.add(x, y, x, y);
  if (all.length === 0) tree.add(0, 0, 0, 0);
  tree.finish();
  return { tree, owner, index };
}

/** From one stroke to the nearest that is left, again and again. */
function nearestNext(strokes: readonly PenStroke[], start: Point): Leg[] {
  const { tree, owner, index } = placesOf(strokes);
  const used = new Uint8Array(strokes.length);
  const legs: Leg[] = [];
  let at = start;
  while (legs.length < strokes.length) {
    const place = tree.neighbors(at.x, at.y, 1, Infinity, (i) => used[owner[i]!] === 0)[0]!;
    const s = owner[place]!;
    used[s] = 1;
    const stroke = strokes[s]!;
    const leg = stroke.closed ? legOf(stroke, false, index[place]!) : legOf(stroke, index[place]! > 0);
    legs.push(leg);
    at = leg.exit;
  }
  return legs;
}

function turnLeg(leg: Leg): void {
  [leg.entry, leg.exit] = [leg.exit, leg.entry];
  if (!leg.stroke.closed) leg.turned = !leg.turned;
}

/** Turns the legs from `i` to `j` round, each of them too. */
function turnPiece(legs: Leg[], i: number, j: number): void {
  for (let [a, b] = [i, j]; a < b; a++, b--) [legs[a], legs[b]] = [legs[b]!, legs[a]!];
  for (let k = i; k <= j; k++) turnLeg(legs[k]!);
}

/** Shortens the way from `start` until nothing near shortens it further. */
function shorten(legs: Leg[], start: Point): void {
  const n = legs.length;
  const number = (from: number, to: number): void => {
    for (let k = from; k <= to; k++) legs[k]!.place = k;
  };
  number(0, n - 1);
  const tree = new Flatbush(2 * n);
  const owners = legs.flatMap((leg) => [leg, leg]);
  for (const { x, y } of legs.flatMap((leg) => [leg.entry, leg.exit])) tree.add(x, y, x, y);
  tree.finish();
  const near = new Map<Leg, readonly Leg[]>();
  for (const leg of legs) {
    const around = [leg.entry, leg.exit].flatMap((p) =>
      tree.neighbors(p.x, p.y, NEAR + 2).map((i) => owners[i]!),
    );
    near.set(
      leg,
      [...new Set(around)].filter((other) => other !== leg),
    );
  }
  const exitBefore = (i: number): Point => (i === 0 ? start : legs[i - 1]!.exit);
  /** The way from a place to the leg that follows `j`; none after the last. */
  const toNext = (p: Point, j: number): number => (j + 1 < n ? apart(p, legs[j + 1]!.entry) : 0);

  /** Turns the piece between two legs round where that is shorter. */
  const turned = (i: number, j: number): boolean => {
    const [first, last] = [legs[i]!, legs[j]!];
    const now = apart(exitBefore(i), first.entry) + toNext(last.exit, j);
    const then = apart(exitBefore(i), last.exit) + toNext(first.entry, j);
    if (now - then <= LEAST_GAIN) return false;
    turnPiece(legs, i, j);
    number(i, j);
    return true;
  };
  /** Puts the piece from `i` to `j` behind leg `k`, either way round, where that is shorter. */
  const moved = (i: number, j: number, k: number): boolean => {
    if (k >= i - 1 && k <= j) return false;
    const [first, last] = [legs[i]!, legs[j]!];
    const next = j + 1 < n ? legs[j + 1]! : null;
    const less =
      apart(exitBefore(i), first.entry) +
      toNext(last.exit, j) -
      (next ? apart(exitBefore(i), next.entry) : 0);
    const from = k < 0 ? start : legs[k]!.exit;
    const after = k + 1 < n ? legs[k + 1]! : null;
    const rest = (p: Point): number => (after ? apart(p, after.entry) : 0);
    const straight = apart(from, first.entry) + rest(last.exit);
    const round = apart(from, last.exit) + rest(first.entry);
    const cost = Math.min(straight, round) - (after ? apart(from, after.entry) : 0);
    if (less - cost <= LEAST_GAIN) return false;
    if (round < straight) turnPiece(legs, i, j);
    const count = j - i + 1;
    const to = k < i ? k + 1 : k + 1 - count;
    legs.splice(to, 0, ...legs.splice(i, count));
    number(Math.min(i, to), Math.max(j, to + count - 1));
    return true;
  };
  /** Shortens the way where two legs that lie near each other become neighbours. */
  const joined = (leg: Leg, other: Leg): boolean => {
    const [i, j] = leg.place < other.place ? [leg.place, other.place] : [other.place, leg.place];
    if (turned(i, j) || turned(i + 1, j) || (j - 1 >= i && turned(i, j - 1))) return true;
    for (let length = 1; length <= LONGEST_PIECE; length++)
      for (const p of [leg.place, leg.place - length + 1]) {
        const q = p + length - 1;
        if (p >= 0 && q < n && (moved(p, q, other.place) || moved(p, q, other.place - 1))) return true;
      }
    return false;
  };
  const queue = [...legs];
  const waits = new Set(queue);
  for (let steps = 0; queue.length > 0 && steps < MOST_STEPS * n; steps++) {
    const leg = queue.pop()!;
    waits.delete(leg);
    const other = near.get(leg)!.find((one) => joined(leg, one));
    if (!other) continue;
    for (const changed of [
      leg,
      other,
      legs[leg.place + 1],
      legs[leg.place - 1],
      legs[other.place + 1],
      legs[other.place - 1],
    ])
      // prettier-ignore
      if (changed && !waits.has(changed)) {
        waits.add(changed);
        queue.push(changed);
      }
  }
}

/** Starts closed strokes where the way to them and on from them is shortest. */
function startAnew(legs: readonly Leg[], start: Point): boolean {
  let any = false;
  legs.forEach((leg, i) => {
    if (!leg.stroke.closed) return;
    const before = i === 0 ? start : legs[i - 1]!.exit;
    const after = legs[i + 1]?.entry ?? null;
    const way = (p: Point): number => apart(before, p) + (after ? apart(p, after) : 0);
    let [best, least] = [leg.first, way(leg.entry) - LEAST_GAIN];
    leg.stroke.points.forEach((p, k) => {
      if (way(p) < least) [best, least] = [k, way(p)];
    });
    if (best === leg.first) return;
    any = true;
    leg.first = best;
    leg.entry = leg.exit = leg.stroke.points[best]!;
  });
  return any;
}

/** The strokes of one pen in a short order. */
function ordered(strokes: readonly PenStroke[], start: Point): PenStroke[] {
  if (strokes.length === 0) return [];
  const legs = nearestNext(strokes, start);
  for (let k = 0; k < MOST_STARTS; k++) {
    shorten(legs, start);
    if (!startAnew(legs, start)) break;
  }
  return legs.map(drawnStroke);
}

/**
 * Strokes in an order with little way between them, each drawn from whichever end lies nearer, closed ones from any of their
 * points. Pens follow one another as before, each taken up once.
 *
 * @param how.start where the pen stands first, millimetres
 * @param how.innerFirst what lies within closed strokes comes before them
 * @returns the same strokes, turned round or begun elsewhere where that is shorter
 */
export function orderStrokes(
  strokes: readonly PenStroke[],
  {
    start = { x: 0, y: 0 },
    innerFirst = false,
  }: { readonly start?: Point; readonly innerFirst?: boolean } = {},
): PenStroke[] {
  let at = start;
  return groupsOf(strokes, innerFirst).flatMap((group) => {
    const own = ordered(group, at);
    const last = own.at(-1);
    if (last) at = last.closed ? last.points[0]! : last.points.at(-1)!;
    return own;
  });
}

/** Strokes that may be drawn in any order, pen by pen in the order they are taken up; the innermost first where asked for. */
export const groupsOf = (strokes: readonly PenStroke[], innerFirst: boolean): PenStroke[][] =>
  [...new Set(strokes.map(({ pen }) => pen))].flatMap((pen) => {
    const own = strokes.filter((stroke) => stroke.pen === pen);
    return innerFirst ? byDepth(own) : [own];
  });
