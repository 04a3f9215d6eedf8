import Flatbush from 'flatbush';
import { boxOfPoints } from '../geometry/bounds';
import type { Cubic } from '../geometry/cubic';
import {
  cubicIntersections,
  cubicLineIntersections,
  lineCircleIntersections,
  lineIntersection,
} from '../geometry/intersect';
import { nearestOnCubic } from '../geometry/nearest';
import { add, cross, distance, dot, scale, subtract, unit, type Point } from '../geometry/vector';
import { segmentCount, segmentCubic, segmentIsLine, type Path } from './path';

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

/** Anchors and segments of many paths, laid out so that those near a point are found at once. */
export interface SnapField {
  readonly paths: readonly Path[];
  readonly anchors: Flatbush | null;
  readonly segments: Flatbush | null;
  /** Of each anchor and of each segment: which path, and which of its anchors or segments. */
  readonly anchorAt: Uint32Array;
  readonly segmentAt: Uint32Array;
}

/** Lays out the anchors and segments of paths (flatbush: a packed Hilbert R-tree). */
export function snapField(paths: readonly Path[]): SnapField {
  const anchorCount = paths.reduce((n, p) => n + p.anchors.length, 0);
  const count = paths.reduce((n, p) => n + segmentCount(p), 0);
  const anchorAt = new Uint32Array(anchorCount * 2);
  const segmentAt = new Uint32Array(count * 2);
  const anchors = anchorCount > 0 ? new Flatbush(anchorCount) : null;
  const segments = count > 0 ? new Flatbush(count) : null;
  let a = 0;
  let s = 0;
  paths.forEach((path, p) => {
    path.anchors.forEach((anchor, i) => {
      anchorAt[a++] = p;
      anchorAt[a++] = i;
      anchors!.add(anchor.x, anchor.y, anchor.x, anchor.y);
    });
    for (let i = 0; i < segmentCount(path); i++) {
      segmentAt[s++] = p;
      segmentAt[s++] = i;
      // The curve lies within its control points.
      const box = boxOfPoints(segmentCubic(path, i));
      segments!.add(box.x0, box.y0, box.x1, box.y1);
    }
  });
  anchors?.finish();
  segments?.finish();
  return { paths, anchors, segments, anchorAt, segmentAt };
}

/** The nearest anchor within reach; null when there is none. */
export function nearestAnchor(field: SnapField, p: Point, reach: number): Point | null {
  const [found] = field.anchors?.neighbors(p.x, p.y, 1, reach) ?? [];
  if (found === undefined) return null;
  const a = field.paths[field.anchorAt[found * 2]!]!.anchors[field.anchorAt[found * 2 + 1]!]!;
  return { x: a.x, y: a.y };
}

export interface NearSegment {
  readonly cubic: Cubic;
  readonly point: Point;
  readonly distance: number;
}

/** The nearest point of a straight segment; on a level or upright one exactly so. */
function nearestOnLine(c: Cubic, p: Point): { point: Point; distance: number } {
  const d = subtract(c[3], c[0]);
  const size = dot(d, d);
  const t = size > 0 ? Math.min(1, Math.max(0, dot(subtract(p, c[0]), d) / size)) : 0;
  const point = t === 1 ? c[3] : add(c[0], scale(d, t));
  return { point, distance: distance(point, p) };
}

/** Segments within reach, nearest first, as many as `most`. */
export function nearSegments(field: SnapField, p: Point, reach: number, most = 8): NearSegment[] {
  const ids = field.segments?.search(p.x - reach, p.y - reach, p.x + reach, p.y + reach) ?? [];
  const found: NearSegment[] = [];
  for (const id of ids) {
    const path = field.paths[field.segmentAt[id * 2]!]!;
    const segment = field.segmentAt[id * 2 + 1]!;
    const cubic = segmentCubic(path, segment);
    const n = segmentIsLine(path, segment) ? nearestOnLine(cubic, p) : nearestOnCubic(cubic, p);
    if (n.distance <= reach) found.push({ cubic, point: n.point, distance: n.distance });
  }
  return found.sort((a, b) => a.distance - b.distance).slice(0, most);
}

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
  /** Whether crossings of segments count. */
  readonly crossings: boolean;
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
  if (offer.crossings)
    offer.segments.forEach((a, i) => {
      for (const b of offer.segments.slice(i + 1))
        for (const { point } of cubicIntersections(a.cubic, b.cubic))
          crossings.push(made(point, 'crossings', 'crossing'));
    });
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

/**
 * Faint lines for an anchor to come after `path`: level and upright through its first and last anchors, at a right
 * angle to and in line with its last segment, as long as that, and in line with the last anchor's leaving handle.
 */
export function faintLines(path: Path): SnapLine[] {
  const last = path.anchors.at(-1);
  if (!last) return [];
  const first = path.anchors[0]!;
  const line = (at: Point, along: Point, why: string): SnapLine => ({
    kind: 'lines',
    at: { x: at.x, y: at.y },
    along,
    why,
  });
  const lines = [line(last, { x: 1, y: 0 }, 'level'), line(last, { x: 0, y: 1 }, 'upright')];
  if (path.anchors.length > 1)
    lines.push(
      line(first, { x: 1, y: 0 }, 'level with the first'),
      line(first, { x: 0, y: 1 }, 'upright from the first'),
    );
  const handle = last.out && unit(last.out);
  if (handle) lines.push(line(last, handle, 'in line with the handle'));
  const before = path.anchors.at(-2);
  const segment = before && subtract(last, before);
  const u = segment && unit(segment);
  if (segment && u) {
    const upright = Math.abs(cross(u, { x: 1, y: 0 })) < 1e-9 || Math.abs(dot(u, { x: 1, y: 0 })) < 1e-9;
    if (!upright) lines.push(line(last, { x: -u.y, y: u.x }, 'right angle'));
    if (!upright && !handle) lines.push(line(last, u, 'in line'));
    lines.push({ ...line(last, u, 'equal length'), radius: Math.hypot(segment.x, segment.y) });
  }
  return lines;
}
