import { add, distance, scale, type Point } from '../geometry/vector';
import { peakAcross } from './edge-peak';
import { MOST_MOVED_PX, placesAcross, type Light } from './edge-profile';
import type { FieldTiles } from './field-tiles';

/** Points at even lengths along a polyline, the first and last kept. */
export function evenPoints(points: readonly Point[], spacing: number): { x: number; y: number }[] {
  const upTo = [0];
  for (let i = 1; i < points.length; i++) upTo.push(upTo[i - 1]! + distance(points[i - 1]!, points[i]!));
  const long = upTo.at(-1) ?? 0;
  const count = Math.max(1, Math.round(long / spacing));
  if (points.length < 2 || !(long > 0)) return points.slice(0, 1).map((p) => ({ ...p }));
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

/** Those weights, by m and k, as far as they were asked for: they are for each point of a line. */
const weights: (readonly number[] | undefined)[] = [];
const weightsOf = (m: number): readonly number[] =>
  (weights[m] ??= Array.from({ length: m + 1 }, (_, k) => parabolaWeight(m, k)));

/** Where the parabola nearest to m places to either side has a place. */
function onParabola(points: readonly Point[], i: number, m: number): Point {
  const by = weightsOf(m);
  let x = by[0]! * points[i]!.x;
  let y = by[0]! * points[i]!.y;
  for (let k = 1; k <= m; k++) {
    const before = points[i - k]!;
    const after = points[i + k]!;
    x += by[k]! * (before.x + after.x);
    y += by[k]! * (before.y + after.y);
  }
  return { x, y };
}

/** Grain taken out of a line that bends: each point put on the parabola nearest to those about it. */
const withoutGrain = (points: readonly Point[]): Point[] =>
  points.map((p, i) => {
    const room = Math.min(i, points.length - 1 - i);
    return room < 2 ? p : onParabola(points, i, room < 4 ? 2 : 4);
  });

/** Grain of a line is told beside parabolas over so much of it to either side, pixels, at one point in so many. */
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

function normalAt(points: readonly Point[], i: number, reach: number): Point | null {
  const ahead = points[Math.min(points.length - 1, i + reach)]!;
  const back = points[Math.max(0, i - reach)]!;
  const long = distance(ahead, back);
  return long > 0 ? { x: (ahead.y - back.y) / long, y: (back.x - ahead.x) / long } : null;
}

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
  const points: { x: number; y: number }[] = evenPoints(withoutJags(way, 2), spacing);
  const beside = Math.max(2, Math.round(3 / spacing));
  // Moved in their places once all are looked at: this is done for hundreds of points in a move of the pointer.
  const dx = new Float64Array(points.length);
  const dy = new Float64Array(points.length);
  for (const within of reach > NEARBY ? [reach, NEARBY] : [reach]) {
    for (let i = 0; i < points.length; i++) {
      const n = normalAt(points, i, beside);
      const off = n ? peakAcross(field, points[i]!, n, within).off : 0;
      dx[i] = n ? off * n.x : 0;
      dy[i] = n ? off * n.y : 0;
    }
    points.forEach((p, i) => {
      p.x += dx[i]!;
      p.y += dy[i]!;
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
): { readonly points: readonly Point[]; readonly soft: number } {
  if (field.kind === 'line' || points.length < 3) return { points, soft: field.blur };
  const reach = Math.max(2, Math.round(3 / spacing));
  const normals = points.map((_, i) => normalAt(points, i, reach) ?? { x: 0, y: 0 });
  const { off, soft } = placesAcross(
    field.raster,
    points.map((at, i) => ({ at, n: normals[i]! })),
    light,
    { spacing },
  );
  let by = off.find((v) => Math.abs(v) <= MOST_MOVED_PX) ?? 0;
  const moved = points.map((p, i) => {
    if (Math.abs(off[i]!) <= MOST_MOVED_PX) by = off[i]!;
    return add(p, scale(normals[i]!, by));
  });
  return { points: withoutGrain(moved), soft };
}
