import { cubicPoint, type Cubic } from './cubic';
import { distance, type Point } from './vector';

/** The point of a curve nearest to another: where (t), the point, and how far. */
export interface NearestOnCurve {
  readonly t: number;
  readonly point: Point;
  readonly distance: number;
}

/** How often an interval is halved at most before its middle is taken for the root. */
const DEEPEST = 26;
/** Intervals waiting: six Bernstein coefficients, both ends, the depth. */
const WIDE = 9;
const waiting = new Float64Array(WIDE * (2 * DEEPEST + 8));

/**
 * Nearest point of a cubic. Where it is nearest inside the curve, (B(t) − p)·B'(t) is 0: a polynomial of degree five,
 * whose roots are parted in Bernstein form by its sign changes and refined by Newton's method kept in its bracket.
 * Source: Schneider, "Solving the nearest-point-on-curve problem", Graphics Gems (1990).
 *
 * @param c control points, any unit
 * @param p the point to be near to, same unit
 * @returns t in [0, 1] to about 1e-15; an end where ends are as near
 */
export function nearestOnCubic(c: Cubic, p: Point): NearestOnCurve {
  const t = nearestParameter(c, p);
  const point = cubicPoint(c, t);
  return { t, point, distance: distance(point, p) };
}

/**
 * Parameter of the foot of a point on a cubic, sought from one nearby by Newton's method: cheaper by far than looking at
 * the whole curve, and never nearer than the nearest point.
 *
 * @param t where to begin, 0 to 1
 * @param steps at most; from nearly the foot's four are enough
 */
export function footNear([c0, c1, c2, c3]: Cubic, p: Point, t: number, steps = 4): number {
  const cx = 3 * (c1.x - c0.x);
  const cy = 3 * (c1.y - c0.y);
  const bx = 3 * (c2.x - c1.x) - cx;
  const by = 3 * (c2.y - c1.y) - cy;
  const ax = c3.x - c0.x - cx - bx;
  const ay = c3.y - c0.y - cy - by;
  for (let i = 0; i < steps; i++) {
    const x = ((ax * t + bx) * t + cx) * t + c0.x - p.x;
    const y = ((ay * t + by) * t + cy) * t + c0.y - p.y;
    const dx = (3 * ax * t + 2 * bx) * t + cx;
    const dy = (3 * ay * t + 2 * by) * t + cy;
    const curvature = dx * dx + dy * dy + x * (6 * ax * t + 2 * bx) + y * (6 * ay * t + 2 * by);
    if (!(curvature > 0)) return t;
    const next = Math.min(1, Math.max(0, t - (x * dx + y * dy) / curvature));
    if (Math.abs(next - t) < 1e-7) return next;
    t = next;
  }
  return t;
}

// Written without objects or closures: this runs for every segment at every move of the pointer.
function nearestParameter([c0, c1, c2, c3]: Cubic, p: Point): number {
  const x0 = c0.x - p.x;
  const y0 = c0.y - p.y;
  const x1 = c1.x - p.x;
  const y1 = c1.y - p.y;
  const x2 = c2.x - p.x;
  const y2 = c2.y - p.y;
  const x3 = c3.x - p.x;
  const y3 = c3.y - p.y;
  let best = 0;
  let least = x0 * x0 + y0 * y0;
  const last = x3 * x3 + y3 * y3;
  if (last < least) {
    best = 1;
    least = last;
  }
  const ux = x1 - x0;
  const uy = y1 - y0;
  const vx = x2 - x1;
  const vy = y2 - y1;
  const wx = x3 - x2;
  const wy = y3 - y2;
  // The product of a cubic and a quadratic in Bernstein form: weights C(3,i)·C(2,j)/C(5,i+j).
  const s = waiting;
  s[0] = x0 * ux + y0 * uy;
  s[1] = (3 * (x1 * ux + y1 * uy) + 2 * (x0 * vx + y0 * vy)) / 5;
  s[2] = (3 * (x2 * ux + y2 * uy) + 6 * (x1 * vx + y1 * vy) + (x0 * wx + y0 * wy)) / 10;
  s[3] = (x3 * ux + y3 * uy + 6 * (x2 * vx + y2 * vy) + 3 * (x1 * wx + y1 * wy)) / 10;
  s[4] = (2 * (x3 * vx + y3 * vy) + 3 * (x2 * wx + y2 * wy)) / 5;
  s[5] = x3 * wx + y3 * wy;
  s[6] = 0;
  s[7] = 1;
  s[8] = 0;
  // A point on the curve makes coefficients of pure rounding error; they count as 0.
  let noise = 0;
  for (let i = 0; i < 6; i++) noise = Math.max(noise, Math.abs(s[i]!));
  noise *= 1e-15;

  // The curve from p as powers of t.
  const ax = x3 - 3 * x2 + 3 * x1 - x0;
  const ay = y3 - 3 * y2 + 3 * y1 - y0;
  const bx = 3 * (x2 - 2 * x1 + x0);
  const by = 3 * (y2 - 2 * y1 + y0);
  const cx = 3 * ux;
  const cy = 3 * uy;

  let top = 1;
  while (top > 0) {
    const at = --top * WIDE;
    let changes = 0;
    let sign = 0;
    for (let i = 0; i < 6; i++) {
      const v = s[at + i]!;
      const here = v > noise ? 1 : v < -noise ? -1 : 0;
      if (here === 0) continue;
      if (sign !== 0 && here !== sign) changes++;
      sign = here;
    }
    const first = s[at]!;
    const end = s[at + 5]!;
    if (changes === 0 && Math.abs(first) > noise && Math.abs(end) > noise) continue;
    // One root, and the farthest point near it.
    if (changes === 1 && first > noise && end < -noise) continue;
    let low = s[at + 6]!;
    let high = s[at + 7]!;
    const depth = s[at + 8]!;
    let t = (low + high) / 2;
    if (changes === 1 && first < 0 && end > 0) {
      // The root in the bracket, where the way to p goes from shortening to lengthening.
      t = low + ((high - low) * first) / (first - end);
      for (let i = 0; i < 60; i++) {
        const px = ((ax * t + bx) * t + cx) * t + x0;
        const py = ((ay * t + by) * t + cy) * t + y0;
        const dx = (3 * ax * t + 2 * bx) * t + cx;
        const dy = (3 * ay * t + 2 * by) * t + cy;
        const slope = px * dx + py * dy;
        if (slope > 0) high = t;
        else low = t;
        const curvature = dx * dx + dy * dy + px * (6 * ax * t + 2 * bx) + py * (6 * ay * t + 2 * by);
        let next = curvature > 0 ? t - slope / curvature : (low + high) / 2;
        if (!(next > low && next < high)) next = (low + high) / 2;
        const step = Math.abs(next - t);
        t = next;
        if (step < 1e-15) break;
      }
    } else if (depth < DEEPEST && sign !== 0) {
      // De Casteljau in the middle: the left half stays on top of the right one.
      const to = at + WIDE;
      for (let i = 0; i < 6; i++) s[to + i] = s[at + i]!;
      for (let k = 0; k < 6; k++) {
        const v = s[to]!;
        for (let i = 0; i < 5 - k; i++) s[to + i] = (s[to + i]! + s[to + i + 1]!) / 2;
        s[at + k] = v;
      }
      // What is left at `to` are the last values of every round, backwards: the right half.
      s[to + 6] = t;
      s[to + 7] = high;
      s[to + 8] = depth + 1;
      s[at + 7] = t;
      s[at + 8] = depth + 1;
      top += 2;
      continue;
    }
    const px = ((ax * t + bx) * t + cx) * t + x0;
    const py = ((ay * t + by) * t + cy) * t + y0;
    const d = px * px + py * py;
    if (d < least) {
      least = d;
      best = t;
    }
  }
  return best;
}
