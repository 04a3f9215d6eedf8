import {
  cubicArea,
  cubicCurvature,
  cubicLength,
  isStraight,
  lineCubic,
  reversedCubic,
  subCubic,
  type Cubic,
} from '../geometry/cubic';
import { add, cross, distance, dot, negate, scale, subtract, type Point } from '../geometry/vector';
import { corner, handleOrNone, type Anchor } from './anchor';
import { arcCubics } from './arc';
import { bendParameters, heading, leftOf, offsetCubic } from './offset';
import { pathCubics, type Path } from './path';
import type { StrokeForm } from './stroke-bounds';

// A stroke as pieces that lie over each other: bands beside its segments, wedges at its joints, and ends. All run clockwise on
// screen, so that what any of them covers is what their outlines run round at all.

/** What of a stroke decides its outline. */
export interface StrokeOutline extends StrokeForm {
  /** Lengths of dashes and gaps in turn, in the path's unit; none for a whole line. */
  readonly dash?: readonly number[];
  /** How far into the dashes it begins. */
  readonly dashOffset?: number;
}

/** Segments that follow one another. */
interface Run {
  readonly cubics: readonly Cubic[];
  readonly closed: boolean;
}

const RIGHTWARD: Point = { x: 1, y: 0 };
/** Directions that differ by less than this cosine says are one: half a degree. */
const ONE_DIRECTION_COSINE = Math.cos((0.5 * Math.PI) / 180);
/** An arc of a quarter turn lies off its circle by this share of the radius. */
const QUARTER_ERROR = 2.73e-4;

const isDot = (c: Cubic): boolean => c.every((p) => p.x === c[0].x && p.y === c[0].y);

/** A closed path along curves; those that close it are straight. */
function outline(all: readonly Cubic[], id: string): Path {
  const cubics = all.filter((c) => !isDot(c));
  const lines = cubics.map((c) => isStraight(c, 0) || isStraight(c, 1e-12 * distance(c[0], c[3])));
  const anchors = cubics.map((c, i): Anchor => {
    const before = (i + cubics.length - 1) % cubics.length;
    const arriving = cubics[before]!;
    const into = lines[before] ? null : handleOrNone(subtract(arriving[2], c[0]));
    const out = lines[i] ? null : handleOrNone(subtract(c[1], c[0]));
    return { ...corner(c[0].x, c[0].y), in: into, out };
  });
  return { id, closed: true, anchors };
}

/** Straight pieces from point to point and back to the first. */
const polygon = (points: readonly Point[]): Cubic[] =>
  points.map((p, i) => lineCubic(p, points[(i + 1) % points.length]!));

/** An arc about a centre, clockwise on screen, from one direction to another. */
function arc(centre: Point, radius: number, from: Point, to: Point, tolerance: number): Cubic[] {
  const [start, end] = [add(centre, scale(from, radius)), add(centre, scale(to, radius))];
  const turn = Math.atan2(cross(from, to), dot(from, to));
  const whole = turn <= 0 ? turn + 2 * Math.PI : turn;
  const parts = radius * QUARTER_ERROR > tolerance ? 2 * Math.ceil(whole / (Math.PI / 2)) : 1;
  const [angle, step] = [Math.atan2(from.y, from.x), whole / parts];
  return Array.from({ length: parts }, (_, i) => {
    const at = (k: number): Point => add(centre, { x: radius * Math.cos(angle + k * step), y: radius * Math.sin(angle + k * step) }); // prettier-ignore
    return arcCubics(
      i === 0 ? start : at(i),
      radius,
      radius,
      0,
      step > Math.PI,
      true,
      i === parts - 1 ? end : at(i + 1),
    );
  }).flat();
}

/** The wedge on the outer side of a turn; none where the line goes straight on. */
function wedge(
  at: Point,
  arriving: Point,
  leaving: Point,
  stroke: StrokeOutline,
  tolerance: number,
): Cubic[] {
  const radius = stroke.width / 2;
  // Turning right its outer side is the left one, and the other way round.
  const right = cross(arriving, leaving) >= 0;
  const [from, to] = right ? [leftOf(arriving), leftOf(leaving)] : [negate(leftOf(leaving)), negate(leftOf(arriving))]; // prettier-ignore
  const [start, end] = [add(at, scale(from, radius)), add(at, scale(to, radius))];
  if (stroke.joins === 'round') {
    const round = arc(at, radius, from, to, tolerance);
    return [lineCubic(at, start), ...round, lineCubic(end, at)];
  }
  // SVG 2, 13.5.6: the length of a miter is 1 / sin(θ / 2) widths, θ the angle between the segments.
  const half = Math.sqrt(Math.max(0, (1 + dot(from, to)) / 2));
  const tip = add(at, scale(add(from, to), radius / (2 * half * half || 1)));
  const pointed = stroke.joins === 'miter' && half > 1e-9 && 1 / half <= stroke.miterLimit;
  return polygon(pointed ? [at, start, tip, end] : [at, start, end]);
}

/** What lies beyond an end, `outward` being the direction that leads off it. */
function endPiece(at: Point, outward: Point, stroke: StrokeOutline, tolerance: number): Cubic[] {
  const radius = stroke.width / 2;
  const left = leftOf(outward);
  const [start, end] = [add(at, scale(left, radius)), add(at, scale(left, -radius))];
  if (stroke.ends === 'butt') return [];
  if (stroke.ends === 'round')
    return [...arc(at, radius, left, negate(left), tolerance), lineCubic(end, start)];
  const tip = scale(outward, radius);
  return polygon([start, add(start, tip), add(end, tip), end]);
}

const reversed = (cubics: readonly Cubic[]): Cubic[] => cubics.map(reversedCubic).reverse();

/** Curves closed by straight lines where they do not meet, clockwise on screen. */
function closedUp(parts: readonly (readonly Cubic[])[]): Cubic[] {
  const all = parts.filter((part) => part.length > 0);
  const cubics = all.flatMap((part, i) => {
    const next = all[(i + 1) % all.length]!;
    return [...part, lineCubic(part.at(-1)![3], next[0]![0])];
  });
  const clockwise = cubics.reduce((sum, c) => sum + cubicArea(c), 0) > 0;
  return clockwise ? cubics : reversed(cubics);
}

/** Where two stretches of line cross, or null. */
function crossingOf(a: Point, b: Point, p: Point, q: Point): Point | null {
  const [u, v] = [subtract(b, a), subtract(q, p)];
  const det = cross(u, v);
  if (det === 0) return null;
  const [s, t] = [cross(subtract(p, a), v) / det, cross(subtract(p, a), u) / det];
  return s >= 0 && s <= 1 && t >= 0 && t <= 1 ? add(a, scale(u, s)) : null;
}

/** A curve that bends more tightly than a band beside it is wide is taken in pieces that turn no more than this. */
const TIGHT_TURN_RADIANS = Math.PI / 6;

/** Parameters between which a band is a piece by itself: where its curve begins to bend too tightly, and turn by turn there. */
function bandPlaces(c: Cubic, radius: number): number[] {
  const places = [0, ...bendParameters(c, radius), 1];
  return places.slice(1).reduce<number[]>(
    (out, to, i) => {
      const from = places[i]!;
      if (Math.abs(cubicCurvature(c, (from + to) / 2)) * radius > 1) {
        const ways = [0, 0.25, 0.5, 0.75, 1].map((k) => heading(c, from + k * (to - from)));
        const turn = ways.slice(1).reduce((sum, way, k) => sum + Math.acos(Math.max(-1, Math.min(1, dot(way, ways[k]!)))), 0); // prettier-ignore
        const count = Math.max(1, Math.ceil(turn / TIGHT_TURN_RADIANS));
        for (let k = 1; k < count; k++) out.push(from + (k / count) * (to - from));
      }
      out.push(to);
      return out;
    },
    [0],
  );
}

/** The band beside one segment: both sides at once, or one by one where the curve bends too tightly for its inner side. */
function bands(c: Cubic, start: Point, end: Point, radius: number, tolerance: number): Cubic[][] {
  const places = bandPlaces(c, radius);
  const directionAt = (t: number): Point => (t === 0 ? start : t === 1 ? end : heading(c, t));
  return places.slice(1).flatMap((to, i): Cubic[][] => {
    const from = places[i]!;
    const part = from === 0 && to === 1 ? c : subCubic(c, from, to);
    const [first, last] = [directionAt(from), directionAt(to)];
    const beside = (by: number): Cubic[] => offsetCubic(part, by, tolerance, first, last);
    const bend = cubicCurvature(part, 0.5);
    if (Math.abs(bend) * radius <= 1) return [closedUp([beside(radius), reversed(beside(-radius))])];
    // Bending right (clockwise) the inner side is the right one.
    const inner = bend > 0 ? -radius : radius;
    const [near, far] = [[part], beside(inner)];
    const halves = [closedUp([beside(-inner), reversed(near)])];
    // The lines from the curve to the far edge run through each other, and open again beyond.
    const across = crossingOf(part[0], far[0]![0], part[3], far.at(-1)![3]);
    if (!across) return [...halves, closedUp([near, reversed(far)])];
    const point = [lineCubic(across, across)];
    return [...halves, closedUp([near, point]), closedUp([far, point])];
  });
}

/** Cuts a run into dashes (SVG 2, 13.5.7). */
function dashed({ cubics, closed }: Run, { dash = [], dashOffset = 0 }: StrokeOutline): Run[] {
  const total = dash.reduce((sum, v) => sum + v, 0);
  if (dash.length === 0 || !(total > 0)) return [{ cubics, closed }];
  const lengths = cubics.map((c) => cubicLength(c));
  const all = lengths.reduce((sum, v) => sum + v, 0);
  /** The parameter at which a segment has a length behind it. */
  const parameterAt = (i: number, length: number): number => {
    let [low, high] = [0, 1];
    for (let k = 0; k < 48; k++) {
      const middle = (low + high) / 2;
      if (cubicLength(cubics[i]!, middle) < length) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  };
  const between = (from: number, to: number): Cubic[] => {
    let before = 0;
    return cubics.flatMap((c, i): Cubic[] => {
      const [start, end] = [before, (before += lengths[i]!)];
      if (from >= end || to <= start || end === start) return [];
      const a = from <= start ? 0 : parameterAt(i, from - start);
      const b = to >= end ? 1 : parameterAt(i, to - start);
      return b > a ? [a === 0 && b === 1 ? c : subCubic(c, a, b)] : [];
    });
  };
  const out: Run[] = [];
  const twice = dash.length % 2 === 1 ? [...dash, ...dash] : dash;
  const round = twice.reduce((sum, v) => sum + v, 0);
  let at = -(((dashOffset % round) + round) % round);
  for (let i = 0; at < all; i = (i + 1) % twice.length) {
    const next = at + twice[i]!;
    if (i % 2 === 0 && next > 0) {
      const part = between(Math.max(0, at), Math.min(all, next));
      if (part.length > 0) out.push({ cubics: part, closed: false });
    }
    at = next;
  }
  // Round the place where a closed run begins a dash goes on.
  const [first, last] = [out[0], out.at(-1)];
  if (!closed || !first || !last || first === last) return out;
  const meet = (a: Point, b: Point): boolean => a.x === b.x && a.y === b.y;
  if (!meet(first.cubics[0]![0], cubics[0]![0]) || !meet(last.cubics.at(-1)![3], cubics[0]![0])) return out;
  return [...out.slice(1, -1), { cubics: [...last.cubics, ...first.cubics], closed: false }];
}

/** Dashes of all, at most: more would be dust. */
export const MOST_DASHES = 20_000;

/** How many dashes a stroke has along paths, about. */
export function dashCount(paths: readonly Path[], { dash = [] }: StrokeOutline): number {
  const total = dash.reduce((sum, v) => sum + v, 0);
  if (!(total > 0)) return 0;
  const length = paths.reduce((sum, p) => sum + pathCubics(p).reduce((s, c) => s + cubicLength(c), 0), 0);
  return Math.ceil((length / total) * Math.max(1, dash.length / 2));
}

/** A path of no length: a disc with round ends, a square with square ones (SVG 2, 13.5.4). */
function dotPiece(path: Path, stroke: StrokeOutline, tolerance: number): Cubic[] {
  const [at] = path.anchors;
  if (!at || stroke.ends === 'butt') return [];
  const radius = stroke.width / 2;
  if (stroke.ends === 'square') {
    const point = (x: number, y: number): Point => ({ x: at.x + x * radius, y: at.y + y * radius });
    return polygon([point(-1, -1), point(1, -1), point(1, 1), point(-1, 1)]);
  }
  return [
    ...arc(at, radius, RIGHTWARD, negate(RIGHTWARD), tolerance),
    ...arc(at, radius, negate(RIGHTWARD), RIGHTWARD, tolerance),
  ];
}

/**
 * The pieces that a stroke is made of: closed paths that run clockwise and lie over each other.
 *
 * @param tolerance how far curves may lie from the true ones, in the paths' unit
 */
export function strokePieces(paths: readonly Path[], stroke: StrokeOutline, tolerance: number): Path[] {
  const radius = stroke.width / 2;
  const made = paths.flatMap((path): Cubic[][] => {
    const cubics = pathCubics(path).filter((c) => !isDot(c));
    if (cubics.length === 0) return [dotPiece(path, stroke, tolerance)];
    return dashed({ cubics, closed: path.closed }, stroke).flatMap((run): Cubic[][] => {
      const n = run.cubics.length;
      const [arrive, leave] = [run.cubics.map((c) => heading(c, 1)), run.cubics.map((c) => heading(c, 0))];
      const pieces: Cubic[][] = [];
      for (let i = 0; i < n; i++) {
        const next = i + 1 < n ? i + 1 : run.closed ? 0 : null;
        if (next === null) continue;
        if (dot(arrive[i]!, leave[next]!) > ONE_DIRECTION_COSINE) {
          // One direction for both, so that bands go over into each other without a gap.
          arrive[i] = leave[next]!;
        } else pieces.push(wedge(run.cubics[i]![3], arrive[i]!, leave[next]!, stroke, tolerance));
      }
      run.cubics.forEach((c, i) => pieces.push(...bands(c, leave[i]!, arrive[i]!, radius, tolerance)));
      if (!run.closed)
        pieces.push(
          endPiece(run.cubics[0]![0], negate(leave[0]!), stroke, tolerance),
          endPiece(run.cubics[n - 1]![3], arrive[n - 1]!, stroke, tolerance),
        );
      return pieces;
    });
  });
  return made.filter((cubics) => cubics.length > 0).map((cubics, n) => outline(cubics, `piece-${n}`));
}
