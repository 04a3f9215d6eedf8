import Flatbush from 'flatbush';
import polylabel from 'polylabel';
import { boxOfPoints } from '../geometry/bounds';
import { nearestOnCubic } from '../geometry/nearest';
import { distance, dot, subtract, unit, type Point } from '../geometry/vector';
import { arrange, type Arrangement } from './arrangement';
import { piecesAlong } from './combine';
import { facesOf } from './faces';
import { corner } from './anchor';
import { tangentAt, type Path } from './path';
import { flattenPath, pathBounds } from './path-measure';

// Areas that lines enclose, whichever lines they are: what Pour fills.

/** An area that lines enclose and none of them divides. */
export interface EnclosedArea {
  /** Its outline first, then the outlines of islands in it; inside by the even-odd rule. */
  readonly paths: readonly Path[];
  /** Which lines border it, by number. */
  readonly lines: readonly number[];
  /** Which gaps had to be bridged for it, by number. */
  readonly bridges: readonly number[];
}

/** A gap between the end of a line and another line. */
export interface Bridge {
  readonly from: Point;
  readonly to: Point;
}

export interface Enclosed {
  readonly areas: readonly EnclosedArea[];
  readonly bridges: readonly Bridge[];
}

/** An end of a line where no other line is. */
interface LooseEnd {
  readonly line: number;
  readonly at: Point;
  /** Unit direction in which the line would go on. */
  readonly ahead: Point;
}

/** How far behind an end, as the cosine of the angle to where its line would go on, another end may lie and be bridged to. */
const BEHIND = -0.2;
/** How far ahead a place on a line has to lie. */
const AHEAD = 0.1;

function looseEnds({ members, stretches, vertices }: Arrangement): LooseEnd[] {
  const degree = new Map<number, number>();
  for (const { start, end } of stretches)
    for (const vertex of [start, end]) degree.set(vertex, (degree.get(vertex) ?? 0) + 1);
  const placeOf = ({ x, y }: Point): string => `${x} ${y}`;
  const alone = new Set(vertices.flatMap((p, i) => (degree.get(i) === 1 ? [placeOf(p)] : [])));
  return members.flatMap(([path], line): LooseEnd[] => {
    if (!path || path.closed || path.anchors.length < 2) return [];
    const last = path.anchors.length - 1;
    return (
      [
        [0, 'out', -1],
        [last, 'in', 1],
      ] as const
    ).flatMap(([i, side, sign]): LooseEnd[] => {
      const { x, y } = path.anchors[i]!;
      const tangent = unit(tangentAt(path, i, side) ?? { x: 0, y: 0 });
      return alone.has(placeOf({ x, y })) && tangent
        ? [{ line, at: { x, y }, ahead: { x: sign * tangent.x, y: sign * tangent.y } }]
        : [];
    });
  });
}

/** Bridges from loose ends to the nearest other end within a gap, or else to the nearest line that lies ahead. */
function bridgesAcross(arrangement: Arrangement, gap: number): Bridge[] {
  const ends = looseEnds(arrangement);
  const out: Bridge[] = [];
  const joined = new Set<LooseEnd>();
  const wayTo = (end: LooseEnd, to: Point): number => dot(unit(subtract(to, end.at)) ?? end.ahead, end.ahead);
  if (ends.length === 0) return out;
  const near = new Flatbush(ends.length);
  for (const { at } of ends) near.add(at.x, at.y, at.x, at.y);
  near.finish();
  const pairs = ends
    .flatMap((a, i) =>
      near
        .search(a.at.x - gap, a.at.y - gap, a.at.x + gap, a.at.y + gap)
        .flatMap((k) => (k > i ? [{ a, b: ends[k]!, far: distance(a.at, ends[k]!.at) }] : [])),
    )
    .filter(({ a, b, far }) => far > 0 && far <= gap && wayTo(a, b.at) > BEHIND && wayTo(b, a.at) > BEHIND)
    .sort((one, other) => one.far - other.far);
  for (const { a, b } of pairs) {
    if (joined.has(a) || joined.has(b)) continue;
    joined.add(a).add(b);
    out.push({ from: a.at, to: b.at });
  }
  const lines = new Flatbush(arrangement.stretches.length);
  for (const { cubic } of arrangement.stretches) {
    const b = boxOfPoints(cubic);
    lines.add(b.x0, b.y0, b.x1, b.y1);
  }
  lines.finish();
  for (const end of ends) {
    if (joined.has(end)) continue;
    const { x, y } = end.at;
    const best = lines
      .search(x - gap, y - gap, x + gap, y + gap)
      .map((k) => nearestOnCubic(arrangement.stretches[k]!.cubic, end.at))
      .filter(({ point, distance: far }) => far > 0 && far <= gap && wayTo(end, point) > AHEAD)
      .reduce<{ point: Point; distance: number } | null>((least, n) => (!least || n.distance < least.distance ? n : least), null); // prettier-ignore
    if (best) out.push({ from: end.at, to: best.point });
  }
  return out;
}

const bridgePath = ({ from, to }: Bridge, n: number): Path => ({
  id: `bridge-${n}`,
  closed: false,
  anchors: [corner(from.x, from.y), corner(to.x, to.y)],
});

/**
 * The areas that lines enclose. Their edges are the lines' own curves, with their anchors. Lines that end loosely within an
 * area do not divide it.
 *
 * @param lines open and closed paths in one unit
 * @param idOf names the nth path
 * @param gap ends that stop so far, or less, from another end, or from a line ahead of them, are bridged; 0 bridges none
 */
export function enclosedAreas(lines: readonly Path[], idOf: (n: number) => string, gap = 0): Enclosed {
  const plain = arrange([], lines);
  const bridges = gap > 0 ? bridgesAcross(plain, gap) : [];
  const whole = bridges.length > 0 ? arrange([], [...lines, ...bridges.map(bridgePath)]) : plain;
  const areas = piecesAlong(facesOf(whole), whole, idOf).map(({ face, paths }): EnclosedArea => {
    const bordering = new Set(
      face.loops.flat().flatMap(({ stretch }) => stretch.sources.map((s) => s.member)),
    );
    const numbers = [...bordering].sort((a, b) => a - b);
    return {
      paths,
      lines: numbers.filter((n) => n < lines.length),
      bridges: numbers.filter((n) => n >= lines.length).map((n) => n - lines.length),
    };
  });
  return { areas, bridges };
}

/** Flatness, and how near the deepest point is found, as shares of the size. */
const FLAT = 1e-3;

/** A point well inside an area: as far from its edge as can be (Garcia Castellanos and Lombardo's pole of inaccessibility). */
export function deepestPoint(paths: readonly Path[]): Point {
  const [outline] = paths;
  const box = outline ? pathBounds(outline) : null;
  const size = box ? Math.max(box.x1 - box.x0, box.y1 - box.y0) : 0;
  if (!(size > 0)) return { x: outline?.anchors[0]?.x ?? 0, y: outline?.anchors[0]?.y ?? 0 };
  const rings = paths.map((path) =>
    flattenPath(path, FLAT * size).map(({ x, y }): [number, number] => [x, y]),
  );
  const [x, y] = polylabel(rings, FLAT * size);
  return { x: x!, y: y! };
}
