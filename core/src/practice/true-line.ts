import { toRadians } from '../geometry/angle';
import { cubicLength, cubicPoint, cubicTangent } from '../geometry/cubic';
import { cross, distance, dot, subtract, unit, type Point } from '../geometry/vector';
import { pathCubics, type Path } from '../path/path';

/** A line of a truth as places along it. */
export interface TrueLine {
  readonly points: readonly Point[];
  readonly closed: boolean;
  /** Its anchors, and those of them where it turns sharply, by index. */
  readonly anchors: readonly number[];
  readonly corners: readonly number[];
}

/** Places along a truth, pixels apart at most. */
const APART_PX = 2;
/** A truth turns sharply where its directions differ by more. */
const SHARP = toRadians(25);

/** How much a way turns from one direction to another, radians, to the right on screen above 0. */
export const turnOf = (a: Point, b: Point): number => Math.atan2(cross(a, b), dot(a, b));

export function trueLine(path: Path): TrueLine {
  const cubics = pathCubics(path);
  const points: Point[] = [];
  const anchors: number[] = [];
  const corners: number[] = [];
  cubics.forEach((c, i) => {
    anchors.push(points.length);
    const before = cubics[i - 1] ?? (path.closed ? cubics.at(-1) : undefined);
    if (before && Math.abs(turnOf(cubicTangent(before, 1), cubicTangent(c, 0))) > SHARP)
      corners.push(points.length);
    const n = Math.max(1, Math.ceil(cubicLength(c) / APART_PX));
    for (let k = 0; k < n; k++) points.push(cubicPoint(c, k / n));
  });
  if (!path.closed && cubics.length > 0) points.push(cubicPoint(cubics.at(-1)!, 1));
  return { points, closed: path.closed, anchors, corners };
}

/** The place of a line nearest to a point, by index. */
export function nearestPlace({ points }: TrueLine, p: Point): number {
  let best = 0;
  points.forEach((q, i) => {
    if (distance(q, p) < distance(points[best]!, p)) best = i;
  });
  return best;
}

/** Places of a line from one to another: the way round that leads nearer by a point. */
export function stretchOf(
  { points, closed }: TrueLine,
  from: number,
  to: number,
  by: Point,
): readonly number[] {
  const n = points.length;
  const way = (step: 1 | -1): number[] => {
    const out = [from];
    for (let i = from; i !== to && out.length <= n;) out.push((i = (((i + step) % n) + n) % n));
    return out;
  };
  if (!closed) return way(from <= to ? 1 : -1);
  const [ahead, back] = [way(1), way(-1)];
  const off = (list: readonly number[]): number => Math.min(...list.map((i) => distance(points[i]!, by)));
  const [a, b] = [off(ahead), off(back)];
  return a === b ? (ahead.length <= back.length ? ahead : back) : a < b ? ahead : back;
}

/** Steps over which a line's turning is told: shorter ones tell of rounding. */
const TURNED_OVER = 4;

/** How much a stretch turns to the right and to the left in all, radians, corners left out. */
export function bendOf(points: readonly Point[]): { readonly right: number; readonly left: number } {
  let [right, left] = [0, 0];
  for (let i = TURNED_OVER; i + TURNED_OVER < points.length; i += TURNED_OVER) {
    const a = unit(subtract(points[i]!, points[i - TURNED_OVER]!));
    const b = unit(subtract(points[i + TURNED_OVER]!, points[i]!));
    if (!a || !b) continue;
    const turn = turnOf(a, b);
    if (Math.abs(turn) > SHARP) continue;
    if (turn > 0) right += turn;
    else left -= turn;
  }
  return { right, left };
}
