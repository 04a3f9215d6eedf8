import { cubicPoint } from '../geometry/cubic';
import { add, dot, length, scale, subtract, unit, type Point } from '../geometry/vector';
import { handleOrNone, withFittingLengths } from './anchor';
import { freezeSegment } from './flow';
import { lineDirection, withHandle } from './handle';
import { segmentCubic, segmentEnds, withAnchor, type Path } from './path';
import type { Anchor, HandleSide } from './anchor';

export interface PullOptions {
  /** Keep both handles' directions and change only their lengths. */
  readonly keepDirections?: boolean;
  /** Leave the smooth neighbours' other handles where they are; those anchors become corners. */
  readonly leaveNeighbours?: boolean;
}

/** What a control point may do: move anywhere, or along one direction only (its length not below 0). */
interface Freedom {
  readonly along: Point | null;
  readonly now: Point;
}

/**
 * Pulls a segment so that it passes through `to` at parameter `t`.
 *
 * Rule: of all changes of the two handles that bring the curve's point at t onto `to`, the one with the least
 * sum of squared movements. With weights b1 = 3(1−t)²t and b2 = 3(1−t)t² and the wanted shift d this is
 * ΔP1 = b1·d/(b1²+b2²), ΔP2 = b2·d/(b1²+b2²), the least-norm solution of the one linear condition.
 * Source: Bartels and Beatty, "A technique for the direct manipulation of spline curves", Graphics Interface '89
 * (from memory). A handle bound to a direction (a smooth anchor that has a handle or a straight segment only on its
 * other side; every handle with `keepDirections`) changes its length alone, and the same least-norm rule is solved
 * under that condition; where two such directions cannot reach `to`, the curve comes as near as they allow.
 * A straight segment starts from handles on its thirds, which draw the same line.
 *
 * Smooth anchors stay smooth: the handle across turns with the pulled one and keeps its length.
 *
 * @param segment index of the segment, which leaves the anchor of the same index
 * @param t where it was taken, 0 < t < 1
 * @param to where that point goes, in the path's coordinates
 * @throws RangeError when the segment does not exist or t lies outside (0, 1)
 */
export function pullSegment(
  path: Path,
  segment: number,
  t: number,
  to: Point,
  options: PullOptions = {},
): Path {
  if (!(t > 0 && t < 1)) throw new RangeError(`A segment is pulled at 0 < t < 1; t was ${t}.`);
  path = freezeSegment(path, segment);
  const [from, end] = segmentEnds(path, segment);
  const last = (segment + 1) % path.anchors.length;
  const c = segmentCubic(path, segment);
  const d = subtract(to, cubicPoint(c, t));
  const b1 = 3 * (1 - t) * (1 - t) * t;
  const b2 = 3 * (1 - t) * t * t;

  const freedom = (anchor: Anchor, index: number, side: HandleSide, control: Point): Freedom => {
    const now = subtract(control, anchor);
    if (options.keepDirections) return { along: unit(now), now };
    if (anchor.kind !== 'smooth' || options.leaveNeighbours) return { along: null, now };
    const across = anchor[side === 'out' ? 'in' : 'out'];
    const line = lineDirection(path, index, side);
    // Nothing on this side yet: grow in line with what arrives. A handle of its own may turn the other.
    const along = line ?? (anchor[side] === null && across ? unit(scale(across, -1)) : null);
    return { along, now: along ? scale(along, Math.max(0, dot(now, along))) : now };
  };
  const first = freedom(from, segment, 'out', c[1]);
  const second = freedom(end, last, 'in', c[2]);
  // Bringing a handle onto its bound direction already moves the point; the rest is what is solved for.
  const moved = add(
    scale(subtract(first.now, subtract(c[1], from)), b1),
    scale(subtract(second.now, subtract(c[2], end)), b2),
  );
  const [h1, h2] = leastChange(first, second, b1, b2, subtract(d, moved));
  const set = (anchor: Anchor, side: HandleSide, handle: Point): Anchor => {
    const none = handleOrNone(handle);
    const wasSmooth = anchor.kind === 'smooth';
    if (wasSmooth && options.leaveNeighbours && anchor[side === 'out' ? 'in' : 'out'])
      return withFittingLengths({ ...anchor, kind: 'corner', [side]: none });
    return withFittingLengths(withHandle(anchor, side, none));
  };
  const pulled = withAnchor(path, segment, set(from, 'out', h1));
  return withAnchor(pulled, last, set(pulled.anchors[last]!, 'in', h2));
}

/** Least-norm handle changes with b1·Δ1 + b2·Δ2 = d, lengths along bound directions not below 0. */
function leastChange(first: Freedom, second: Freedom, b1: number, b2: number, d: Point): [Point, Point] {
  const solve = (f: Freedom, s: Freedom, rest: Point): [Point, Point] => {
    // M = b1² A1A1ᵀ + b2² A2A2ᵀ, where A is the identity for a free handle and its direction for a bound one.
    let xx = 0;
    let xy = 0;
    let yy = 0;
    for (const [w, a] of [
      [b1 * b1, f.along],
      [b2 * b2, s.along],
    ] as const) {
      xx += w * (a ? a.x * a.x : 1);
      xy += w * (a ? a.x * a.y : 0);
      yy += w * (a ? a.y * a.y : 1);
    }
    const multiplier = solveSymmetric(xx, xy, yy, rest);
    const change = (w: number, a: Point | null): Point =>
      a ? scale(a, w * dot(a, multiplier)) : scale(multiplier, w);
    return [add(f.now, change(b1, f.along)), add(s.now, change(b2, s.along))];
  };
  const [h1, h2] = solve(first, second, d);
  const short1 = first.along && dot(h1, first.along) < 0;
  const short2 = second.along && dot(h2, second.along) < 0;
  if (!short1 && !short2) return [h1, h2];
  // One bound handle ran out: it lies in its anchor, the other does what it can alone.
  const none: Point = { x: 0, y: 0 };
  const alone = (f: Freedom, w: number, rest: Point): Point => {
    if (!f.along) return add(f.now, scale(rest, 1 / w));
    const reach = dot(f.now, f.along) + dot(rest, f.along) / w;
    return scale(f.along, Math.max(0, reach));
  };
  if (short1 && (!short2 || length(h1) >= length(h2)))
    return [none, alone(second, b2, add(d, scale(first.now, b1)))];
  return [alone(first, b1, add(d, scale(second.now, b2))), none];
}

/** x of [xx xy; xy yy]·x = r, of least norm where the matrix has rank one. */
function solveSymmetric(xx: number, xy: number, yy: number, r: Point): Point {
  const det = xx * yy - xy * xy;
  const trace = xx + yy;
  if (trace === 0) return { x: 0, y: 0 };
  if (det > 1e-9 * trace * trace) return { x: (yy * r.x - xy * r.y) / det, y: (xx * r.y - xy * r.x) / det };
  const axis = unit(xx >= yy ? { x: xx, y: xy } : { x: xy, y: yy })!;
  return scale(axis, dot(axis, r) / trace);
}
