import { subtract, unit, type Point } from '../geometry/vector';
import type { PenStroke } from '../path/pen-stroke';

// A knife that turns by itself: its edge trails behind the middle it turns about, as a trailer does behind a car.

/** The machine's way is looked at in steps of this share of the offset. */
const STEP_SHARE = 1 / 16;
/** The middle goes round a corner in steps of this, radians: 10°. */
const SWING_STEP = Math.PI / 18;
/** Turns of less, radians, are made on the way: 8°. */
const LEAST_SWING = (8 * Math.PI) / 180;

const wayFrom = (a: Point, b: Point): Point | null => unit(subtract(b, a));
const ahead = (p: Point, way: Point, by: number): Point => ({ x: p.x + by * way.x, y: p.y + by * way.y });

/**
 * What a trailing knife cuts when its middle is led along strokes: the tractrix of each (Huygens 1693), the knife keeping its
 * direction from one to the next.
 *
 * @param offset of the edge behind the middle, millimetres; with 0 the cut is what was led
 * @returns open strokes, of what the edge does
 */
export function trailOf(strokes: readonly PenStroke[], offset: number): PenStroke[] {
  if (!(offset > 0)) return [...strokes];
  let way: Point = { x: 1, y: 0 };
  return strokes.map((stroke) => {
    const led = stroke.closed ? [...stroke.points, stroke.points[0]!] : stroke.points;
    let edge = ahead(led[0]!, way, -offset);
    const points = [edge];
    for (let i = 1; i < led.length; i++) {
      const [from, to] = [led[i - 1]!, led[i]!];
      const length = Math.hypot(to.x - from.x, to.y - from.y);
      const steps = Math.max(1, Math.ceil(length / (offset * STEP_SHARE)));
      for (let k = 1; k <= steps; k++) {
        const middle = {
          x: from.x + ((to.x - from.x) * k) / steps,
          y: from.y + ((to.y - from.y) * k) / steps,
        };
        way = wayFrom(edge, middle) ?? way;
        edge = ahead(middle, way, -offset);
        // It turns where it stands for as long as the middle swings about it.
        const last = points.at(-1)!;
        if (Math.hypot(edge.x - last.x, edge.y - last.y) > offset * 1e-6) points.push(edge);
      }
    }
    if (points.length === 1) points.push(edge);
    return { pen: stroke.pen, closed: false, points };
  });
}

/**
 * Leads a trailing knife so that its edge cuts strokes as they are: its middle goes ahead by the offset, swings about each
 * corner, and where a stroke is closed goes on over its beginning by as much, so that it comes off whole.
 *
 * @param offset of the edge behind the middle, millimetres; with 0 nothing is changed
 * @returns open strokes for the middle, in the order of those given
 */
export function leadBlade(strokes: readonly PenStroke[], offset: number): PenStroke[] {
  if (!(offset > 0)) return [...strokes];
  let way: Point = { x: 1, y: 0 };
  return strokes.map((stroke) => {
    const line = stroke.closed ? [...stroke.points, stroke.points[0]!] : stroke.points;
    const points: Point[] = [ahead(line[0]!, way, offset)];
    const swingTo = (about: Point, next: Point): void => {
      const from = Math.atan2(way.y, way.x);
      const turn = Math.atan2(way.x * next.y - way.y * next.x, way.x * next.x + way.y * next.y);
      const steps = Math.abs(turn) < LEAST_SWING ? 1 : Math.ceil(Math.abs(turn) / SWING_STEP);
      for (let k = 1; k <= steps; k++) {
        const angle = from + (turn * k) / steps;
        points.push(ahead(about, { x: Math.cos(angle), y: Math.sin(angle) }, offset));
      }
      way = next;
    };
    const along = (a: Point, b: Point): void => {
      const next = wayFrom(a, b);
      if (!next) return;
      swingTo(a, next);
      points.push(ahead(b, next, offset));
    };
    for (let i = 1; i < line.length; i++) along(line[i - 1]!, line[i]!);
    if (stroke.closed) {
      let over = offset;
      for (let i = 1; i < line.length && over > 0; i++) {
        const [a, b] = [line[i - 1]!, line[i]!];
        const length = Math.hypot(b.x - a.x, b.y - a.y);
        const next = wayFrom(a, b);
        if (next) along(a, ahead(a, next, Math.min(length, over)));
        over -= length;
      }
    }
    return { pen: stroke.pen, closed: false, points };
  });
}
