import type { Point } from '../geometry/vector';
import type { PenStroke } from '../path/pen-stroke';

/** What drawing some strokes in their order comes to. */
export interface PlotWay {
  /** Drawn with the pen down, millimetres. */
  readonly drawn: number;
  /** Travelled with the pen up, from the origin, millimetres. */
  readonly travel: number;
  /** How often the pen is put down. */
  readonly lifts: number;
}

/** How much is drawn, and how much lies between. A stroke that begins where the last one ended needs no lift. */
export function plotWay(strokes: readonly PenStroke[], start: Point = { x: 0, y: 0 }): PlotWay {
  let [drawn, travel, lifts] = [0, 0, 0];
  let [at, pen] = [start, 0];
  for (const stroke of strokes) {
    const points = stroke.closed ? [...stroke.points, stroke.points[0]!] : stroke.points;
    const way = Math.hypot(points[0]!.x - at.x, points[0]!.y - at.y);
    travel += way;
    if (way > 0 || lifts === 0 || stroke.pen !== pen) lifts++;
    for (let i = 1; i < points.length; i++)
      drawn += Math.hypot(points[i]!.x - points[i - 1]!.x, points[i]!.y - points[i - 1]!.y);
    at = points.at(-1)!;
    pen = stroke.pen;
  }
  return { drawn, travel, lifts };
}
