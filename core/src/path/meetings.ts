import { boxHas, boxOfPoints, growBox, type Box } from '../geometry/bounds';
import {
  cubicPoint,
  cubicTangent,
  isStraight,
  selfCrossing,
  splitCubic,
  type Cubic,
} from '../geometry/cubic';
import { cubicIntersections } from '../geometry/intersect';
import { nearestOnCubic } from '../geometry/nearest';
import { cubicOverlap } from '../geometry/overlap';
import { cross, dot, subtract, type Point } from '../geometry/vector';
import { cubicBetween, pathCubics, type Path } from './path';

// Segments of shapes and lines, and all places where two of them meet.

/** Places at which two curves that run near each other are compared. */
const COMPARED = 48;
/** Curves farther apart than this share of their size do not run near each other. */
const NEAR = 0.05;
const HALVINGS = 60;

/** A segment, or a part of one, of a shape or a line. */
export interface Piece {
  readonly cubic: Cubic;
  /** Grown by what two points may lie apart and be one. */
  readonly box: Box;
  readonly straight: boolean;
  /** Of which member of the arrangement, and which of its paths. */
  readonly member: number;
  readonly path: number;
  readonly segment: number;
  /** Which part of the segment it is. */
  readonly from: number;
  readonly to: number;
  /** Parameters at which it is cut. */
  readonly cuts: number[];
}

/**
 * Segments of shapes, as a fill closes them, and of lines, as they are; one that crosses itself in two parts.
 * Those without length are left out.
 *
 * @param members paths of each shape, then of each line
 * @param shapes how many of the members are shapes
 * @param within points nearer than this are one
 */
export function piecesOf(members: readonly (readonly Path[])[], shapes: number, within: number): Piece[] {
  const out: Piece[] = [];
  const add = (
    cubic: Cubic,
    of: Pick<Piece, 'member' | 'path' | 'segment'>,
    from: number,
    to: number,
  ): void => {
    out.push({
      cubic,
      box: growBox(boxOfPoints(cubic), within),
      straight: isStraight(cubic),
      ...of,
      from,
      to,
      cuts: [],
    });
  };
  members.forEach((paths, member) =>
    paths.forEach((path, p) => {
      const cubics = [...pathCubics(path)];
      const [first, last] = [path.anchors[0], path.anchors.at(-1)];
      if (member < shapes && !path.closed && first && last && cubics.length > 0)
        cubics.push(cubicBetween({ ...last, out: null }, { ...first, in: null }));
      cubics.forEach((cubic, segment) => {
        if (cubic.every((q) => q.x === cubic[0].x && q.y === cubic[0].y)) return;
        const of = { member, path: p, segment };
        const loop = selfCrossing(cubic);
        if (!loop) return add(cubic, of, 0, 1);
        // Parted between its two passages, each part crosses the other and none itself.
        const middle = (loop[0] + loop[1]) / 2;
        const [one, other] = splitCubic(cubic, middle);
        add(one, of, 0, middle);
        add(other, of, middle, 1);
      });
    }),
  );
  return out;
}

/** A place where two pieces meet, by its parameters on both. */
export interface Meeting {
  readonly t: number;
  readonly u: number;
}

/** Where two straight pieces meet: one place, or the ends of what they have in common. */
function lineMeetings(a: Cubic, b: Cubic, within: number): Meeting[] {
  const [p, q] = [a[0], b[0]];
  const [u, v] = [subtract(a[3], p), subtract(b[3], q)];
  const [long, other] = [Math.hypot(u.x, u.y), Math.hypot(v.x, v.y)];
  const det = cross(u, v);
  const gap = subtract(q, p);
  // On one line, as near as points are one: then only their ends tell.
  if (Math.abs(det) <= 1e-12 * long * other) return [];
  const s = cross(gap, v) / det;
  const w = cross(gap, u) / det;
  const [slackA, slackB] = [within / long, within / other];
  if (s < -slackA || s > 1 + slackA || w < -slackB || w > 1 + slackB) return [];
  const clamp = (x: number): number => Math.min(1, Math.max(0, x));
  // A straight cubic with handles off its thirds runs at its own pace.
  const at = (c: Cubic, k: number, along: Point, start: Point, length: number): number => {
    const point = { x: start.x + along.x * k, y: start.y + along.y * k };
    return length > 0 ? nearestOnCubic(c, point).t : 0;
  };
  return [{ t: at(a, clamp(s), u, p, long), u: at(b, clamp(w), v, q, other) }];
}

/** How far to one side of a curve a point lies, where along it, and whether that says anything: not beyond an end of it. */
function sideOf(c: Cubic, p: Point): { side: number; t: number; says: boolean } {
  const { t, point, distance: far } = nearestOnCubic(c, p);
  const tangent = cubicTangent(c, t);
  const off = subtract(p, point);
  const beside = Math.abs(dot(tangent, off)) <= 0.5 * Math.hypot(tangent.x, tangent.y) * far;
  return { side: Math.sign(cross(tangent, off)) * far, t, says: beside };
}

/**
 * Where two curves that run near each other change sides: by their distance at many places, and beside each other's ends, then
 * by halving.
 */
function sideChanges(a: Cubic, b: Cubic, size: number): Meeting[] {
  const out: Meeting[] = [];
  const beside = [b[0], b[3]].map((p) => nearestOnCubic(a, p)).filter((n) => n.distance <= NEAR * size);
  const ends = [a[0], a[3]].map((p) => nearestOnCubic(b, p)).filter((n) => n.distance <= NEAR * size);
  if (beside.length + ends.length === 0) return out;
  const places = [...Array.from({ length: COMPARED + 1 }, (_, k) => k / COMPARED), ...beside.map((n) => n.t)].sort((x, y) => x - y); // prettier-ignore
  let before = { at: 0, ...sideOf(b, a[0]) };
  for (const at of places.slice(1)) {
    const now = { at, ...sideOf(b, cubicPoint(a, at)) };
    if (before.says && now.says && before.side * now.side < 0) {
      let [low, high] = [before.at, at];
      for (let i = 0; i < HALVINGS && high - low > 1e-15; i++) {
        const middle = (low + high) / 2;
        if (sideOf(b, cubicPoint(a, middle)).side * before.side > 0) low = middle;
        else high = middle;
      }
      const t = (low + high) / 2;
      const { side, t: u } = sideOf(b, cubicPoint(a, t));
      if (Math.abs(side) <= 1e-7 * size) out.push({ t, u });
    }
    before = now;
  }
  return out;
}

/**
 * All places where two pieces meet: ends that lie on the other, crossings, and where they run along each other its ends.
 *
 * @param within points nearer than this are one
 */
export function meetings(a: Piece, b: Piece, within: number): Meeting[] {
  const found: Meeting[] = [];
  const add = (t: number, u: number): void => {
    if (!found.some((m) => Math.abs(m.t - t) < 1e-7 && Math.abs(m.u - u) < 1e-7)) found.push({ t, u });
  };
  // Ends that lie on the other.
  for (const end of [0, 1] as const) {
    const [ofA, ofB] = [a.cubic[end === 0 ? 0 : 3], b.cubic[end === 0 ? 0 : 3]];
    const onB = boxHas(b.box, ofA) && nearestOnCubic(b.cubic, ofA);
    if (onB && onB.distance <= within) add(end, onB.t);
    const onA = boxHas(a.box, ofB) && nearestOnCubic(a.cubic, ofB);
    if (onA && onA.distance <= within) add(onA.t, end);
  }
  if (a.straight && b.straight) lineMeetings(a.cubic, b.cubic, within).forEach((m) => add(m.t, m.u));
  else if (found.length < 2 || !cubicOverlap(a.cubic, b.cubic)) {
    const crossings = cubicIntersections(a.cubic, b.cubic);
    for (const { t, u } of crossings) add(t, u);
    if (crossings.length === 0) {
      const box = boxOfPoints([...a.cubic, ...b.cubic]);
      const size = Math.max(box.x1 - box.x0, box.y1 - box.y0);
      for (const { t, u } of sideChanges(a.cubic, b.cubic, size)) add(t, u);
    }
  }
  return found;
}
