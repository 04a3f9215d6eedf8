import Flatbush from 'flatbush';
import polylabel from 'polylabel';
import { boxOfPoints, EMPTY_BOX, uniteBoxes } from '../geometry/bounds';
import type { Cubic } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { distance, dot, subtract, unit, type Point } from '../geometry/vector';
import { arrange } from './arrangement';
import { piecesAlong } from './combine';
import { facesOf } from './faces';
import { corner } from './anchor';
import { pathCubics, tangentAt, type Path } from './path';
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
const BEHIND_COSINE = -0.2;
/** How far ahead a place on a line has to lie. */
const AHEAD_COSINE = 0.1;

/** Segments of all lines, found by place. */
interface Segments {
  readonly list: readonly { readonly line: number; readonly segment: number; readonly cubic: Cubic }[];
  near(p: Point, within: number): readonly number[];
}

function segmentsOf(lines: readonly Path[]): Segments {
  const list = lines.flatMap((path, line) =>
    pathCubics(path).map((cubic, segment) => ({ line, segment, cubic })),
  );
  if (list.length === 0) return { list, near: () => [] };
  const index = new Flatbush(list.length);
  for (const { cubic } of list) {
    const b = boxOfPoints(cubic);
    index.add(b.x0, b.y0, b.x1, b.y1);
  }
  index.finish();
  return { list, near: ({ x, y }, within) => index.search(x - within, y - within, x + within, y + within) };
}

/** How near another line has to be to an end for that not to be loose, as a share of all lines' size. */
const TOUCHING_SHARE = 2e-8;

function looseEnds(lines: readonly Path[], { list, near }: Segments): LooseEnd[] {
  const box = lines.map(pathBounds).reduce(uniteBoxes, EMPTY_BOX);
  const within = TOUCHING_SHARE * Math.max(box.x1 - box.x0, box.y1 - box.y0);
  return lines.flatMap((path, line): LooseEnd[] => {
    if (path.closed || path.anchors.length < 2) return [];
    const last = path.anchors.length - 1;
    return (
      [
        [0, 'out', -1, 0],
        [last, 'in', 1, last - 1],
      ] as const
    ).flatMap(([i, side, sign, own]): LooseEnd[] => {
      const { x, y } = path.anchors[i]!;
      const at = { x, y };
      const tangent = unit(tangentAt(path, i, side) ?? { x: 0, y: 0 });
      const touches = near(at, within).some((k) => {
        const other = list[k]!;
        if (other.line === line && other.segment === own) return false;
        return nearestOnCubic(other.cubic, at).distance <= within;
      });
      return tangent && !touches ? [{ line, at, ahead: { x: sign * tangent.x, y: sign * tangent.y } }] : [];
    });
  });
}

/** Bridges from loose ends to the nearest other end within a gap, or else to the nearest line that lies ahead. */
function bridgesAcross(lines: readonly Path[], gap: number): Bridge[] {
  const segments = segmentsOf(lines);
  const ends = looseEnds(lines, segments);
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
    .filter(
      ({ a, b, far }) =>
        far > 0 && far <= gap && wayTo(a, b.at) > BEHIND_COSINE && wayTo(b, a.at) > BEHIND_COSINE,
    )
    .sort((one, other) => one.far - other.far);
  for (const { a, b } of pairs) {
    if (joined.has(a) || joined.has(b)) continue;
    joined.add(a).add(b);
    out.push({ from: a.at, to: b.at });
  }
  for (const end of ends) {
    if (joined.has(end)) continue;
    const best = segments
      .near(end.at, gap)
      .map((k) => nearestOnCubic(segments.list[k]!.cubic, end.at))
      .filter(({ point, distance: far }) => far > 0 && far <= gap && wayTo(end, point) > AHEAD_COSINE)
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
  const bridges = gap > 0 ? bridgesAcross(lines, gap) : [];
  const whole = arrange([], [...lines, ...bridges.map(bridgePath)]);
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
const FLAT_SHARE = 1e-3;

/** A point well inside an area: as far from its edge as can be (Garcia Castellanos and Lombardo's pole of inaccessibility). */
export function deepestPoint(paths: readonly Path[]): Point {
  const [outline] = paths;
  const box = outline ? pathBounds(outline) : null;
  const size = box ? Math.max(box.x1 - box.x0, box.y1 - box.y0) : 0;
  if (!(size > 0)) return { x: outline?.anchors[0]?.x ?? 0, y: outline?.anchors[0]?.y ?? 0 };
  const rings = paths.map((path) =>
    flattenPath(path, FLAT_SHARE * size).map(({ x, y }): [number, number] => [x, y]),
  );
  const [x, y] = polylabel(rings, FLAT_SHARE * size);
  return { x: x!, y: y! };
}
