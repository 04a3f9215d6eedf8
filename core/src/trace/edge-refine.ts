import { toRadians } from '../geometry/angle';
import { nearestParabola } from '../geometry/parabola';
import { add, cross, distance, dot, mix, scale, subtract, unit, type Point } from '../geometry/vector';
import { lineIntersection } from '../geometry/intersect';
import { acrossAt, formBetween, formsAlong } from './field-form';
import { hillTop } from '../geometry/hill-top';
import type { FieldTiles } from './field-tiles';
import { MOST_MOVED_PX, placesAcross, type Light } from './edge-profile';
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

/** Weights of the parabola nearest to so many neighbours. Source: Savitzky and Golay (1964), table I. */
const PARABOLA: readonly (readonly [sum: number, weights: readonly number[]])[] = [
  [231, [59, 54, 39, 14, -21]],
  [35, [17, 12, -3]],
];

/** Grain taken out of a line that bends: each point put on the parabola nearest to those about it. */
const withoutGrain = (points: readonly Point[]): Point[] =>
  points.map((p, i) => {
    const room = Math.min(i, points.length - 1 - i);
    const [sum, weights] = PARABOLA.find(([, w]) => w.length - 1 <= room) ?? [1, [1]];
    let out = scale(p, weights[0]! / sum);
    for (let k = 1; k < weights.length; k++)
      out = add(out, scale(add(points[i - k]!, points[i + k]!), weights[k]! / sum));
    return out;
  });

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

/**
 * Points on an edge moved to where it is in the picture's own pixels, across it; those whose edge is not seen are moved as the
 * nearest ones before them are. Strokes stay.
 */
export function ontoPlaces(
  field: FieldTiles,
  points: readonly Point[],
  light: Light,
  spacing = 1,
): readonly Point[] {
  if (field.kind === 'line' || points.length < 3) return points;
  const reach = Math.max(2, Math.round(3 / spacing));
  const normals = points.map((_, i) => normalAt(points, i, reach) ?? { x: 0, y: 0 });
  const { off } = placesAcross(
    field.raster,
    points.map((at, i) => ({ at, n: normals[i]! })),
    light,
    { spacing },
  );
  let by = off.find((v) => Math.abs(v) <= MOST_MOVED_PX) ?? 0;
  return points.map((p, i) => {
    if (Math.abs(off[i]!) <= MOST_MOVED_PX) by = off[i]!;
    return add(p, scale(normals[i]!, by));
  });
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
 * @returns points a pixel apart, the first one left out
 */
export function followEdge(field: FieldTiles, from: Point, way: Point, most: number): Point[] {
  const { width, height } = field.raster;
  const out: Point[] = [];
  let [p, d] = [from, way];
  let usual = strengthOf(field, formBetween(field, p.x, p.y, d.y, -d.x));
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
    if (!best || best.strength < Math.max(leastStrength(field, best.at), FADED * usual)) break;
    const went = unit(subtract(best.at, p));
    if (!went || dot(went, d) < -0.2) break;
    usual = 0.97 * usual + 0.03 * best.strength;
    d = unit(add(scale(d, 0.5), went)) ?? went;
    p = add(p, scale(went, 1));
    out.push(p);
    if (i > 12 && distance(p, from) < 1) break;
  }
  return out;
}
const TURNS = [0, 0.35, -0.35, 0.8, -0.8].map((a) => ({ c: Math.cos(a), s: Math.sin(a) }));

/** Nearer to a corner than this an edge is round, pixels: blur, and what it takes to calm its jags. */
const NEAR = 6;
/** Length along which each side is looked at. */
const SIDE = 16;
/** Between two sides that run together their blurs mingle up to here, pixels. */
const MINGLED = 3.5;
const FARTHEST_MINGLED_PX = 18;
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

/** How far from a corner that turns so much its two sides' blurs mingle, pixels. */
export const mingledWithin = (turn: number): number =>
  Math.min(FARTHEST_MINGLED_PX, MINGLED / Math.max(0.1, Math.cos(turn / 2)));

/**
 * Where a track turns sharply. A blurred edge is round there: each side is drawn on from where it runs undisturbed, and the
 * points between are laid onto both up to where they meet.
 *
 * @param points a pixel or so apart
 */
export function sharpenCorners(points: readonly Point[], spacing = 1): EdgeTrack {
  const n = points.length;
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
  const far = Math.ceil((NEAR + SIDE) / spacing);
  for (let i = Math.ceil(NEAR / spacing); i < n - Math.ceil(NEAR / spacing); i++) {
    // Cheap first: nothing turns sharply that hardly turns at all.
    const [p, q] = [points[Math.max(0, i - far)]!, points[Math.min(n - 1, i + far)]!];
    const [a, b] = [unit(subtract(points[i]!, p)), unit(subtract(q, points[i]!))];
    if (!a || !b || dot(a, b) > Math.cos(SHARP * 0.6)) continue;
    const first = look(i, NEAR);
    if (!first) continue;
    // The more acute, the farther off its sides run undisturbed.
    const inner = mingledWithin(first.turn);
    const corner = (inner > NEAR ? look(i, inner) : first) ?? first;
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
