import Flatbush from 'flatbush';
import { boxOfPoints } from '../geometry/bounds';
import type { Cubic } from '../geometry/cubic';
import { cubicIntersections } from '../geometry/intersect';
import { nearestOnCubic } from '../geometry/nearest';
import { add, distance, dot, scale, subtract, type Point } from '../geometry/vector';
import { segmentCount, segmentCubic, segmentIsLine, type Path } from './path';

/** Anchors and segments of many paths, laid out so that those near a point are found at once. */
export interface SnapField {
  readonly paths: readonly Path[];
  readonly anchors: Flatbush | null;
  readonly segments: Flatbush | null;
  /** Of each anchor and of each segment: which path, and which of its anchors or segments. */
  readonly anchorAt: Uint32Array;
  readonly segmentAt: Uint32Array;
  /** Where two segments cross, by both, once that was asked for: outlines that share a border take long. */
  readonly crossings: Map<string, readonly Point[]>;
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
  return { paths, anchors, segments, anchorAt, segmentAt, crossings: new Map() };
}

/** The nearest anchor within reach; null when there is none. */
export function nearestAnchor(field: SnapField, p: Point, reach: number): Point | null {
  const [found] = field.anchors?.neighbors(p.x, p.y, 1, reach) ?? [];
  if (found === undefined) return null;
  const a = field.paths[field.anchorAt[found * 2]!]!.anchors[field.anchorAt[found * 2 + 1]!]!;
  return { x: a.x, y: a.y };
}

export interface NearSegment {
  /** Its number in the field. */
  readonly id: number;
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
    if (n.distance <= reach) found.push({ id, cubic, point: n.point, distance: n.distance });
  }
  return found.sort((a, b) => a.distance - b.distance).slice(0, most);
}

/** Where segments of a field cross each other. */
export function crossingsOf({ crossings }: SnapField, segments: readonly NearSegment[]): Point[] {
  const ordered = segments.toSorted((a, b) => a.id - b.id);
  return ordered.flatMap((a, i) =>
    ordered.slice(i + 1).flatMap((b) => {
      const key = `${a.id} ${b.id}`;
      let points = crossings.get(key);
      if (!points) crossings.set(key, (points = cubicIntersections(a.cubic, b.cubic).map(({ point }) => point))); // prettier-ignore
      return points;
    }),
  );
}
