import { boxesMeet, boxOfPoints } from './bounds';
import { cubicDerivative, cubicPoint, splitCubic, type Cubic } from './cubic';
import { cubicOverlap } from './overlap';
import { cross, distance, dot, subtract, type Point } from './vector';

/** Where two curves meet: parameters on both, and the point. */
export interface Crossing {
  readonly t: number;
  readonly u: number;
  readonly point: Point;
}

/** More leaf pairs than this mean that the curves run along each other: no crossing can be told from the next. */
const MOST_LEAF_PAIRS = 200;

/** Newton's method on A(t) = B(u); null when it leaves both curves or does not settle. */
function polish(a: Cubic, b: Cubic, t: number, u: number, size: number): Crossing | null {
  for (let i = 0; i < 12; i++) {
    const gap = subtract(cubicPoint(b, u), cubicPoint(a, t));
    const da = cubicDerivative(a, t);
    const db = cubicDerivative(b, u);
    const det = cross(da, db);
    if (Math.abs(det) < 1e-14 * Math.hypot(da.x, da.y) * Math.hypot(db.x, db.y)) break;
    t += cross(gap, db) / det;
    u += cross(gap, da) / det;
    if (!(t > -0.1 && t < 1.1 && u > -0.1 && u < 1.1)) return null;
  }
  const slack = 1e-9;
  if (t < -slack || t > 1 + slack || u < -slack || u > 1 + slack) return null;
  t = Math.min(1, Math.max(0, t));
  u = Math.min(1, Math.max(0, u));
  const point = cubicPoint(a, t);
  return distance(point, cubicPoint(b, u)) <= 1e-9 * size ? { t, u, point } : null;
}

/** Control points no farther from the chord than this share of it make a curve as good as straight. */
const FLAT_SHARE = 0.01;
/** Chords at less than this sine may belong to curves that cross more than once. */
const CROSSING_SINE = 0.2;
/** How far beyond the ends of chords that nearly straight curves may cross, as a share. */
const BEYOND_SHARE = 0.1;

/**
 * Where the chords of two curves cross, as shares of them; `far` where they do not, beyond what the curves' bend allows. Null
 * where the curves are not straight enough, or not enough at an angle, for that to say anything.
 */
function chordCrossing(p: Cubic, q: Cubic): { s: number; w: number } | 'far' | null {
  const [ux, uy] = [p[3].x - p[0].x, p[3].y - p[0].y];
  const [vx, vy] = [q[3].x - q[0].x, q[3].y - q[0].y];
  const [u2, v2] = [ux * ux + uy * uy, vx * vx + vy * vy];
  const off = (c: Cubic, i: 1 | 2, x: number, y: number): number => Math.abs(x * (c[i].y - c[0].y) - y * (c[i].x - c[0].x)); // prettier-ignore
  if (Math.max(off(p, 1, ux, uy), off(p, 2, ux, uy)) > FLAT_SHARE * u2) return null;
  if (Math.max(off(q, 1, vx, vy), off(q, 2, vx, vy)) > FLAT_SHARE * v2) return null;
  const det = ux * vy - uy * vx;
  if (!(det * det > CROSSING_SINE * CROSSING_SINE * u2 * v2)) return null;
  const [gx, gy] = [q[0].x - p[0].x, q[0].y - p[0].y];
  const [s, w] = [(gx * vy - gy * vx) / det, (gx * uy - gy * ux) / det];
  const within = (k: number): boolean => k >= -BEYOND_SHARE && k <= 1 + BEYOND_SHARE;
  return within(s) && within(w) ? { s, w } : 'far';
}

/**
 * Where two cubics cross or touch at an angle: boxes of their control points are halved until they part or are small
 * (Lane and Riesenfeld 1980), then Newton's method.
 *
 * @returns crossings by rising `t`, each once; where the curves lie on each other, the ends of that stretch; none where
 *   they run along each other so near that nothing can be told
 */
export function cubicIntersections(a: Cubic, b: Cubic): Crossing[] {
  const box = boxOfPoints([...a, ...b]);
  const size = Math.max(box.x1 - box.x0, box.y1 - box.y0);
  const found: Crossing[] = [];
  let leaves = 0;
  const note = (t: number, u: number): void => {
    const crossing = polish(a, b, t, u, size);
    if (
      crossing &&
      !found.some((f) => Math.abs(f.t - crossing.t) < 1e-6 && Math.abs(f.u - crossing.u) < 1e-6)
    )
      found.push(crossing);
  };
  const search = (p: Cubic, q: Cubic, t0: number, t1: number, u0: number, u1: number): void => {
    if (leaves > MOST_LEAF_PAIRS || !boxesMeet(boxOfPoints(p), boxOfPoints(q))) return;
    const chords = chordCrossing(p, q);
    if (chords === 'far') return;
    if (chords) return note(t0 + chords.s * (t1 - t0), u0 + chords.w * (u1 - u0));
    if (t1 - t0 < 1 / 512 && u1 - u0 < 1 / 512) {
      leaves++;
      // From the middle and from each end: two crossings within one leaf are each nearest to another of them.
      for (const [t, u] of [
        [(t0 + t1) / 2, (u0 + u1) / 2],
        [t0, u0],
        [t0, u1],
        [t1, u0],
        [t1, u1],
      ] as const)
        note(t, u);
      return;
    }
    const [p1, p2] = splitCubic(p, 0.5);
    const [q1, q2] = splitCubic(q, 0.5);
    const [t, u] = [(t0 + t1) / 2, (u0 + u1) / 2];
    search(p1, q1, t0, t, u0, u);
    search(p1, q2, t0, t, u, u1);
    search(p2, q1, t, t1, u0, u);
    search(p2, q2, t, t1, u, u1);
  };
  search(a, b, 0, 1, 0, 1);
  if (leaves <= MOST_LEAF_PAIRS) return found.sort((x, y) => x.t - y.t);
  const overlap = cubicOverlap(a, b);
  return overlap ? overlap.t.map((t, i) => ({ t, u: overlap.u[i]!, point: cubicPoint(a, t) })) : [];
}

/** Where a cubic crosses the endless line through `at` in direction `along` (a unit vector). */
export function cubicLineIntersections(c: Cubic, at: Point, along: Point): { t: number; point: Point }[] {
  // Offsets of the control points from the line are the curve's offset in Bernstein form.
  const off = c.map((p) => cross(along, subtract(p, at)));
  const out: number[] = [];
  const noise = 1e-14 * Math.max(...off.map(Math.abs));
  if (noise === 0) return [];
  const value = (t: number): number => {
    const s = 1 - t;
    return off[0]! * s * s * s + 3 * off[1]! * s * s * t + 3 * off[2]! * s * t * t + off[3]! * t * t * t;
  };
  // Between the extremes of the offset it rises or falls: one root at most in each stretch.
  const [d0, d1, d2] = [off[1]! - off[0]!, off[2]! - off[1]!, off[3]! - off[2]!];
  const [qa, qb, qc] = [d0 - 2 * d1 + d2, 2 * (d1 - d0), d0];
  const disc = qb * qb - 4 * qa * qc;
  const turns = Math.abs(qa) < 1e-14 * (Math.abs(qb) + Math.abs(qc))
    ? qb === 0 ? [] : [-qc / qb]
    : disc <= 0 ? [] : [(-qb - Math.sqrt(disc)) / (2 * qa), (-qb + Math.sqrt(disc)) / (2 * qa)]; // prettier-ignore
  const stops = [0, ...turns.filter((t) => t > 0 && t < 1).sort((x, y) => x - y), 1];
  for (let i = 0; i + 1 < stops.length; i++) {
    let [low, high] = [stops[i]!, stops[i + 1]!];
    const [a, b] = [value(low), value(high)];
    if (Math.abs(a) <= noise) out.push(low);
    if (Math.abs(a) <= noise || Math.abs(b) <= noise || a > 0 === b > 0) continue;
    for (let k = 0; k < 60 && high - low > 1e-16; k++) {
      const middle = (low + high) / 2;
      if (value(middle) > 0 === a > 0) low = middle;
      else high = middle;
    }
    out.push((low + high) / 2);
  }
  if (Math.abs(value(1)) <= noise) out.push(1);
  return out.map((t) => ({ t, point: cubicPoint(c, t) }));
}

/** Where two endless lines cross; null when they are level with each other. Directions are unit vectors. */
export function lineIntersection(p: Point, u: Point, q: Point, v: Point): Point | null {
  const det = cross(u, v);
  if (Math.abs(det) < 1e-9) return null;
  const k = cross(subtract(q, p), v) / det;
  return { x: p.x + u.x * k, y: p.y + u.y * k };
}

/** Where an endless line crosses a circle: none, one twice over, or two. */
export function lineCircleIntersections(p: Point, u: Point, centre: Point, radius: number): Point[] {
  const along = dot(subtract(centre, p), u);
  const foot = { x: p.x + u.x * along, y: p.y + u.y * along };
  const off = distance(foot, centre);
  if (off > radius) return [];
  const half = Math.sqrt(radius * radius - off * off);
  return [-half, half].map((k) => ({ x: foot.x + u.x * k, y: foot.y + u.y * k }));
}
