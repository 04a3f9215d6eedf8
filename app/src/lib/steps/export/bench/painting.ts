import type { Doubled, Motion, PenStroke, Played, Point } from '@mirrot/core';
import type { View } from '$lib/desk/view';

// What a machine has done up to some place, painted onto a canvas, a piece after another.

/** Colours of the marks on the bench, as CSS has them. */
export interface BenchColours {
  readonly ink: string;
  readonly travel: string;
  readonly doubled: string;
}

/** What is painted, where it lies on the sheet. */
export interface BenchLines {
  /** x and y in turn, sheet pixels, by place. */
  readonly places: Float64Array;
  readonly down: Uint8Array;
  readonly strokes: Int32Array;
  /** What is left on the sheet, by stroke, where that is not what was led: of a trailing knife. */
  readonly cut: readonly (readonly Point[])[] | null;
  readonly doubled: ReadonlyMap<number, readonly (readonly Point[])[]>;
}

/** What is played, put where it lies on the sheet. */
export function benchLines(played: Played, at: (place: Point) => Point): BenchLines {
  const { motion, strokes, left } = played;
  const places = new Float64Array(motion.places.length);
  for (let i = 0; i < places.length; i += 2) {
    const p = at({ x: motion.places[i]!, y: motion.places[i + 1]! });
    places[i] = p.x;
    places[i + 1] = p.y;
  }
  const ring = ({ points, closed }: PenStroke): readonly Point[] =>
    closed ? [...points, points[0]!] : points;
  const doubled = new Map<number, (readonly Point[])[]>();
  for (const { stroke, points } of played.doubled as readonly Doubled[])
    doubled.set(stroke, [...(doubled.get(stroke) ?? []), points.map(at)]);
  return {
    places,
    down: motion.down,
    strokes: motion.strokes,
    cut: left === strokes ? null : left.map((stroke) => ring(stroke).map(at)),
    doubled,
  };
}

/** Where the machine is at a time, sheet pixels: between its last place and the next by the share of the time. */
export function placeBetween(lines: BenchLines, { times }: Motion, index: number, seconds: number): Point {
  const at = (i: number): Point => ({ x: lines.places[2 * i]!, y: lines.places[2 * i + 1]! });
  if (index + 1 >= times.length) return at(times.length - 1);
  const long = times[index + 1]! - times[index]!;
  const share = long > 0 ? Math.min(1, Math.max(0, (seconds - times[index]!) / long)) : 1;
  const [a, b] = [at(index), at(index + 1)];
  return { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) };
}

/** Widths on the screen, pixels. */
const INK_PX = 1.5;
const TRAVEL_PX = 1;
const DOUBLED_PX = 4;

/**
 * Paints what was done from one place to another, after what is painted already.
 *
 * @param from, to places by number, the first smaller
 */
export function paintBench(
  context: CanvasRenderingContext2D,
  lines: BenchLines,
  { scale, tx, ty }: View,
  [from, to]: readonly [number, number],
  { ink, travel, doubled }: BenchColours,
  showsTravel: boolean,
): void {
  const { places, down, strokes, cut } = lines;
  const x = (i: number): number => places[2 * i]! * scale + tx;
  const y = (i: number): number => places[2 * i + 1]! * scale + ty;
  const along = (points: readonly Point[]): void => {
    points.forEach((p, i) => context[i === 0 ? 'moveTo' : 'lineTo'](p.x * scale + tx, p.y * scale + ty));
  };
  context.lineCap = context.lineJoin = 'round';
  const pass = (isDown: 0 | 1, style: string, width: number, dash: readonly number[]): void => {
    context.beginPath();
    context.strokeStyle = style;
    context.lineWidth = width;
    context.setLineDash([...dash]);
    let open = false;
    for (let i = from + 1; i <= to; i++) {
      if (down[i] !== isDown) {
        open = false;
        continue;
      }
      if (!open) context.moveTo(x(i - 1), y(i - 1));
      context.lineTo(x(i), y(i));
      open = true;
    }
    context.stroke();
  };
  if (showsTravel) pass(0, travel, TRAVEL_PX, [2, 4]);
  if (!cut) pass(1, ink, INK_PX, []);
  // Strokes that are whole by now: what a knife left of them, and what of them lies on others.
  for (let i = from + 1; i <= to; i++) {
    const stroke = strokes[i]!;
    if (stroke < 0 || (i + 1 < strokes.length && strokes[i + 1] === stroke)) continue;
    for (const [points, style, width] of [
      ...(lines.doubled.get(stroke) ?? []).map((twice) => [twice, doubled, DOUBLED_PX] as const),
      ...(cut ? [[cut[stroke]!, ink, INK_PX] as const] : []),
    ]) {
      context.beginPath();
      context.strokeStyle = style;
      context.lineWidth = width;
      context.setLineDash([]);
      along(points);
      context.stroke();
    }
  }
}
