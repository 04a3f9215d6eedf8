import { toRadians } from '../geometry/angle';
import { distance, dot, subtract, unit, type Point } from '../geometry/vector';
import { clearanceAt } from './corner-clearance';
import { evenSidesMeet, GRAIN_PX, SIDE_PX, type Corner } from './sides-meet';

/** A line along a picture's edge, between pixels. */
export interface EdgeTrack {
  /** About `spacing` apart. */
  readonly points: readonly Point[];
  /** Where it turns sharply, by index; those points are where its two sides meet. */
  readonly corners: readonly number[];
}

/** Nearer to a corner than this an edge is round, pixels and softnesses: blur, and what it takes to calm its jags. */
const NEAR_PX = 6;
const NEAR_IN_SOFT = 2.6;
/** An edge turns sharply where its two sides, drawn on, meet at more than this. */
const SHARP = toRadians(28);

/**
 * Blur takes a corner's track off it by at most so many softnesses, over the tangent of half the angle between its sides
 * (measured on corners of 28° to 150° in twelve conditions: 1.1 in the middle, below 2.0 on 98 %).
 */
const BLUNTED_IN_SOFT = 2.1;

/** Whether blur could have rounded a corner as far as its track lies off it; else the edge itself is round there. */
const couldBlurRound = ({ at, turn }: Corner, p: Point, soft: number): boolean =>
  distance(at, p) <= GRAIN_PX + (BLUNTED_IN_SOFT * soft) / Math.max(1e-6, Math.tan((Math.PI - turn) / 2));

/** Ways to tell where two sides meet, by how many points off a corner they begin. */
type Meetings = Map<number, ReturnType<typeof evenSidesMeet>>;
/** Kept for tracks a pixel from point to point, as most are: one for each clearance there can be. */
const BY_PIXELS: Meetings = new Map();

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
  const count = Math.max(5, Math.ceil(SIDE_PX / spacing));
  const meetings: Meetings = spacing === 1 ? BY_PIXELS : new Map();
  const look = (i: number, from: number): (Corner & { readonly near: number }) | null => {
    const near = Math.ceil(from / spacing);
    if (i - near - count < 0 || i + near + count >= n) return null;
    if (!meetings.has(near)) meetings.set(near, evenSidesMeet(near, count, spacing));
    const met = meetings.get(near)!(points, i);
    return !met || met.turn < SHARP || distance(met.at, points[i]!) > 2 * from ? null : { ...met, near };
  };
  const found: (Corner & { readonly i: number; readonly near: number; readonly sharpness: number })[] = [];
  const far = Math.ceil((round + SIDE_PX) / spacing);
  for (let i = Math.ceil(round / spacing); i < n - Math.ceil(round / spacing); i++) {
    // Cheap first: nothing turns sharply that hardly turns at all.
    const [p, q] = [points[Math.max(0, i - far)]!, points[Math.min(n - 1, i + far)]!];
    const [a, b] = [unit(subtract(points[i]!, p)), unit(subtract(q, points[i]!))];
    if (!a || !b || dot(a, b) > Math.cos(SHARP * 0.6)) continue;
    const first = look(i, round);
    if (!first) continue;
    // The more acute, the farther off its sides run undisturbed.
    const inner = clearanceAt(first.turn, soft, 'sought');
    const corner = (inner > round ? look(i, inner) : first) ?? first;
    if (!couldBlurRound(corner, points[i]!, soft)) continue;
    found.push({ i, ...corner, sharpness: corner.turn - 0.1 * distance(corner.at, points[i]!) });
  }
  // Of those within reach of each other the sharpest.
  const corners = found.filter((f) => !found.some((g) => g !== f && Math.abs(g.i - f.i) <= far && (g.sharpness > f.sharpness || (g.sharpness === f.sharpness && g.i < f.i)))); // prettier-ignore
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
