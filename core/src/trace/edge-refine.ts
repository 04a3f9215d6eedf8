import { toRadians } from '../geometry/angle';
import { nearestParabola } from '../geometry/parabola';
import { add, cross, distance, dot, mix, scale, subtract, unit, type Point } from '../geometry/vector';
import { lineIntersection } from '../geometry/intersect';
import { acrossAt, formBetween, formsAlong } from './field-form';
import { hillTop } from '../geometry/hill-top';
import type { Raster } from '../picture/raster';
import type { FieldTiles } from './field-tiles';
import { MOST_MOVED_PX, placesAcross, type Light } from './edge-profile';
import { clearanceAt } from './corner-clearance';
import { leastStrength } from './noise';

/** A line along a picture's edge, between pixels. */
export interface EdgeTrack {
  /** About `spacing` apart. */
  readonly points: readonly Point[];
  /** Where it turns sharply, by index; those points are where its two sides meet. */
  readonly corners: readonly number[];
}

/** Strength by the field's form across an edge: slope of an edge field, bend of a line field, whichever sign it has. */
const strengthOf = (field: FieldTiles, form: number): number =>
  field.kind === 'edge' ? Math.sqrt(Math.max(0, form)) : Math.abs(form);

/** Unit direction of the edge (or stroke) at a place; null outside the picture or where there is none at all. */
export function edgeWay(field: FieldTiles, { x, y }: Point): Point | null {
  const { width, height } = field.raster;
  if (!(x >= 0 && y >= 0 && x < width && y < height)) return null;
  const { strength, nx, ny } = acrossAt(field, Math.floor(x), Math.floor(y));
  return strength > 0 ? { x: -ny, y: nx } : null;
}

const ROW_STEP_PX = 0.5;

/** The row of strengths looked at last: this is asked for hundreds of times in a move of the pointer. */
let row = new Float64Array(64);

/** Where along the normal the edge is strongest, the nearer of two as good, and how strong; between the steps by a parabola. */
function peakAcross(field: FieldTiles, p: Point, n: Point, reach: number): { off: number; strength: number } {
  const half = Math.ceil(reach / ROW_STEP_PX);
  // Two steps more to either side, for the top of the hill.
  const count = 2 * half + 5;
  if (row.length < count) row = new Float64Array(count);
  formsAlong(field, p, n, -(half + 2) * ROW_STEP_PX, ROW_STEP_PX, count, row);
  for (let i = 0; i < count; i++) row[i] = strengthOf(field, row[i]!);
  let best = half + 2;
  let most = -1;
  for (let i = 2; i <= 2 * half + 2; i++) {
    const v = row[i]! * (1 - (0.4 * Math.abs(i - half - 2)) / (half + 1));
    if (v > most) {
      most = v;
      best = i;
    }
  }
  // Up to the hill's top, which nearness may have kept it from.
  while (best > 2 && row[best - 1]! > row[best]!) best--;
  while (best < count - 3 && row[best + 1]! > row[best]!) best++;
  const off = hillTop(row[best - 2]!, row[best]!, row[best + 2]!);
  return { off: (best - half - 2 + off) * ROW_STEP_PX, strength: row[best]! };
}

/** Points at even lengths along a polyline, the first and last kept. */
export function evenPoints(points: readonly Point[], spacing: number): Point[] {
  const upTo = [0];
  for (let i = 1; i < points.length; i++) upTo.push(upTo[i - 1]! + distance(points[i - 1]!, points[i]!));
  const long = upTo.at(-1) ?? 0;
  const count = Math.max(1, Math.round(long / spacing));
  if (points.length < 2 || !(long > 0)) return points.slice(0, 1);
  let k = 0;
  return Array.from({ length: count + 1 }, (_, i) => {
    const s = (i * long) / count;
    while (k + 2 < points.length && upTo[k + 1]! < s) k++;
    const stretch = upTo[k + 1]! - upTo[k]!;
    const t = stretch > 0 ? (s - upTo[k]!) / stretch : 0;
    const [a, b] = [points[k]!, points[k + 1]!];
    return { x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) };
  });
}

/** A polyline with its jags taken off: each point the mean of those within `reach` places. */
function withoutJags(points: readonly Point[], reach: number): Point[] {
  return points.map((_, i) => {
    const r = Math.min(reach, i, points.length - 1 - i);
    let [x, y] = [0, 0];
    for (let k = i - r; k <= i + r; k++) {
      x += points[k]!.x;
      y += points[k]!.y;
    }
    return { x: x / (2 * r + 1), y: y / (2 * r + 1) };
  });
}

/**
 * Weight of the k-th neighbour in the parabola nearest to m of them to either side. Source: Savitzky and Golay (1964), whose
 * table I this gives.
 */
const parabolaWeight = (m: number, k: number): number =>
  (3 * (3 * m * m + 3 * m - 1 - 5 * k * k)) / ((2 * m - 1) * (2 * m + 1) * (2 * m + 3));

/** Where the parabola nearest to m places to either side has a place. */
function onParabola(points: readonly Point[], i: number, m: number): Point {
  let out = scale(points[i]!, parabolaWeight(m, 0));
  for (let k = 1; k <= m; k++)
    out = add(out, scale(add(points[i - k]!, points[i + k]!), parabolaWeight(m, k)));
  return out;
}

/** Grain taken out of a line that bends: each point put on the parabola nearest to those about it. */
const withoutGrain = (points: readonly Point[]): Point[] =>
  points.map((p, i) => {
    const room = Math.min(i, points.length - 1 - i);
    return room < 2 ? p : onParabola(points, i, room < 4 ? 2 : 4);
  });

/** Grain of a line is told beside parabolas over so much of it to either side, pixels, at every so manieth point. */
const GRAIN_OVER_PX = 15;
const GRAIN_EVERY = 3;
/** Deviations in a median's size, of a normal distribution. */
const DEVIATIONS_OF_MEDIAN = 1.4826;

/** How far grain puts a line's points off, standard deviation in pixels: corners, which are few, do not count. */
export function grainOf(points: readonly Point[], spacing = 1): number {
  const m = Math.max(3, Math.round(GRAIN_OVER_PX / spacing));
  const off: number[] = [];
  for (let i = m; i + m < points.length; i += GRAIN_EVERY)
    off.push(distance(points[i]!, onParabola(points, i, m)));
  off.sort((a, b) => a - b);
  return DEVIATIONS_OF_MEDIAN * (off[off.length >> 1] ?? 0);
}

const normalAt = (points: readonly Point[], i: number, reach: number): Point | null => {
  const d = unit(subtract(points[Math.min(points.length - 1, i + reach)]!, points[Math.max(0, i - reach)]!));
  return d && { x: d.y, y: -d.x };
};

/** A way that lies no farther off, pixels, is moved onto its edge at once. */
const NEARBY = 1.5;

/**
 * A rough way along an edge moved onto it: along the normal of each point to the strongest place within reach, twice where
 * it may lie far off, with the jags of single pixels taken off.
 *
 * @param way in picture pixels, a pixel or so apart
 * @param reach how far the way may lie off the edge
 */
export function ontoEdge(field: FieldTiles, way: readonly Point[], reach: number, spacing = 1): Point[] {
  let points = evenPoints(withoutJags(way, 2), spacing);
  for (const within of reach > NEARBY ? [reach, NEARBY] : [reach]) {
    const from = points;
    points = from.map((p, i) => {
      const n = normalAt(from, i, Math.max(2, Math.round(3 / spacing)));
      return n ? add(p, scale(n, peakAcross(field, p, n, within).off)) : p;
    });
  }
  return withoutGrain(points);
}

/** Of the points of an edge every so manieth is read across; between two moves change evenly. */
const READ_EVERY = 1;

/**
 * Points on an edge moved to where it is in the picture's own pixels, across it; those whose edge is not seen are moved as the
 * nearest ones before them are. Strokes stay.
 */
export function ontoPlaces(
  field: FieldTiles,
  points: readonly Point[],
  light: Light,
  spacing = 1,
): { readonly points: readonly Point[]; readonly soft: number } {
  if (field.kind === 'line' || points.length < 3) return { points, soft: field.blur };
  const reach = Math.max(2, Math.round(3 / spacing));
  const normals = points.map((_, i) => normalAt(points, i, reach) ?? { x: 0, y: 0 });
  const read = Array.from({ length: Math.ceil(points.length / READ_EVERY) }, (_, k) => k * READ_EVERY);
  const { off, soft } = placesAcross(
    field.raster,
    read.map((i) => ({ at: points[i]!, n: normals[i]! })),
    light,
    { spacing: READ_EVERY * spacing },
  );
  let by = off.find((v) => Math.abs(v) <= MOST_MOVED_PX) ?? 0;
  const moves = off.map((v) => (by = Math.abs(v) <= MOST_MOVED_PX ? v : by));
  const moved = points.map((p, i) => {
    const [k, t] = [Math.floor(i / READ_EVERY), (i % READ_EVERY) / READ_EVERY];
    const [a, b] = [moves[k]!, moves[Math.min(moves.length - 1, k + 1)]!];
    return add(p, scale(normals[i]!, a + t * (b - a)));
  });
  return { points: withoutGrain(moved), soft };
}

/** An edge is followed as long as it has this share of the strength it had. */
const FADED = 0.3;
/** As strong as this share of what is usual straight ahead, it does not turn. */
const STEADY = 0.85;
/** How far to the side the next step may find it, pixels. */
const ASIDE = 1.2;

/**
 * An edge followed on from a point on it, step by step, as long as it is there: to `most` pixels, to the picture's border,
 * or until it comes back to where it began.
 *
 * @param way unit direction in which to go
 * @param behind points that led here, the last ones last: round a tip it does not turn back onto them
 * @returns points a pixel apart, the first one left out
 */
export function followEdge(
  field: FieldTiles,
  from: Point,
  way: Point,
  most: number,
  behind: readonly Point[],
): Point[] {
  const { width, height } = field.raster;
  const out: Point[] = [];
  let [p, d] = [from, way];
  let usual = strengthOf(field, formBetween(field, p.x, p.y, d.y, -d.x));
  let turned = -TIPS_APART_PX;
  for (let i = 0; i < most; i++) {
    const ahead = add(p, d);
    if (ahead.x < 0 || ahead.y < 0 || ahead.x > width || ahead.y > height) break;
    // The edge may turn: the way across it is asked of the field, a little to either side.
    let best: { at: Point; strength: number } | null = null;
    for (const turn of TURNS) {
      if (best && best.strength > STEADY * usual) break;
      const u = { x: d.x * turn.c - d.y * turn.s, y: d.x * turn.s + d.y * turn.c };
      const n = { x: u.y, y: -u.x };
      const q = add(p, u);
      const { off, strength } = peakAcross(field, q, n, ASIDE);
      const liked = strength * (0.9 + 0.1 * turn.c);
      if (!best || liked > best.strength) best = { at: add(q, scale(n, off)), strength: liked };
    }
    const went = best && unit(subtract(best.at, p));
    if (
      !best ||
      !went ||
      best.strength < Math.max(leastStrength(field, best.at), FADED * usual) ||
      dot(went, d) < -0.2
    ) {
      // At a tip its two sides' blurs leave little of either: it goes on along the other.
      const other =
        field.kind === 'edge' && i >= turned + TIPS_APART_PX
          ? acrossTip(field, p, d, usual, [...behind.slice(-TRAIL), ...out.slice(-TRAIL)])
          : null;
      if (!other) break;
      const gap = Math.max(1, Math.round(distance(p, other.at)));
      for (let k = 1; k <= gap; k++) out.push(mix(p, other.at, k / gap));
      [p, d] = [other.at, other.way];
      i += gap;
      turned = i;
      continue;
    }
    usual = 0.97 * usual + 0.03 * best.strength;
    d = unit(add(scale(d, 0.5), went)) ?? went;
    p = add(p, scale(went, 1));
    out.push(p);
    if (i > 12 && distance(p, from) < 1) break;
  }
  return out;
}

/** After one tip there is none for so long, pixels. */
const TIPS_APART_PX = 16;
/** Beyond a tip its other side is looked for so far off, pixels, this far turned round, and as strong beside what was followed. */
const TIP_RADII_PX = [5, 8, 11, 14] as const;
const TIP_TURNS = Array.from({ length: 15 }, (_, k) => toRadians(95 + 6 * k));
const TIP_STRENGTH = 0.5;
/** It lies so far from the points that led there, pixels, of which so many are looked at, and leads away from the tip: the least cosine. */
const TIP_BESIDE_PX = 2.5;
const TRAIL = 40;
const TIP_ALONG = 0.85;

/** The ground about a tip is told so far behind it, places, and so far beside its sides, pixels. */
const TOLD_BEHIND = 6;
const OUTSIDE_PX = 3.5;
/** It is one ground where it differs by less than this share of what lies on both sides of the edge. */
const ONE_GROUND = 0.5;

/** Whether what lies outside one side of a tip lies outside the other: else the other is another thing's edge. */
function hasSameOutside(
  { width, height, data }: Raster,
  { one, way, other, wayOn, side }: { one: Point; way: Point; other: Point; wayOn: Point; side: number },
): boolean {
  /** Bytes of the pixel beside a place, to the side that the tip turns to or away from it. */
  const beside = (p: Point, along: Point, far: number): readonly number[] => {
    const x = Math.min(width - 1, Math.max(0, Math.floor(p.x - far * side * along.y)));
    const y = Math.min(height - 1, Math.max(0, Math.floor(p.y + far * side * along.x)));
    return [0, 1, 2, 3].map((c) => data[4 * (y * width + x) + c]!);
  };
  const apart = (a: readonly number[], b: readonly number[]): number =>
    Math.hypot(...a.map((v, c) => v - b[c]!));
  const [outside, inside] = [beside(one, way, -OUTSIDE_PX), beside(one, way, OUTSIDE_PX)];
  return apart(outside, beside(other, wayOn, -OUTSIDE_PX)) < ONE_GROUND * apart(outside, inside);
}

/** The other side of a tip at which an edge ends: a place on it, and its way on; null where there is none. */
function acrossTip(
  field: FieldTiles,
  tip: Point,
  way: Point,
  usual: number,
  trail: readonly Point[],
): { at: Point; way: Point } | null {
  const before = trail[Math.max(0, trail.length - TOLD_BEHIND)] ?? tip;
  for (const radius of TIP_RADII_PX) {
    let best: { at: Point; way: Point; strength: number } | null = null;
    for (const turn of TIP_TURNS)
      for (const side of [1, -1]) {
        const [c, s] = [Math.cos(turn), side * Math.sin(turn)];
        const u = { x: c * way.x - s * way.y, y: s * way.x + c * way.y };
        const q = add(tip, scale(u, radius));
        if (trail.some((t) => distance(t, q) < TIP_BESIDE_PX)) continue;
        const along = edgeWay(field, q);
        if (!along) continue;
        const on = scale(along, Math.sign(dot(along, u)) || 1);
        const strength = strengthOf(field, formBetween(field, q.x, q.y, on.y, -on.x));
        if (dot(on, u) < TIP_ALONG || strength < Math.max(leastStrength(field, q), TIP_STRENGTH * usual))
          continue;
        if (best && strength <= best.strength) continue;
        if (hasSameOutside(field.raster, { one: before, way, other: q, wayOn: on, side })) best = { at: q, way: on, strength }; // prettier-ignore
      }
    if (best) {
      const { off } = peakAcross(field, best.at, { x: best.way.y, y: -best.way.x }, ASIDE);
      return { at: add(best.at, scale({ x: best.way.y, y: -best.way.x }, off)), way: best.way };
    }
  }
  return null;
}
const TURNS = [0, 0.35, -0.35, 0.8, -0.8].map((a) => ({ c: Math.cos(a), s: Math.sin(a) }));

/** Nearer to a corner than this an edge is round, pixels and softnesses: blur, and what it takes to calm its jags. */
const NEAR_PX = 6;
const NEAR_IN_SOFT = 2.6;
/** Length along which each side is looked at. */
const SIDE = 16;
/** An edge turns sharply where its two sides, drawn on, meet at more than this. */
const SHARP = toRadians(28);

/** How far a straight side seems to bow for the grain in it, pixels: drawn on, it is much. */
const GRAIN = 0.15;

/**
 * Where a side's line is at length 0, and which way it goes: by the parabola nearest to it, its bow taken the less seriously
 * the less it stands out from grain (shrinkage after James and Stein, 1961).
 */
function drawnOn(
  rows: readonly { readonly s: number; readonly p: Point }[],
): { at: Point; way: Point } | null {
  const { line, curve } = nearestParabola(rows);
  const half = Math.abs(rows.at(-1)!.s - rows[0]!.s) / 2;
  const bow = Math.hypot(curve.bend.x, curve.bend.y) * half * half;
  const kept = bow > GRAIN ? 1 - (GRAIN / bow) ** 2 : 0;
  const way = unit(mix(line.slope, curve.slope, kept));
  return way && { at: mix(line.at, curve.at, kept), way };
}

/**
 * Where a track turns sharply. A blurred edge is round there: each side is drawn on from where it runs undisturbed, and the
 * points between are laid onto both up to where they meet.
 *
 * @param points a pixel or so apart
 * @param soft how softly they were read: standard deviation, pixels
 */
export function sharpenCorners(points: readonly Point[], soft: number, spacing = 1): EdgeTrack {
  const n = points.length;
  const round = Math.max(NEAR_PX, NEAR_IN_SOFT * soft);
  const look = (i: number, from: number): { turn: number; at: Point; near: number } | null => {
    const near = Math.ceil(from / spacing);
    const count = Math.max(5, Math.ceil(SIDE / spacing));
    if (i - near - count < 0 || i + near + count >= n) return null;
    const side = (way: 1 | -1) =>
      drawnOn(
        Array.from({ length: count }, (_, k) => ({
          s: way * (near + k) * spacing,
          p: points[i + way * (near + k)]!,
        })),
      );
    const [before, after] = [side(-1), side(1)];
    if (!before || !after) return null;
    const turn = Math.abs(Math.atan2(cross(before.way, after.way), dot(before.way, after.way)));
    const at = lineIntersection(before.at, before.way, after.at, after.way);
    return turn < SHARP || !at || distance(at, points[i]!) > 2 * from ? null : { turn, at, near };
  };
  const found: { i: number; turn: number; at: Point; near: number }[] = [];
  const far = Math.ceil((round + SIDE) / spacing);
  for (let i = Math.ceil(round / spacing); i < n - Math.ceil(round / spacing); i++) {
    // Cheap first: nothing turns sharply that hardly turns at all.
    const [p, q] = [points[Math.max(0, i - far)]!, points[Math.min(n - 1, i + far)]!];
    const [a, b] = [unit(subtract(points[i]!, p)), unit(subtract(q, points[i]!))];
    if (!a || !b || dot(a, b) > Math.cos(SHARP * 0.6)) continue;
    const first = look(i, round);
    if (!first) continue;
    // The more acute, the farther off its sides run undisturbed.
    const inner = clearanceAt(first.turn, soft);
    const corner = (inner > round ? look(i, inner) : first) ?? first;
    found.push({ i, ...corner, turn: corner.turn - 0.1 * distance(corner.at, points[i]!) });
  }
  // Of those within reach of each other the sharpest.
  const corners = found.filter((f) => !found.some((g) => g !== f && Math.abs(g.i - f.i) <= far && (g.turn > f.turn || (g.turn === f.turn && g.i < f.i)))); // prettier-ignore
  const out = [...points];
  for (const { i, at, near } of corners) {
    const [from, to] = [i - near, i + near];
    for (let k = from + 1; k < to; k++) {
      const t = k < i ? (k - from) / near : (to - k) / near;
      const end = k < i ? points[from]! : points[to]!;
      out[k] = { x: end.x + t * (at.x - end.x), y: end.y + t * (at.y - end.y) };
    }
    out[i] = at;
  }
  return { points: out, corners: corners.map((c) => c.i) };
}
