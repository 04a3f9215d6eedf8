import Flatbush from 'flatbush';
import { polygonOf } from '../art/inside';
import { setPath } from '../art/edits';
import { boxesMeet, growBox } from '../geometry/bounds';
import { cubicLength, cubicPoint, cubicTangent } from '../geometry/cubic';
import { insideEvenOdd } from '../geometry/flatten';
import { add, cross, distance, scale, subtract, unit, type Point } from '../geometry/vector';
import { withFittingKind, type Anchor } from '../path/anchor';
import { insertAnchor } from '../path/insert';
import { freezeFlow } from '../path/flow';
import { pathCubics, segmentCount, type Path } from '../path/path';
import { reversePath } from '../path/path-map';
import { flattenPath, nearestOnPath, pathLength } from '../path/path-measure';
import { subjectOf, type Check, type Finding, type ProofShape } from './finding';

// A strip of ground between two fills that were meant to lie side by side.

/** Outlines nearer than this lie on each other; sheet pixels. */
const TOUCHING_PX = 0.02;
/** Places along an outline are looked at so far apart, in widths of a gap, and no more of them than this. */
const STEP_WIDTHS = 1;
const MOST_PLACES = 2000;
/** A strip is longer than so many times its greatest width. */
const LEAST_LENGTH_WIDTHS = 6;
/** Where a strip is this share of its greatest width at an end, it closes there. */
const CLOSED_SHARE = 0.3;
/** How finely outlines are looked at, sheet pixels. */
const FINE_PX = 0.02;

interface Place {
  readonly at: Point;
  readonly outward: Point;
}

/** What lies across a strip from a place: which shape's which path, and how far. */
interface Across {
  readonly shape: ProofShape;
  readonly path: Path;
  readonly far: number;
}

/** Places along a closed path, evenly but for the ends of segments. */
function placesAlong(path: Path, step: number): Place[] {
  const every = Math.max(step, pathLength(path) / MOST_PLACES);
  return pathCubics(path).flatMap((cubic) => {
    const n = Math.max(2, Math.ceil(cubicLength(cubic) / every));
    return Array.from({ length: n }, (_, i) => (i + 0.5) / n).flatMap((t): Place[] => {
      const along = unit(cubicTangent(cubic, t));
      return along ? [{ at: cubicPoint(cubic, t), outward: { x: along.y, y: -along.x } }] : [];
    });
  });
}

/** The edges of all fills, to be asked for what lies near. */
class Edges {
  readonly #from: Point[] = [];
  readonly #to: Point[] = [];
  readonly #of: { readonly shape: ProofShape; readonly path: Path }[] = [];
  readonly #tree: Flatbush | null;

  constructor(shapes: readonly ProofShape[]) {
    for (const shape of shapes)
      for (const path of shape.whole) {
        const points = flattenPath(path, FINE_PX);
        points.forEach((p, i) => {
          this.#from.push(p);
          this.#to.push(points[(i + 1) % points.length]!);
          this.#of.push({ shape, path });
        });
      }
    this.#tree = this.#from.length > 0 ? new Flatbush(this.#from.length) : null;
    this.#from.forEach((a, i) => {
      const b = this.#to[i]!;
      this.#tree!.add(Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y));
    });
    this.#tree?.finish();
  }

  /** The first edge of another shape from a place outward, within `width`; null for none. */
  across({ at, outward }: Place, own: ProofShape, width: number): Across | null {
    const end = add(at, scale(outward, width));
    let nearest: Across | null = null;
    for (const i of this.#tree?.search(
      Math.min(at.x, end.x),
      Math.min(at.y, end.y),
      Math.max(at.x, end.x),
      Math.max(at.y, end.y),
    ) ?? []) {
      // prettier-ignore
      const of = this.#of[i]!;
      if (of.shape === own) continue;
      const along = subtract(this.#to[i]!, this.#from[i]!);
      const between = subtract(this.#from[i]!, at);
      const turn = cross(outward, along);
      if (turn === 0) continue;
      const [far, share] = [cross(between, along) / turn, cross(between, outward) / turn];
      if (share < 0 || share > 1 || far < 0 || far > width) continue;
      if (!nearest || far < nearest.far) nearest = { ...of, far };
    }
    return nearest;
  }
}

interface Strip {
  readonly own: ProofShape;
  readonly path: Path;
  readonly other: ProofShape;
  readonly otherPath: Path;
  readonly places: readonly Place[];
  /** It runs all the way round. */
  readonly round: boolean;
  readonly length: number;
  readonly width: number;
  readonly middle: Point;
}

/** Fills whose neighbours can be told from each other: lines painted over their edges hide what lies between. */
const fillsOf = (shapes: readonly ProofShape[]): ProofShape[] =>
  shapes.filter(({ shape }) => shape.fill !== null && shape.stroke === null && !shape.lettering && shape.paths.every(({ closed }) => closed)); // prettier-ignore

function stripsOf(shapes: readonly ProofShape[], gap: number): Strip[] {
  const fills = fillsOf(shapes);
  if (fills.length < 2) return [];
  const boxes = new Flatbush(fills.length);
  for (const { box } of fills) boxes.add(box.x0, box.y0, box.x1, box.y1);
  boxes.finish();
  const edges = new Edges(fills);
  const isOpen = (p: Point): boolean =>
    boxes.search(p.x, p.y, p.x, p.y).every((i) => !insideEvenOdd(fills[i]!.whole.map(polygonOf), p));
  const found: Strip[] = [];
  for (const own of fills) {
    // The one beneath is told: it is the one that is run along its neighbour.
    const near = boxes
      .search(own.box.x0 - gap, own.box.y0 - gap, own.box.x1 + gap, own.box.y1 + gap)
      .map((i) => fills[i]!)
      .filter(({ level }) => level > own.level);
    if (near.length === 0) continue;
    for (const path of own.whole) {
      const places = placesAlong(path, gap * STEP_WIDTHS);
      const [first] = places;
      if (!first) continue;
      const polygons = own.whole.map(polygonOf);
      const inward = insideEvenOdd(polygons, add(first.at, scale(first.outward, FINE_PX)));
      const across = places.map((place): Across | null => {
        const outward = inward ? scale(place.outward, -1) : place.outward;
        const { x, y } = place.at;
        if (!near.some(({ box }) => boxesMeet(box, growBox({ x0: x, y0: y, x1: x, y1: y }, gap))))
          return null;
        const hit = edges.across({ ...place, outward }, own, gap);
        if (!hit || hit.far <= TOUCHING_PX || hit.shape.level < own.level) return null;
        return isOpen(add(place.at, scale(outward, hit.far / 2))) ? hit : null;
      });
      found.push(...runsOf(own, path, places, across, gap));
    }
  }
  return found;
}

/** Runs of places that have one and the same outline across from them, round the end of the path too. */
function runsOf(
  own: ProofShape,
  path: Path,
  places: readonly Place[],
  across: readonly (Across | null)[],
  gap: number,
): Strip[] {
  const n = places.length;
  const alike = (i: number, k: number): boolean => across[i]?.path === across[k]?.path;
  const breaks = Array.from({ length: n }, (_, i) => i).filter((i) => !alike(i, (i + n - 1) % n));
  const round = breaks.length === 0;
  return (round ? [0] : breaks).flatMap((from, k): Strip[] => {
    const to = round ? n : k + 1 < breaks.length ? breaks[k + 1]! : breaks[0]! + n;
    const run = Array.from({ length: to - from }, (_, i) => (from + i) % n);
    const there = across[from];
    if (!there || run.length < 2) return [];
    const widths = run.map((i) => across[i]!.far);
    const widest = Math.max(...widths);
    const long = run.slice(1).reduce((sum, i, m) => sum + distance(places[run[m]!]!.at, places[i]!.at), 0);
    if (long < LEAST_LENGTH_WIDTHS * widest) return [];
    const [atStart, atEnd] = [widths[0]! < CLOSED_SHARE * widest, widths.at(-1)! < CLOSED_SHARE * widest];
    // It closes at one end and opens at the other: two outlines that touch there and part, as they should.
    if (!round && atStart !== atEnd && Math.max(widths[0]!, widths.at(-1)!) > (1 - CLOSED_SHARE) * gap)
      return [];
    const middle = places[run[run.length >> 1]!]!.at;
    return [{ own, path, other: there.shape, otherPath: there.path, places: run.map((i) => places[i]!), round, length: long, width: widest, middle }]; // prettier-ignore
  });
}

/** The path with an anchor at a place, or with the nearest one where that is within `within`; and the anchor's index. */
function anchoredAt(path: Path, p: Point, within: number): { readonly path: Path; readonly index: number } {
  const nearest = path.anchors.reduce((best, a, i) => (distance(a, p) < distance(path.anchors[best]!, p) ? i : best), 0); // prettier-ignore
  if (distance(path.anchors[nearest]!, p) <= within) return { path, index: nearest };
  const on = nearestOnPath(path, p)!;
  if (on.t <= 0 || on.t >= 1) return { path, index: (on.segment + Math.round(on.t)) % path.anchors.length };
  return { path: insertAnchor(path, on.segment, on.t), index: on.segment + 1 };
}

/** The path with anchors at two places, or with those near them, and their indices. */
function anchoredAtBoth(
  path: Path,
  p: Point,
  q: Point,
  within: number,
): { readonly path: Path; readonly p: number; readonly q: number } {
  const first = anchoredAt(path, p, within);
  const second = anchoredAt(first.path, q, within);
  const grew = second.path !== first.path;
  return {
    path: second.path,
    p: first.index + (grew && second.index <= first.index ? 1 : 0),
    q: second.index,
  };
}

/** The anchors of a closed path from one to another, going on; both counted. */
function anchorsBetween({ anchors }: Path, from: number, to: number): Anchor[] {
  const n = anchors.length;
  const count = ((to - from + n) % n) + 1;
  return Array.from({ length: count }, (_, i) => anchors[(from + i) % n]!);
}

/** The path of the strip's own shape, run along the neighbour's outline where the strip was; null where that cannot be. */
function alongNeighbour({ path, otherPath, places, round, width, length }: Strip): Path | null {
  if (round) return { ...otherPath, id: path.id, form: undefined };
  const [first, last] = [places[0]!.at, places.at(-1)!.at];
  const within = 2 * STEP_WIDTHS * width + 2;
  const own = anchoredAtBoth(freezeFlow({ ...path, form: undefined }), first, last, within);
  const [a, b] = [own.path.anchors[own.p]!, own.path.anchors[own.q]!];
  const there = anchoredAtBoth(freezeFlow({ ...otherPath, form: undefined }), a, b, within);
  if (own.p === own.q || there.p === there.q) return null;
  // Of both ways along the neighbour the strip's is the one that is about as long as it is.
  const n = there.path.anchors.length;
  const ways = [
    anchorsBetween(there.path, there.p, there.q),
    anchorsBetween(reversePath(there.path), n - 1 - there.p, n - 1 - there.q),
  ];
  const off = (anchors: readonly Anchor[]): number =>
    Math.abs(pathLength({ id: 'way', closed: false, anchors }) - length);
  const way = ways.sort((p, q) => off(p) - off(q))[0]!;
  const rest = anchorsBetween(own.path, own.q, own.p);
  const between = way.slice(1, -1).map((anchor) => withFittingKind(withoutShared(anchor)));
  const arriving: Anchor = withFittingKind({ ...a, x: way[0]!.x, y: way[0]!.y, out: way[0]!.out });
  const leaving: Anchor = withFittingKind({ ...b, x: way.at(-1)!.x, y: way.at(-1)!.y, in: way.at(-1)!.in });
  return { ...own.path, anchors: [leaving, ...rest.slice(1, -1), arriving, ...between] };
}

const withoutShared = (anchor: Anchor): Anchor => {
  const { shared: _, ...rest } = anchor;
  return rest;
};

export const gap: Check = {
  kind: 'gap',
  find: ({ shapes }, { gap: most }) =>
    stripsOf(shapes, most).map(({ own, path, other, otherPath, width, middle }): Finding => ({
      kind: 'gap',
      key: `gap ${path.id} ${otherPath.id} ${Math.round(middle.x)} ${Math.round(middle.y)}`,
      shapes: [own.shape.id, other.shape.id],
      at: middle,
      amount: width,
      path: path.id,
    })),
  fix(art, finding, { gap: most }) {
    const [ownId, otherId] = finding.shapes;
    const both = subjectOf(art).shapes.filter(({ shape }) => shape.id === ownId || shape.id === otherId);
    const strips = stripsOf(both, most).filter(({ path }) => path.id === finding.path);
    const strip = strips.sort((a, b) => distance(a.middle, finding.at!) - distance(b.middle, finding.at!))[0];
    // What follows about an axis is drawn in one part only: the hand decides there.
    if (!strip || strip.own.shape.axis) return null;
    const path = alongNeighbour(strip);
    return path && segmentCount(path) > 1 ? setPath(strip.own.shape.id, path) : null;
  },
};
