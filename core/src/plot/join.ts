import type { PenStroke } from '../path/pen-stroke';

/**
 * Strokes that follow one another without a lift where one begins within a distance of the end of the last, with the same pen.
 *
 * @param within millimetres: what the width of the line hides; with 0 only what meets exactly
 */
export function joinStrokes(strokes: readonly PenStroke[], within: number): PenStroke[] {
  const out: PenStroke[] = [];
  for (const stroke of strokes) {
    const last = out.at(-1);
    const [end, first] = [last?.points.at(-1), stroke.points[0]!];
    const gap = last && !last.closed && !stroke.closed && last.pen === stroke.pen ? Math.hypot(first.x - end!.x, first.y - end!.y) : Infinity; // prettier-ignore
    if (gap > within) out.push(stroke);
    else out[out.length - 1] = { ...last!, points: [...last!.points, ...(gap === 0 ? stroke.points.slice(1) : stroke.points)] }; // prettier-ignore
  }
  return out;
}
