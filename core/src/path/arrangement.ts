import Flatbush from 'flatbush';
import { EMPTY_BOX, uniteBoxes } from '../geometry/bounds';
import { cubicPoint, cubicTangent, subCubic, type Cubic } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { distance, dot, type Point } from '../geometry/vector';
import { meetings, piecesOf, type Piece } from './meetings';
import type { Path } from './path';
import { pathBounds } from './path-measure';
import { onePerCluster } from './clusters';
import { withSides } from './sides';
import type { Cut, Source, Stretch } from './stretch';

// Outlines and lines cut at every place where they meet, so that each stretch has one side and another, and it is known of
// what each side is inside. Stretches that lie on each other are one: borders in common are the rule here, not the exception.

export interface Arrangement {
  /** Paths of each shape, then of each line: what sources speak of. */
  readonly members: readonly (readonly Path[])[];
  readonly vertices: readonly Point[];
  readonly stretches: readonly Stretch[];
  /** Points nearer than this were taken as one. */
  readonly within: number;
}

/** Points nearer than this are one, as a share of the outlines' size. */
const ONE_POINT = 1e-8;
/** Stretches with the same ends whose middles are nearer than this lie on each other, as a share of that size. */
const ONE_LINE = 1e-7;
/** A stretch no longer than this many times what points may lie apart is a point. */
const SHORTEST = 8;
/** A parameter so near another is the same place. */
const ONE_PLACE = 1e-9;

/** A stretch to which sources may still be added. */
interface Made extends Cut {
  readonly sources: Source[];
}

/** Gives each point the number of a vertex: points that are as good as one have the same. */
function vertexMaker(within: number): { vertices: Point[]; numberOf(p: Point): number } {
  const vertices: Point[] = [];
  const cells = new Map<string, number[]>();
  const cell = (v: number): number => Math.floor(v / (4 * within));
  return {
    vertices,
    numberOf(p) {
      const [cx, cy] = [cell(p.x), cell(p.y)];
      for (let i = cx - 1; i <= cx + 1; i++)
        for (let j = cy - 1; j <= cy + 1; j++)
          for (const n of cells.get(`${i} ${j}`) ?? []) if (distance(vertices[n]!, p) <= 2 * within) return n;
      const key = `${cx} ${cy}`;
      cells.set(key, [...(cells.get(key) ?? []), vertices.length]);
      return vertices.push(p) - 1;
    },
  };
}

/** A cut piece that is not yet known to lie on others. */
interface Part {
  readonly start: number;
  readonly end: number;
  readonly cubic: Cubic;
  readonly source: Source;
}

/** Cuts the pieces where they are to be cut; those that lie on each other become one. */
function stretchesOf(
  pieces: readonly Piece[],
  within: number,
  size: number,
): { vertices: Point[]; loose: Made[] } {
  const { vertices, numberOf } = vertexMaker(within);
  // Anchors first, so that what meets at one is at the anchor itself.
  for (const { cubic, from, to } of pieces) {
    if (from === 0) numberOf(cubic[0]);
    if (to === 1) numberOf(cubic[3]);
  }
  const byEnds = new Map<string, Made[]>();
  const loose: Made[] = [];
  const keep = ({ start, end, cubic, source }: Part): void => {
    const middle = cubicPoint(cubic, 0.5);
    const key = start < end ? `${start} ${end}` : `${end} ${start}`;
    const alike = byEnds.get(key)?.find((other) => {
      const near = nearestOnCubic(other.cubic, middle);
      return near.distance <= ONE_LINE * size && near.t > 0.02 && near.t < 0.98;
    });
    if (alike) {
      const same = start === end ? dot(cubicTangent(cubic, 0.5), cubicTangent(alike.cubic, 0.5)) > 0 : alike.start === start; // prettier-ignore
      alike.sources.push({ ...source, reversed: !same });
      return;
    }
    const made: Made = { start, end, cubic, sources: [source] };
    byEnds.set(key, [...(byEnds.get(key) ?? []), made]);
    loose.push(made);
  };
  const parts: Part[] = [];
  const vertexOf = onePerCluster();
  for (const { cubic, cuts, member, path, segment, from, to } of pieces) {
    const places = [0, ...cuts.toSorted((x, y) => x - y), 1];
    let last = 0;
    for (const place of places.slice(1)) {
      if (place - last <= ONE_PLACE) continue;
      const next = place > 1 - ONE_PLACE ? 1 : place;
      const part = subCubic(cubic, last, next);
      const at = (t: number): number => from + t * (to - from);
      const source = { member, path, segment, from: at(last), to: at(next), reversed: false };
      const [start, end] = [numberOf(part[0]), numberOf(part[3])];
      const far = Math.max(...part.map((p) => distance(p, part[0])));
      // What is as short as points may lie apart is a point itself.
      if (far <= SHORTEST * within) vertexOf.unite(start, end);
      else parts.push({ start, end, cubic: part, source });
      last = next;
    }
  }
  for (const part of parts) keep({ ...part, start: vertexOf.find(part.start), end: vertexOf.find(part.end) });
  return { vertices, loose };
}

/**
 * Cuts outlines and lines wherever they meet: cross, touch, run along each other, or cross themselves.
 *
 * @param shapes outlines of each, in one unit; open paths as a fill closes them
 * @param lines paths without an inside, open or closed
 */
export function arrange(shapes: readonly (readonly Path[])[], lines: readonly Path[] = []): Arrangement {
  const members = [...shapes, ...lines.map((line) => [line])];
  const box = members.flat().map(pathBounds).reduce(uniteBoxes, EMPTY_BOX);
  const size = Math.max(box.x1 - box.x0, box.y1 - box.y0);
  const empty: Arrangement = { members, vertices: [], stretches: [], within: 0 };
  if (!(size > 0)) return empty;
  const within = ONE_POINT * size;
  const pieces = piecesOf(members, shapes.length, within);
  if (pieces.length === 0) return empty;
  const index = new Flatbush(pieces.length);
  for (const { box: b } of pieces) index.add(b.x0, b.y0, b.x1, b.y1);
  index.finish();
  pieces.forEach((a, i) => {
    for (const k of index.search(a.box.x0, a.box.y0, a.box.x1, a.box.y1)) {
      if (k <= i) continue;
      for (const { t, u } of meetings(a, pieces[k]!, within)) {
        a.cuts.push(t);
        pieces[k]!.cuts.push(u);
      }
    }
  });
  const { vertices, loose } = stretchesOf(pieces, within, size);
  return { members, vertices, stretches: withSides(loose, shapes.length, size), within };
}
