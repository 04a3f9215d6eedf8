import { cubicLineIntersections, lineCircleIntersections, lineIntersection } from '../geometry/intersect';
import { add, distance, dot, scale, subtract, unit, type Point } from '../geometry/vector';
import type { NearSegment } from './snap-field';

export const SNAP_KINDS = [
  'anchors',
  'segments',
  'crossings',
  'guides',
  'lines',
  'sheet',
  'edge',
  'grid',
] as const;
export type SnapKind = (typeof SNAP_KINDS)[number];

/** A point that attracts, and why. */
export interface SnapSpot {
  readonly kind: SnapKind;
  readonly at: Point;
  readonly why: string;
}

/** A line (with no radius) or a circle that attracts. A faint one does so from half as far. */
export interface SnapLine {
  readonly kind: SnapKind;
  readonly at: Point;
  /** Unit direction of a line; not read for a circle. */
  readonly along: Point;
  readonly radius?: number;
  readonly why: string;
}

/** What attracts near a pointer. */
export interface SnapOffer {
  readonly spots: readonly SnapSpot[];
  readonly lines: readonly SnapLine[];
  readonly segments: readonly NearSegment[];
  /** Where segments cross; worked out only when nothing stronger is near, null where that does not count. */
  readonly crossings: (() => readonly Point[]) | null;
  /** Whether a segment by itself attracts. */
  readonly onSegments: boolean;
  /** Worked out only when nothing stronger is near. */
  readonly edge: (() => Point | null) | null;
  readonly grid: number | null;
}

export interface Snapped {
  readonly at: Point;
  readonly kind: SnapKind;
  readonly why: string;
  /** Faint lines to show. */
  readonly lines: readonly SnapLine[];
}

/** Faint lines attract from this share of the reach. */
const FAINT = 0.5;

const onLine = (line: SnapLine, p: Point): Point | null => {
  if (line.radius === undefined)
    return add(line.at, scale(line.along, dot(subtract(p, line.at), line.along)));
  const u = unit(subtract(p, line.at));
  return u && add(line.at, scale(u, line.radius));
};

function meeting(a: SnapLine, b: SnapLine): Point[] {
  if (a.radius !== undefined && b.radius !== undefined) return [];
  if (a.radius !== undefined) return meeting(b, a);
  if (b.radius !== undefined) return lineCircleIntersections(a.at, a.along, b.at, b.radius);
  const p = lineIntersection(a.at, a.along, b.at, b.along);
  return p ? [p] : [];
}

interface Candidate extends Snapped {
  readonly far: number;
}
const nearest = (list: readonly Candidate[]): Candidate | null =>
  list.length > 0 ? list.reduce((a, b) => (b.far < a.far ? b : a)) : null;

/**
 * Where a point goes that is near something: to the nearest spot; else to a crossing of two things; else onto a
 * segment, guide or side of the sheet; else onto a faint line, the picture's edge, the grid. Each only within reach.
 *
 * @param reach in the unit of the points
 * @returns null when nothing attracts
 */
export function snapPoint(p: Point, reach: number, offer: SnapOffer): Snapped | null {
  const made = (at: Point, kind: SnapKind, why: string, lines: readonly SnapLine[] = []): Candidate => ({
    at,
    kind,
    why,
    lines,
    far: distance(at, p),
  });
  const within = (c: Candidate): boolean => c.far <= reach;
  const spot = nearest(offer.spots.map((s) => made(s.at, s.kind, s.why)).filter(within));
  if (spot) return spot;

  const faint = (l: SnapLine): boolean => l.kind === 'lines';
  const near = offer.lines.flatMap((line) => {
    const at = onLine(line, p);
    const far = at ? distance(at, p) : Infinity;
    return at && far <= reach * (faint(line) ? FAINT : 1) ? [{ line, at }] : [];
  });
  const shown = (...lines: SnapLine[]): SnapLine[] => lines.filter(faint);
  const crossings: Candidate[] = [];
  near.forEach(({ line: a }, i) => {
    for (const { line: b } of near.slice(i + 1))
      for (const at of meeting(a, b))
        crossings.push(made(at, faint(a) ? b.kind : a.kind, `${a.why}, ${b.why}`, shown(a, b)));
    if (a.radius === undefined && offer.onSegments)
      for (const s of offer.segments)
        for (const { point } of cubicLineIntersections(s.cubic, a.at, a.along))
          crossings.push(made(point, 'segments', `segment, ${a.why}`, shown(a)));
  });
  for (const at of offer.crossings?.() ?? []) crossings.push(made(at, 'crossings', 'crossing'));
  const crossing = nearest(crossings.filter(within));
  if (crossing) return crossing;

  const firm = near.filter(({ line }) => !faint(line)).map(({ line, at }) => made(at, line.kind, line.why));
  if (offer.onSegments) firm.push(...offer.segments.map((s) => made(s.point, 'segments', 'segment')));
  const onto = nearest(firm.filter(within));
  if (onto) return onto;
  const edge = offer.edge?.();
  if (edge && distance(edge, p) <= reach) return made(edge, 'edge', 'edge of the picture');
  const soft = nearest(
    near.filter(({ line }) => faint(line)).map(({ line, at }) => made(at, 'lines', line.why, [line])),
  );
  if (soft) return soft;
  if (offer.grid) {
    const g = offer.grid;
    const at = { x: Math.round(p.x / g) * g, y: Math.round(p.y / g) * g };
    const c = made(at, 'grid', 'grid');
    if (within(c)) return c;
  }
  return null;
}
