import { boxOfPoints, EMPTY_BOX, uniteBoxes, type Box } from '../geometry/bounds';
import { cubicExtrema, cubicPoint, type Cubic } from '../geometry/cubic';
import { add, cross, dot, negate, scale, type Point } from '../geometry/vector';
import { heading } from './offset';
import { pathCubics, type Path } from './path';

/** What of a stroke decides how far it reaches. */
export interface StrokeForm {
  /** Same units as the path. */
  readonly width: number;
  readonly ends: 'butt' | 'round' | 'square';
  readonly joins: 'miter' | 'round' | 'bevel';
  /** Of half widths: a tip farther away is cut off. */
  readonly miterLimit: number;
}

const AXES: readonly Point[] = [{ x: 1, y: 0 }, { x: 0, y: 1 }, { x: -1, y: 0 }, { x: 0, y: -1 }]; // prettier-ignore

const normal = (t: Point): Point => ({ x: -t.y, y: t.x });

/** The points of a circle about `at` that lie farthest along the axes, within the arc between two directions. */
const arcPoints = (at: Point, radius: number, from: Point, to: Point): Point[] =>
  AXES.filter(
    (d) =>
      cross(from, d) * cross(from, to) >= 0 &&
      cross(d, to) * cross(from, to) >= 0 &&
      dot(add(from, to), d) > 0,
  ) // prettier-ignore
    .map((d) => add(at, scale(d, radius)));

/** Points that bound a stroke where a segment arrives along `arriving` and the next leaves along `leaving`, both unit. */
export function joinPoints(
  at: Point,
  arriving: Point,
  leaving: Point,
  { width, joins, miterLimit }: StrokeForm,
): Point[] {
  const turn = cross(arriving, leaving);
  const radius = width / 2;
  // The outer side of a turn lies away from where the path goes on.
  const side = turn > 0 ? -1 : 1;
  const [from, to] = [scale(normal(arriving), side), scale(normal(leaving), side)];
  if (joins === 'round') {
    // Back the way it came: a half circle about the end.
    if (Math.abs(turn) < 1e-12)
      return dot(arriving, leaving) < 0 ? endPoints(at, arriving, radius, 'round') : [];
    return arcPoints(at, radius, from, to);
  }
  if (joins === 'bevel') return [];
  // SVG 2, 13.5.6: the length of a miter is 1 / sin(θ / 2) widths, θ the angle between the segments.
  const half = Math.sqrt(Math.max(0, (1 + dot(from, to)) / 2));
  if (half === 0 || 1 / half > miterLimit) return [];
  return [add(at, scale(add(from, to), radius / (2 * half * half)))];
}

/** Points that bound a stroke's end at `at`; `outward` points away from the path, unit. */
function endPoints(at: Point, outward: Point, radius: number, ends: StrokeForm['ends']): Point[] {
  if (ends === 'round') return AXES.filter((d) => dot(d, outward) >= 0).map((d) => add(at, scale(d, radius)));
  if (ends === 'butt') return [];
  const tip = add(at, scale(outward, radius));
  const across = scale(normal(outward), radius);
  return [add(tip, across), add(tip, negate(across))];
}

/** Points that bound the two lines beside a cubic: they lie beside its ends and beside where it turns back. */
function besidePoints(cubic: Cubic, radius: number): Point[] {
  return [0, ...cubicExtrema(cubic), 1].flatMap((t) => {
    const at = cubicPoint(cubic, t);
    const across = scale(normal(heading(cubic, t)), radius);
    return [add(at, across), add(at, negate(across))];
  });
}

/**
 * Bounds of what a stroke paints, whole: as if it had no dashes. Exact but for cusps within a segment.
 *
 * @returns units of the path; `EMPTY_BOX` for a path without anchors. A path of no length is a dot with round and square
 *   ends, and with others nothing but its place.
 */
export function strokeBounds(path: Path, stroke: StrokeForm): Box {
  const radius = stroke.width / 2;
  const cubics = pathCubics(path).filter(([a, b, c, d]) => [b, c, d].some((p) => p.x !== a.x || p.y !== a.y));
  const [first, last] = [cubics[0], cubics.at(-1)];
  if (!first || !last) {
    const dot = path.anchors.flatMap((at) =>
      stroke.ends === 'butt' ? [at] : AXES.map((d) => add(at, scale(d, radius))),
    );
    return path.anchors.length > 0 ? boxOfPoints(dot) : EMPTY_BOX;
  }
  const joints = cubics.flatMap((cubic, i) => {
    const next = cubics[i + 1] ?? (path.closed ? first : null);
    return next ? joinPoints(cubic[3], heading(cubic, 1), heading(next, 0), stroke) : [];
  });
  const ends = path.closed
    ? []
    : [
        ...endPoints(first[0], negate(heading(first, 0)), radius, stroke.ends),
        ...endPoints(last[3], heading(last, 1), radius, stroke.ends),
      ];
  return uniteBoxes(
    boxOfPoints(cubics.flatMap((c) => besidePoints(c, radius))),
    boxOfPoints([...joints, ...ends]),
  );
}
