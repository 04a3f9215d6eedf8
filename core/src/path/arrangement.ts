import Flatbush from 'flatbush';
import { boxHas, boxOfPoints, EMPTY_BOX, growBox, uniteBoxes, type Box } from '../geometry/bounds';
import { cubicPoint, cubicTangent, isStraight, splitCubic, type Cubic } from '../geometry/cubic';
import { cubicIntersections, cubicLineIntersections } from '../geometry/intersect';
import { nearestOnCubic } from '../geometry/nearest';
import { cubicOverlap } from '../geometry/overlap';
import { cross, distance, dot, subtract, type Point } from '../geometry/vector';
import { cubicBetween, pathCubics, type Path } from './path';
import { pathBounds } from './path-measure';

// Closed outlines cut at every place where they meet, so that each stretch has one side and another, and it is known of what
// each side is inside. Stretches that lie on each other are one: borders in common are the rule here, not the exception.

/** Where a stretch comes from: of which shape, which of its paths, which segment of that, and from where to where on it. */
export interface Source {
  readonly shape: number;
  readonly path: number;
  readonly segment: number;
  /** Parameters on the segment, the first smaller; `reversed` where the stretch runs against it. */
  readonly from: number;
  readonly to: number;
  readonly reversed: boolean;
}

/** A stretch between two places where outlines meet. */
export interface Stretch {
  /** Vertices it begins and ends at, by number. */
  readonly start: number;
  readonly end: number;
  readonly cubic: Cubic;
  /** All segments that lie here, the first one's line being the stretch's own. */
  readonly sources: readonly Source[];
  /** Whether its left side (seen along it, y down) and its right side are inside each shape, by the even-odd rule. */
  readonly left: readonly boolean[];
  readonly right: readonly boolean[];
}

export interface Arrangement {
  readonly vertices: readonly Point[];
  readonly stretches: readonly Stretch[];
}

/** Points nearer than this are one, as a share of the outlines' size. */
const ONE_POINT = 1e-8;
/** Stretches with the same ends whose middles are nearer than this lie on each other, as a share of that size. */
const ONE_LINE = 1e-7;
/** A parameter so near another is the same place. */
const ONE_PLACE = 1e-9;
/** How often a curve that may cross itself is halved at most. */
const MOST_HALVINGS = 5;
/** Places at which two curves that run near each other are compared. */
const COMPARED = 48;
/** Curves farther apart than this share of their size do not run near each other. */
const NEAR = 0.05;
const HALVINGS = 60;

interface Piece {
  readonly cubic: Cubic;
  /** Grown by what two points may lie apart and be one. */
  readonly box: Box;
  readonly straight: boolean;
  readonly shape: number;
  readonly path: number;
  readonly segment: number;
  /** Which part of the segment it is. */
  readonly from: number;
  readonly to: number;
  /** Parameters at which it is cut. */
  readonly cuts: number[];
}

const opposite = (a: Point, b: Point, p: Point, q: Point): boolean =>
  cross(subtract(b, a), subtract(p, a)) * cross(subtract(b, a), subtract(q, a)) < 0;

/** Whether a cubic may cross itself: only where the lines of its handles cross. */
export const mayLoop = ([a, b, c, d]: Cubic): boolean => opposite(a, b, c, d) && opposite(c, d, a, b);

/** Segments of the outlines as a fill closes them, halved until none crosses itself. Those without length are left out. */
function piecesOf(shapes: readonly (readonly Path[])[], within: number): Piece[] {
  const out: Piece[] = [];
  const add = (
    cubic: Cubic,
    of: Pick<Piece, 'shape' | 'path' | 'segment'>,
    from: number,
    to: number,
    depth: number,
  ): void => {
    if (depth < MOST_HALVINGS && mayLoop(cubic)) {
      const middle = (from + to) / 2;
      const [one, other] = splitCubic(cubic, 0.5);
      add(one, of, from, middle, depth + 1);
      add(other, of, middle, to, depth + 1);
    } else
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
  shapes.forEach((paths, shape) =>
    paths.forEach((path, p) => {
      const cubics = [...pathCubics(path)];
      const [first, last] = [path.anchors[0], path.anchors.at(-1)];
      if (!path.closed && first && last && cubics.length > 0)
        cubics.push(cubicBetween({ ...last, out: null }, { ...first, in: null }));
      cubics.forEach((cubic, segment) => {
        if (cubic.some((q) => q.x !== cubic[0].x || q.y !== cubic[0].y))
          add(cubic, { shape, path: p, segment }, 0, 1, 0);
      });
    }),
  );
  return out;
}

interface Meeting {
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

/** All places where two pieces meet. */
function meetings(a: Piece, b: Piece, within: number): Meeting[] {
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

/** Gives each point the number of a vertex: points that are as good as one have the same. */
function vertexMaker(within: number): { vertices: Point[]; numberOf(p: Point): number } {
  const vertices: Point[] = [];
  const cells = new Map<string, number[]>();
  const cell = (v: number): number => Math.floor(v / (4 * within));
  return {
    vertices,
    numberOf(p) {
      const [cx, cy] = [cell(p.x), cell(p.y)];
      for (let i = cx - 1; i <= cx + 1; i++)
        for (let j = cy - 1; j <= cy + 1; j++)
          for (const n of cells.get(`${i} ${j}`) ?? []) if (distance(vertices[n]!, p) <= 2 * within) return n;
      const key = `${cx} ${cy}`;
      cells.set(key, [...(cells.get(key) ?? []), vertices.length]);
      return vertices.push(p) - 1;
    },
  };
}

/** The part of a cubic between two parameters. */
export function subCubic(c: Cubic, from: number, to: number): Cubic {
  const [, rest] = from > 0 ? splitCubic(c, from) : [c, c];
  if (to >= 1) return rest;
  return splitCubic(rest, (to - from) / (1 - from))[0];
}

interface Loose {
  readonly start: number;
  readonly end: number;
  readonly cubic: Cubic;
  readonly sources: Source[];
}

/** A stretch the other way round. */
export const reversedCubic = ([a, b, c, d]: Cubic): Cubic => [d, c, b, a];

/** Cuts the pieces where they are to be cut; those that lie on each other become one. */
function stretchesOf(
  pieces: readonly Piece[],
  within: number,
  size: number,
): { vertices: Point[]; loose: Loose[] } {
  const { vertices, numberOf } = vertexMaker(within);
  // Anchors first, so that what meets at one is at the anchor itself.
  for (const { cubic, from, to } of pieces) {
    if (from === 0) numberOf(cubic[0]);
    if (to === 1) numberOf(cubic[3]);
  }
  const byEnds = new Map<string, Loose[]>();
  const loose: Loose[] = [];
  const keep = (cubic: Cubic, source: Source): void => {
    const [start, end] = [numberOf(cubic[0]), numberOf(cubic[3])];
    const far = Math.max(...cubic.map((p) => distance(p, cubic[0])));
    if (start === end && far <= 8 * within) return;
    const middle = cubicPoint(cubic, 0.5);
    const key = start < end ? `${start} ${end}` : `${end} ${start}`;
    const alike = byEnds.get(key)?.find((other) => {
      const near = nearestOnCubic(other.cubic, middle);
      return near.distance <= ONE_LINE * size && near.t > 0.02 && near.t < 0.98;
    });
    if (alike) {
      const same = start === end ? dot(cubicTangent(cubic, 0.5), cubicTangent(alike.cubic, 0.5)) > 0 : alike.start === start; // prettier-ignore
      alike.sources.push({ ...source, reversed: !same });
      return;
    }
    const made: Loose = { start, end, cubic, sources: [source] };
    byEnds.set(key, [...(byEnds.get(key) ?? []), made]);
    loose.push(made);
  };
  for (const { cubic, cuts, shape, path, segment, from, to } of pieces) {
    const places = [0, ...cuts.toSorted((x, y) => x - y), 1];
    let last = 0;
    for (const place of places.slice(1)) {
      if (place - last <= ONE_PLACE) continue;
      const next = place > 1 - ONE_PLACE ? 1 : place;
      const part = subCubic(cubic, last, next);
      const at = (t: number): number => from + t * (to - from);
      keep(part, { shape, path, segment, from: at(last), to: at(next), reversed: false });
      last = next;
    }
  }
  return { vertices, loose };
}

/** Directions in which it is looked what lies beside a stretch: none along what people draw. */
const WAYS: readonly Point[] = [0.1234, 1.0471, 2.2199, 2.9013].map((angle) => ({ x: Math.cos(angle), y: Math.sin(angle) })); // prettier-ignore

/** Which shapes lie on either side of each stretch: by a ray from its middle, along which all others are counted. */
function withSides(loose: readonly Loose[], shapes: number, size: number): Stretch[] {
  const index = new Flatbush(Math.max(1, loose.length));
  if (loose.length === 0) return [];
  for (const { cubic } of loose) {
    const b = boxOfPoints(cubic);
    index.add(b.x0, b.y0, b.x1, b.y1);
  }
  index.finish();
  const far = 4 * size;
  const parities = loose.map(({ sources }) => {
    const odd = new Array<boolean>(shapes).fill(false);
    for (const { shape } of sources) odd[shape] = !odd[shape];
    return odd;
  });
  return loose.map((own, n): Stretch => {
    let best: { inside: boolean[]; clear: number; ahead: boolean } | null = null;
    for (const share of [0.5, 0.37, 0.71]) {
      const from = cubicPoint(own.cubic, share);
      const tangent = cubicTangent(own.cubic, share);
      for (const way of WAYS) {
        const slant = cross(tangent, way) / (Math.hypot(tangent.x, tangent.y) || 1);
        if (Math.abs(slant) < 0.2) continue;
        const inside = new Array<boolean>(shapes).fill(false);
        /** How near the ray comes to what would make a count doubtful: ends of stretches, and its own beginning. */
        let clear = Infinity;
        const to = { x: from.x + way.x * far, y: from.y + way.y * far };
        const box = boxOfPoints([from, to]);
        for (const k of index.search(box.x0, box.y0, box.x1, box.y1)) {
          const { cubic } = loose[k]!;
          const off = cubic.map((p) => cross(way, subtract(p, from)));
          if (off.every((v) => v > 0) || off.every((v) => v < 0)) continue;
          for (const { t, point } of cubicLineIntersections(cubic, from, way)) {
            const along = dot(subtract(point, from), way);
            if (k === n && Math.abs(t - share) < 1e-6) continue;
            clear = Math.min(clear, Math.abs(along), Math.abs(off[0]!), Math.abs(off[3]!));
            if (along <= 0) continue;
            parities[k]!.forEach((odd, s) => (inside[s] = odd ? !inside[s] : inside[s]!));
          }
        }
        if (!best || clear > best.clear) best = { inside, clear, ahead: slant > 0 };
        if (best.clear > 1e-5 * size) break;
      }
      if (best && best.clear > 1e-5 * size) break;
    }
    const ahead = best?.inside ?? new Array<boolean>(shapes).fill(false);
    const behind = ahead.map((inside, s) => (parities[n]![s] ? !inside : inside));
    // With y down the right side lies where the cross product with the tangent is positive.
    const [right, left] = best?.ahead === false ? [behind, ahead] : [ahead, behind];
    return { ...own, left, right };
  });
}

/**
 * Cuts closed outlines wherever they meet: cross, touch, run along each other, or cross themselves.
 *
 * @param shapes outlines of each, inside by the even-odd rule, in one unit; open paths as a fill closes them
 */
export function arrange(shapes: readonly (readonly Path[])[]): Arrangement {
  const box = shapes.flat().map(pathBounds).reduce(uniteBoxes, EMPTY_BOX);
  const size = Math.max(box.x1 - box.x0, box.y1 - box.y0);
  if (!(size > 0)) return { vertices: [], stretches: [] };
  const within = ONE_POINT * size;
  const pieces = piecesOf(shapes, within);
  if (pieces.length === 0) return { vertices: [], stretches: [] };
  const index = new Flatbush(pieces.length);
  for (const { box: b } of pieces) index.add(b.x0, b.y0, b.x1, b.y1);
  index.finish();
  pieces.forEach((a, i) => {
    for (const k of index.search(a.box.x0, a.box.y0, a.box.x1, a.box.y1)) {
      if (k <= i) continue;
      for (const { t, u } of meetings(a, pieces[k]!, within)) {
        a.cuts.push(t);
        pieces[k]!.cuts.push(u);
      }
    }
  });
  const { vertices, loose } = stretchesOf(pieces, within, size);
  return { vertices, stretches: withSides(loose, shapes.length, size) };
}
