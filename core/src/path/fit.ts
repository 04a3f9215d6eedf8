import type { Cubic } from '../geometry/cubic';
import { solveLinear } from '../geometry/linear';
import { footNear } from '../geometry/nearest';
import { add, distance, dot, scale, subtract, type Point } from '../geometry/vector';

// Written with plain numbers throughout: Reach and Thin out try thousands of fits while a hand waits.

/** Share of the chord length at each point, 0 to 1. */
function chordLengths(points: readonly Point[]): Float64Array {
  const u = new Float64Array(points.length);
  for (let i = 1; i < u.length; i++) u[i] = u[i - 1]! + distance(points[i - 1]!, points[i]!);
  const total = u[u.length - 1]!;
  return total > 0 ? u.map((v) => v / total) : u;
}

/** Least squares for the two handle lengths along fixed tangents (Schneider 1990, GenerateBezier). */
function fitLengths(points: readonly Point[], u: Float64Array, t1: Point, t2: Point): Cubic {
  const p0 = points[0]!;
  const p3 = points[points.length - 1]!;
  let c00 = 0;
  let c01 = 0;
  let c11 = 0;
  let x0 = 0;
  let x1 = 0;
  const cosine = dot(t1, t2);
  for (let i = 0; i < points.length; i++) {
    const p = points[i]!;
    const t = u[i]!;
    const s = 1 - t;
    const b1 = 3 * s * s * t;
    const b2 = 3 * s * t * t;
    const from = s * s * s + b1;
    const to = b2 + t * t * t;
    const x = p.x - from * p0.x - to * p3.x;
    const y = p.y - from * p0.y - to * p3.y;
    c00 += b1 * b1;
    c01 += b1 * b2 * cosine;
    c11 += b2 * b2;
    x0 += b1 * (t1.x * x + t1.y * y);
    x1 += b2 * (t2.x * x + t2.y * y);
  }
  const det = c00 * c11 - c01 * c01;
  const chord = distance(p0, p3);
  let l1 = det === 0 ? 0 : (x0 * c11 - x1 * c01) / det;
  let l2 = det === 0 ? 0 : (c00 * x1 - c01 * x0) / det;
  // Schneider's fall-back (Wu and Barsky): a third of the chord where the system gives no use.
  if (!(l1 > 1e-6 * chord) || !(l2 > 1e-6 * chord)) {
    if (c00 > 0 && !(l2 > 1e-6 * chord)) {
      l2 = 0;
      l1 = Math.max(0, x0 / c00);
    } else if (c11 > 0) {
      l1 = 0;
      l2 = Math.max(0, x1 / c11);
    } else l1 = l2 = chord / 3;
  }
  return [p0, add(p0, scale(t1, l1)), add(p3, scale(t2, l2)), p3];
}

/** Least squares for two wholly free control points. */
function fitFree(points: readonly Point[], u: Float64Array): Cubic {
  const p0 = points[0]!;
  const p3 = points[points.length - 1]!;
  let c11 = 0;
  let c12 = 0;
  let c22 = 0;
  let [x1, y1, x2, y2] = [0, 0, 0, 0];
  for (let i = 0; i < points.length; i++) {
    const p = points[i]!;
    const t = u[i]!;
    const s = 1 - t;
    const b0 = s * s * s;
    const b1 = 3 * s * s * t;
    const b2 = 3 * s * t * t;
    const b3 = t * t * t;
    const x = p.x - b0 * p0.x - b3 * p3.x;
    const y = p.y - b0 * p0.y - b3 * p3.y;
    c11 += b1 * b1;
    c12 += b1 * b2;
    c22 += b2 * b2;
    x1 += b1 * x;
    y1 += b1 * y;
    x2 += b2 * x;
    y2 += b2 * y;
  }
  const det = c11 * c22 - c12 * c12;
  if (!(det > 1e-12)) return [p0, p0, p3, p3];
  return [
    p0,
    { x: (x1 * c22 - x2 * c12) / det, y: (y1 * c22 - y2 * c12) / det },
    { x: (x2 * c11 - x1 * c12) / det, y: (y2 * c11 - y1 * c12) / det },
    p3,
  ];
}

/** Moves each parameter one Newton step towards the foot of its point (Schneider 1990, Reparameterize). */
const reparameterise = (c: Cubic, points: readonly Point[], u: Float64Array): Float64Array =>
  u.map((t, i) => footNear(c, points[i]!, t, 1));

/** Sum of the squared distances between points and a curve at their parameters. */
function errorOf([p0, p1, p2, p3]: Cubic, points: readonly Point[], u: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < u.length; i++) {
    const p = points[i]!;
    const t = u[i]!;
    const s = 1 - t;
    const b0 = s * s * s;
    const b1 = 3 * s * s * t;
    const b2 = 3 * s * t * t;
    const b3 = t * t * t;
    const x = b0 * p0.x + b1 * p1.x + b2 * p2.x + b3 * p3.x - p.x;
    const y = b0 * p0.y + b1 * p1.y + b2 * p2.y + b3 * p3.y - p.y;
    sum += x * x + y * y;
  }
  return sum;
}

/** Rounds of Schneider's kind before the refinement, and the most rounds of that. */
const ROUNDS = 8;
const REFINEMENTS = 40;
/** A gain by less than this share in a round: the refinement is quicker from there. */
const SLOW = 0.1;

/**
 * Refines a fit by damped Gauss–Newton steps on the distances along the curve's normals, which unlike the distances
 * at fixed parameters do not hold the curve back from sliding. Source: Wang, Pottmann and Liu, "Fitting B-spline
 * curves to point clouds by curvature-based squared distance minimization", ACM Transactions on Graphics 25 (2006),
 * tangent distance; damping after Marquardt (1963).
 *
 * @param ways directions in which each of the two inner control points may move
 */
function refine(
  start: Cubic,
  points: readonly Point[],
  parameters: Float64Array,
  ways: readonly [readonly Point[], readonly Point[]],
  rounds: number,
): Cubic {
  const [first, second] = ways;
  const each = [...first, ...second];
  const n = each.length;
  const row = new Float64Array(n);
  let best = start;
  let u = parameters;
  let least = errorOf(best, points, u);
  let damping = 1e-3;
  for (let round = 0; round < rounds && least > 0 && damping < 1e9; round++) {
    const normal = each.map(() => new Array<number>(n).fill(0));
    const right = new Array<number>(n).fill(0);
    const [p0, p1, p2, p3] = best;
    for (let i = 0; i < points.length; i++) {
      const p = points[i]!;
      const t = u[i]!;
      const s = 1 - t;
      const b0 = s * s * s;
      const b1 = 3 * s * s * t;
      const b2 = 3 * s * t * t;
      const b3 = t * t * t;
      const dx = s * s * (p1.x - p0.x) + 2 * s * t * (p2.x - p1.x) + t * t * (p3.x - p2.x);
      const dy = s * s * (p1.y - p0.y) + 2 * s * t * (p2.y - p1.y) + t * t * (p3.y - p2.y);
      const speed = Math.sqrt(dx * dx + dy * dy);
      if (speed === 0) continue;
      const nx = -dy / speed;
      const ny = dx / speed;
      const off = nx * (p.x - b0 * p0.x - b1 * p1.x - b2 * p2.x - b3 * p3.x) + ny * (p.y - b0 * p0.y - b1 * p1.y - b2 * p2.y - b3 * p3.y); // prettier-ignore
      for (let j = 0; j < n; j++) row[j] = (j < first.length ? b1 : b2) * (nx * each[j]!.x + ny * each[j]!.y);
      for (let j = 0; j < n; j++) {
        const v = row[j]!;
        right[j]! += v * off;
        const into = normal[j]!;
        for (let k = 0; k < n; k++) into[k]! += v * row[k]!;
      }
    }
    const size = normal.reduce((sum, r, j) => sum + r[j]!, 0) / n;
    if (!(size > 0)) break;
    normal.forEach((r, j) => (r[j]! += damping * size));
    const step = solveLinear(normal, right);
    if (!step) break;
    const moved = (from: Point, along: readonly Point[], at: number): Point =>
      along.reduce((sum, w, k) => add(sum, scale(w, step[at + k]!)), from);
    const next: Cubic = [p0, moved(p1, first, 0), moved(p2, second, first.length), p3];
    // A handle along a tangent may not turn round.
    const turned =
      (first.length === 1 && dot(subtract(next[1], p0), first[0]!) < 0) ||
      (second.length === 1 && dot(subtract(next[2], p3), second[0]!) < 0);
    const parametersThere = reparameterise(next, points, reparameterise(next, points, u));
    const error = turned ? Infinity : errorOf(next, points, parametersThere);
    if (error < least) {
      const gain = least - error;
      best = next;
      u = parametersThere;
      least = error;
      damping = Math.max(1e-12, damping / 8);
      if (gain < 1e-9 * least) break;
    } else damping *= 8;
  }
  return best;
}

/** A free fit with one handle laid along a tangent it has to keep. */
function along(cubic: Cubic, startTangent: Point | null, endTangent: Point | null): Cubic {
  const [a, b, c, d] = cubic;
  const least = distance(a, d) / 20;
  const laid = (from: Point, handle: Point, way: Point): Point =>
    add(from, scale(way, Math.max(least, dot(subtract(handle, from), way))));
  return [a, startTangent ? laid(a, b, startTangent) : b, endTangent ? laid(d, c, endTangent) : c, d];
}

/**
 * One cubic through the first and last point, as near as it can to those between: least squares with
 * reparameterisation, then refined. Source: Schneider, "An algorithm for automatically fitting digitized curves",
 * Graphics Gems (1990).
 *
 * @param points at least two, in order
 * @param startTangent unit direction in which the curve leaves, or null when free
 * @param endTangent unit direction pointing back from the end, or null
 * @param rounds of refinement at most; none gives Schneider's own fit
 * @throws RangeError for fewer than two points
 */
export function fitCubic(
  points: readonly Point[],
  startTangent: Point | null,
  endTangent: Point | null,
  rounds = REFINEMENTS,
): Cubic {
  if (points.length < 2) throw new RangeError('A curve is fitted to two points or more.');
  let u = chordLengths(points);
  const fit = (): Cubic =>
    startTangent && endTangent
      ? fitLengths(points, u, startTangent, endTangent)
      : along(fitFree(points, u), startTangent, endTangent);
  let best = fit();
  let bestAt = u;
  let least = errorOf(best, points, u);
  let current = best;
  for (let i = 0; i < ROUNDS && least > 0; i++) {
    u = reparameterise(current, points, u);
    current = fit();
    const error = errorOf(current, points, u);
    if (error >= least) continue;
    const slow = least - error < SLOW * least;
    best = current;
    bestAt = u;
    least = error;
    if (slow && rounds > 0) break;
  }
  const free: readonly Point[] = [
    { x: 1, y: 0 },
    { x: 0, y: 1 },
  ];
  return refine(
    best,
    points,
    bestAt,
    [startTangent ? [startTangent] : free, endTangent ? [endTangent] : free],
    rounds,
  );
}
