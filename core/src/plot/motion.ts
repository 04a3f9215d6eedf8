import type { Point } from '../geometry/vector';
import type { PenStroke } from '../path/pen-stroke';
import type { Machine } from './machine';

// How long a machine takes, and where it is when: it speeds up and slows down evenly, stops where the pen is put down or
// lifted, and goes round a corner as fast as its deviation allows.
// Sources: uniform acceleration (any textbook of mechanics); the speed at a junction as Sungeun K. Jeon described it for
// motion control of small machines (2011), from memory.

/** How far a machine may round a corner off in thought to go through it without stopping, millimetres. */
const CORNER_DEVIATION_MM = 0.02;

/** Places that a machine comes through, in order of time. */
export interface Motion {
  /** x and y in turn, millimetres. */
  readonly places: Float64Array;
  /** When it is there, seconds from the start. */
  readonly times: Float64Array;
  /** Whether it came there with the pen down: 1, else 0. */
  readonly down: Uint8Array;
  /** Which stroke it came there for, by number. */
  readonly strokes: Int32Array;
}

/** The time over a length with evenly changing speed between its ends' speeds and the highest. */
function timeOver(
  length: number,
  from: number,
  to: number,
  { speed, acceleration: a }: Pick<Machine, 'speed' | 'acceleration'>,
): number {
  if (!(length > 0)) return 0;
  const peak = Math.min(speed, Math.sqrt((2 * a * length + from ** 2 + to ** 2) / 2));
  const even = Math.max(0, length - (2 * peak ** 2 - from ** 2 - to ** 2) / (2 * a));
  return (2 * peak - from - to) / a + even / peak;
}

/** The fastest that a machine goes round a corner, from the directions before and after it. */
function cornerSpeed(before: Point, after: Point, { speed, acceleration }: Machine): number {
  // Half the angle between the two sides: 90° where it goes straight on, 0 where it turns back.
  const cosine = -(before.x * after.x + before.y * after.y);
  const sine = Math.sqrt(Math.max(0, (1 - cosine) / 2));
  if (sine >= 1 - 1e-9) return speed;
  return Math.min(speed, Math.sqrt((acceleration * CORNER_DEVIATION_MM * sine) / (1 - sine)));
}

/** Seconds from place to place along a line, begun and ended at rest. */
function timesAlong(points: readonly Point[], machine: Machine): number[] {
  const n = points.length - 1;
  const lengths = Array.from({ length: n }, (_, i) => Math.hypot(points[i + 1]!.x - points[i]!.x, points[i + 1]!.y - points[i]!.y)); // prettier-ignore
  const speeds = new Float64Array(n + 1);
  let before: Point | null = null;
  for (let i = 0; i < n; i++) {
    if (lengths[i]! === 0) {
      speeds[i] = i === 0 ? 0 : speeds[i - 1]!;
      continue;
    }
    const way = { x: (points[i + 1]!.x - points[i]!.x) / lengths[i]!, y: (points[i + 1]!.y - points[i]!.y) / lengths[i]! }; // prettier-ignore
    speeds[i] = before ? cornerSpeed(before, way, machine) : 0;
    before = way;
  }
  // No faster than can be slowed down from, nor than was sped up to.
  for (let i = n - 1; i >= 0; i--) speeds[i] = Math.min(speeds[i]!, Math.sqrt(speeds[i + 1]! ** 2 + 2 * machine.acceleration * lengths[i]!)); // prettier-ignore
  for (let i = 0; i < n; i++) speeds[i + 1] = Math.min(speeds[i + 1]!, Math.sqrt(speeds[i]! ** 2 + 2 * machine.acceleration * lengths[i]!)); // prettier-ignore
  return lengths.map((length, i) => timeOver(length, speeds[i]!, speeds[i + 1]!, machine));
}

/**
 * How a machine moves along strokes in their order: to each with the pen up, along it with the pen down, the pen lifted and
 * put down between. Where a stroke begins at the end of the last one with the same pen, it stays down.
 *
 * @param strokes millimetres, as they were read from a file
 */
export function motionAlong(strokes: readonly PenStroke[], machine: Machine): Motion {
  const places: number[] = [0, 0];
  const times: number[] = [0];
  const down: number[] = [0];
  const owners: number[] = [-1];
  let now = 0;
  let at: Point = { x: 0, y: 0 };
  let pen = 0;
  const come = (p: Point, after: number, isDown: boolean, stroke: number): void => {
    now += after;
    places.push(p.x, p.y);
    times.push(now);
    down.push(isDown ? 1 : 0);
    owners.push(stroke);
    at = p;
  };
  strokes.forEach((stroke, s) => {
    const points = stroke.closed ? [...stroke.points, stroke.points[0]!] : stroke.points;
    const [first] = points;
    const away = Math.hypot(first!.x - at.x, first!.y - at.y);
    if (away > 0 || pen !== stroke.pen) {
      const [way] = timesAlong([at, first!], { ...machine, speed: machine.travelSpeed });
      come(first!, way! + machine.liftTime, false, s);
    }
    pen = stroke.pen;
    timesAlong(points, machine).forEach((time, i) => come(points[i + 1]!, time, true, s));
  });
  return {
    places: Float64Array.from(places),
    times: Float64Array.from(times),
    down: Uint8Array.from(down),
    strokes: Int32Array.from(owners),
  };
}

/** How many places a machine has come through at a time: the last of them by number. */
export function placeAt({ times }: Motion, seconds: number): number {
  let [low, high] = [0, times.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (times[middle]! <= seconds) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Where places come thicker than a machine takes them. */
export interface Crowding {
  /** The middle of where it is so, millimetres. */
  readonly at: Point;
  /** Places to the second there. */
  readonly rate: number;
}

/** Places are counted over so long, seconds: machines keep some of them in store. */
const COUNTED_OVER_S = 0.25;

/**
 * Where a file asks for more places a second than a machine takes, so that it stutters or stands still with its pen down.
 *
 * @param most places to the second
 * @returns one for each stretch of time in which it is so, in order
 */
export function crowdedPlaces({ places, times, down }: Motion, most: number): Crowding[] {
  const found: Crowding[] = [];
  const limit = most * COUNTED_OVER_S;
  let from = 0;
  let worst: Crowding | null = null;
  let until = -Infinity;
  for (let i = 1; i < times.length; i++) {
    if (!down[i]) {
      from = i;
      continue;
    }
    while (times[i]! - times[from]! > COUNTED_OVER_S) from++;
    const count = i - from;
    if (count <= limit) continue;
    const middle = (i + from) >> 1;
    const here = { at: { x: places[2 * middle]!, y: places[2 * middle + 1]! }, rate: count / COUNTED_OVER_S };
    if (worst && times[from]! <= until) {
      if (here.rate > worst.rate) found[found.length - 1] = worst = here;
    } else found.push((worst = here));
    until = times[i]!;
  }
  return found;
}
