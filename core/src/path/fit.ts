import { cubicDerivative, cubicPoint, cubicSecondDerivative, type Cubic } from '../geometry/cubic';
import { solveLinear } from '../geometry/linear';
import { add, distance, dot, scale, subtract, type Point } from '../geometry/vector';

/** Share of the chord length at each point, 0 to 1. */
function chordLengths(points: readonly Point[]): number[] {
  const u = [0];
  for (let i = 1; i < points.length; i++) u.push(u[i - 1]! + distance(points[i - 1]!, points[i]!));
  const total = u[u.length - 1]!;
  return total > 0 ? u.map((v) => v / total) : u;
}

/** Least squares for the two handle lengths along fixed tangents (Schneider 1990, GenerateBezier). */
function fitLengths(points: readonly Point[], u: number[], t1: Point, t2: Point): Cubic {
  const p0 = points[0]!;
  const p3 = points[points.length - 1]!;
  let c00 = 0;
  let c01 = 0;
  let c11 = 0;
  let x0 = 0;
  let x1 = 0;
  points.forEach((p, i) => {
    const t = u[i]!;
    const s = 1 - t;
    const b1 = 3 * s * s * t;
    const b2 = 3 * s * t * t;
    const a1 = scale(t1, b1);
    const a2 = scale(t2, b2);
    const rest = subtract(p, add(scale(p0, s * s * s + b1), scale(p3, b2 + t * t * t)));
    c00 += dot(a1, a1);
    c01 += dot(a1, a2);
    c11 += dot(a2, a2);
    x0 += dot(a1, rest);
    x1 += dot(a2, rest);
  });
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
function fitFree(points: readonly Point[], u: number[]): Cubic {
  const p0 = points[0]!;
  const p3 = points[points.length - 1]!;
  let c11 = 0;
  let c12 = 0;
  let c22 = 0;
  let r1 = { x: 0, y: 0 };
  let r2 = { x: 0, y: 0 };
  points.forEach((p, i) => {
    const t = u[i]!;
    const s = 1 - t;
    const b1 = 3 * s * s * t;
    const b2 = 3 * s * t * t;
    const rest = subtract(p, add(scale(p0, s * s * s), scale(p3, t * t * t)));
    c11 += b1 * b1;
    c12 += b1 * b2;
    c22 += b2 * b2;
    r1 = add(r1, scale(rest, b1));
    r2 = add(r2, scale(rest, b2));
  });
  const det = c11 * c22 - c12 * c12;
  if (!(det > 1e-12)) return [p0, p0, p3, p3];
  return [
    p0,
    scale(subtract(scale(r1, c22), scale(r2, c12)), 1 / det),
    scale(subtract(scale(r2, c11), scale(r1, c12)), 1 / det),
    p3,
  ];
}

/** Moves each parameter one Newton step towards the foot of its point (Schneider 1990, Reparameterize). */
function reparameterise(c: Cubic, points: readonly Point[], u: number[]): number[] {
  return points.map((p, i) => {
    const t = u[i]!;
    const off = subtract(cubicPoint(c, t), p);
    const d1 = cubicDerivative(c, t);
    const slope = dot(d1, d1) + dot(off, cubicSecondDerivative(c, t));
    if (!(slope > 0)) return t;
    return Math.min(1, Math.max(0, t - dot(off, d1) / slope));
  });
}

const errorOf = (c: Cubic, points: readonly Point[], u: number[]): number =>
  points.reduce((sum, p, i) => {
    const d = subtract(cubicPoint(c, u[i]!), p);
    return sum + dot(d, d);
  }, 0);

/** Rounds of Schneider's kind before the refinement, and the most rounds of that. */
const ROUNDS = 8;
const REFINEMENTS = 40;

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
  parameters: number[],
  ways: readonly [readonly Point[], readonly Point[]],
  rounds: number,
): Cubic {
  const [first, second] = ways;
  const n = first.length + second.length;
  let best = start;
  let u = parameters;
  let least = errorOf(best, points, u);
  let damping = 1e-3;
  for (let round = 0; round < rounds && least > 0 && damping < 1e9; round++) {
    const normal = Array.from({ length: n }, () => new Array<number>(n).fill(0));
    const right = new Array<number>(n).fill(0);
    points.forEach((p, i) => {
      const t = u[i]!;
      const d = cubicDerivative(best, t);
      const speed = Math.hypot(d.x, d.y);
      if (speed === 0) return;
      const across = { x: -d.y / speed, y: d.x / speed };
      const off = dot(across, subtract(p, cubicPoint(best, t)));
      const b1 = 3 * (1 - t) * (1 - t) * t;
      const b2 = 3 * (1 - t) * t * t;
      const row = [...first.map((w) => b1 * dot(across, w)), ...second.map((w) => b2 * dot(across, w))];
      for (let j = 0; j < n; j++) {
        right[j]! += row[j]! * off;
        for (let k = 0; k < n; k++) normal[j]![k]! += row[j]! * row[k]!;
      }
    });
    const size = normal.reduce((sum, row, j) => sum + row[j]!, 0) / n;
    if (!(size > 0)) break;
    const step = solveLinear(
      normal.map((row, j) => row.map((v, k) => (j === k ? v + damping * size : v))),
      right,
    );
    if (!step) break;
    const moved = (from: Point, along: readonly Point[], at: number): Point =>
      along.reduce((sum, w, k) => add(sum, scale(w, step[at + k]!)), from);
    const next: Cubic = [best[0], moved(best[1], first, 0), moved(best[2], second, first.length), best[3]];
    // A handle along a tangent may not turn round.
    const turned =
      (first.length === 1 && dot(subtract(next[1], next[0]), first[0]!) < 0) ||
      (second.length === 1 && dot(subtract(next[2], next[3]), second[0]!) < 0);
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
    best = current;
    bestAt = u;
    least = error;
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
