import {
  cubicCurvature,
  cubicPoint,
  cubicTangent,
  isStraight,
  lineCubic,
  splitCubic,
  type Cubic,
} from '../geometry/cubic';
import { footNear } from '../geometry/nearest';
import { add, distance, negate, scale, subtract, unit, type Point } from '../geometry/vector';
import { fitCubic } from './fit';

// Curves beside a curve, at the same distance all along.

/** Left of a direction of travel, seen with y down. */
export const leftOf = (direction: Point): Point => ({ x: direction.y, y: -direction.x });

/** Direction of travel, of length 1; one that stands still goes right. */
export const heading = (c: Cubic, t: number): Point => unit(cubicTangent(c, t)) ?? { x: 1, y: 0 };

/** Places between the ends at which it is looked how far a curve lies from where it should. */
const ERROR_PLACES = 24;
const MOST_SPLITS = 8;
const FITTED_POINTS = 20;

/** The farthest that places of the true offset lie from a curve that stands for it. */
function farthest(c: Cubic, off: Cubic, by: number): number {
  let worst = 0;
  for (let k = 1; k < ERROR_PLACES; k++) {
    const t = k / ERROR_PLACES;
    const p = add(cubicPoint(c, t), scale(leftOf(heading(c, t)), by));
    worst = Math.max(worst, distance(p, cubicPoint(off, footNear(off, p, t, 8))));
  }
  return worst;
}

/**
 * The curve beside a cubic, as few cubics as hold it. Straight lines and circular arcs as four cubics make them stay exact:
 * handles are first tried in proportion to the chord (Tiller and Hanson, "Offsets of two-dimensional profiles", 1984), then
 * fitted.
 *
 * @param by how far to the left of travel, in the curve's unit; to the right below 0. Where the curve bends more tightly than
 *   that to the same side, the offset turns back: cut there first (`bendParameters`)
 * @param tolerance how far it may lie from the true offset
 * @param start, end unit directions of travel at the ends, where they are better known than from the curve
 */
export function offsetCubic(
  c: Cubic,
  by: number,
  tolerance: number,
  start: Point = heading(c, 0),
  end: Point = heading(c, 1),
  depth = 0,
): Cubic[] {
  const from = add(c[0], scale(leftOf(start), by));
  const to = add(c[3], scale(leftOf(end), by));
  if (isStraight(c)) return [lineCubic(from, to)];
  const chord = distance(c[0], c[3]);
  const ratio = chord > 0 ? distance(from, to) / chord : 1;
  const scaled: Cubic = [
    from,
    add(from, scale(start, ratio * distance(c[0], c[1]))),
    subtract(to, scale(end, ratio * distance(c[2], c[3]))),
    to,
  ];
  if (farthest(c, scaled, by) <= tolerance) return [scaled];
  const points = Array.from({ length: FITTED_POINTS + 1 }, (_, k) => {
    const t = k / FITTED_POINTS;
    return k === 0
      ? from
      : k === FITTED_POINTS
        ? to
        : add(cubicPoint(c, t), scale(leftOf(heading(c, t)), by));
  });
  // Where the offset runs against the curve its ends lead the other way.
  const backward = (points[1]!.x - from.x) * start.x + (points[1]!.y - from.y) * start.y < 0;
  const fitted = fitCubic(points, backward ? negate(start) : start, backward ? end : negate(end));
  if (farthest(c, fitted, by) <= tolerance || depth >= MOST_SPLITS) return [fitted];
  const [one, other] = splitCubic(c, 0.5);
  const middle = heading(c, 0.5);
  return [
    ...offsetCubic(one, by, tolerance, start, middle, depth + 1),
    ...offsetCubic(other, by, tolerance, middle, end, depth + 1),
  ];
}

/** Places at which a curve's bend is looked at. */
const BEND_PLACES = 64;
const BISECTIONS = 50;

/** Parameters, rising, at which a cubic bends just as tightly as a circle of a radius does, to either side. */
export function bendParameters(c: Cubic, radius: number): number[] {
  const over = (t: number): number => Math.abs(cubicCurvature(c, t)) * radius - 1;
  const out: number[] = [];
  for (let k = 0; k < BEND_PLACES; k++) {
    let [low, high] = [k / BEND_PLACES, (k + 1) / BEND_PLACES];
    if (over(low) > 0 === over(high) > 0) continue;
    const begun = over(low) > 0;
    for (let i = 0; i < BISECTIONS; i++) {
      const middle = (low + high) / 2;
      if (over(middle) > 0 === begun) low = middle;
      else high = middle;
    }
    const t = (low + high) / 2;
    if (t > 0 && t < 1) out.push(t);
  }
  return out;
}
