import type Paper from 'paper';
import paperCore from 'paper/dist/paper-core.js';
import { boxesMeet, boxHeight, boxOfPoints, boxWidth, EMPTY_BOX, uniteBoxes, type Box } from '../geometry/bounds'; // prettier-ignore
import { cubicPoint, selfCrossing, type Cubic } from '../geometry/cubic';
import { insideEvenOdd, windingNumber } from '../geometry/flatten';
import { cubicIntersections } from '../geometry/intersect';
import { dot, ORIGIN, subtract, unit, type Point } from '../geometry/vector';
import type { Anchor } from './anchor';
import { inLine } from './data';
import { cubicBetween, pathCubics, segmentCount, type Path } from './path';
import { flattenPath, pathArea, pathBounds } from './path-measure';
import { evenSpots, insertAnchors } from './spots';

// Paths whose inside is told by the nonzero rule, as paths with the same inside under the even-odd rule (SVG 2, section
// 13.4.2, "fill-rule"), which is the rule of a drawing.

const paper = paperCore as unknown as typeof Paper;

/** A segment of the outlines: which path it belongs to, and which one of it. */
interface Piece {
  readonly path: number;
  /** Place of the path's first piece in the list. */
  readonly begin: number;
  readonly index: number;
  readonly count: number;
  readonly cubic: Cubic;
  readonly box: Box;
}

/** All segments of the outlines as a fill closes them, those without length left out. */
function piecesOf(paths: readonly Path[]): Piece[] {
  const out: Piece[] = [];
  paths.forEach((path, p) => {
    const cubics = [...pathCubics(path)];
    const [first, last] = [path.anchors[0], path.anchors.at(-1)];
    if (!path.closed && first && last && cubics.length > 0)
      cubics.push(cubicBetween({ ...last, out: null }, { ...first, in: null }));
    const long = cubics.filter((c) => c.some((q) => q.x !== c[0].x || q.y !== c[0].y));
    const begin = out.length;
    long.forEach((cubic, index) =>
      out.push({ path: p, begin, index, count: long.length, cubic, box: boxOfPoints(cubic) }),
    );
  });
  return out;
}

/**
 * Whether a segment and the one that goes on from it meet nowhere else: a line through their joint parts their control
 * points. Nearly all do, and a search along lines that touch is slow.
 */
function partAtJoint([start, a1, a2, joint]: Cubic, [, b1, b2, end]: Cubic): boolean {
  const ahead = [b1, b2, end].map((p) => unit(subtract(p, joint))).find((v) => v !== null);
  const behind = [a2, a1, start].map((p) => unit(subtract(p, joint))).find((v) => v !== null);
  if (!ahead || !behind) return false;
  const way = subtract(ahead, behind);
  const along = (p: Point): number => dot(subtract(p, joint), way);
  return [start, a1, a2].every((p) => along(p) <= 0) && [b1, b2, end].every((p) => along(p) >= 0);
}

/** Two lines leave a point in one direction, within so many radians: they run along each other. */
const ALONG = 1e-7;
/** How far from where lines meet it is looked which way they go, as a share of a segment. */
const ASIDE = 0.01;
/** A parameter so near 0 or 1 is at an end. */
const AT_END = 1e-6;

/** The points of an outline just before and just after a place on it. */
function aroundPlace(pieces: readonly Piece[], at: Piece, t: number): [before: Point, after: Point] {
  const beside = (step: number): Cubic => pieces[at.begin + ((at.index + step + at.count) % at.count)]!.cubic;
  return [
    t < 2 * ASIDE ? cubicPoint(beside(-1), 1 - ASIDE) : cubicPoint(at.cubic, t - ASIDE),
    t > 1 - 2 * ASIDE ? cubicPoint(beside(1), ASIDE) : cubicPoint(at.cubic, t + ASIDE),
  ];
}

/** Whether two pieces cross, or run along each other. Where lines only touch, nothing changes sides. */
function crosses(pieces: readonly Piece[], a: Piece, b: Piece): boolean {
  const step = a.path === b.path ? (b.index - a.index + a.count) % a.count : 0;
  const [goesOn, cameFrom] = [step === 1, step === a.count - 1];
  if (goesOn !== cameFrom) {
    const [first, second] = goesOn ? [a.cubic, b.cubic] : [b.cubic, a.cubic];
    if (partAtJoint(first, second)) return false;
  }
  return cubicIntersections(a.cubic, b.cubic).some(({ t, u, point }) => {
    if ((goesOn && t > 1 - AT_END && u < AT_END) || (cameFrom && t < AT_END && u > 1 - AT_END)) return false;
    const way = (p: Point): number => Math.atan2(p.y - point.y, p.x - point.x);
    const [from, to] = aroundPlace(pieces, a, t).map(way) as [number, number];
    // Turned so that the first line comes from angle 0: the other changes sides where one of its ways lies before the
    // first line's other way, and one after it.
    const turned = (angle: number): number => (angle - from + 4 * Math.PI) % (2 * Math.PI);
    const border = turned(to);
    const others = aroundPlace(pieces, b, u).map((p) => turned(way(p)));
    const along = others.some((w) => [0, border, 2 * Math.PI].some((v) => Math.abs(w - v) < ALONG));
    return along || others[0]! < border !== others[1]! < border;
  });
}

/** Whether any two segments of the outlines cross or lie on each other. */
function anyCross(pieces: readonly Piece[]): boolean {
  if (pieces.some(({ cubic }) => selfCrossing(cubic) !== null)) return true;
  // By their left ends: only those that begin before one ends can meet it.
  const sorted = [...pieces].sort((a, b) => a.box.x0 - b.box.x0);
  return sorted.some((a, i) => {
    for (let k = i + 1; k < sorted.length && sorted[k]!.box.x0 <= a.box.x1; k++) {
      const b = sorted[k]!;
      if (b.box.y0 <= a.box.y1 && b.box.y1 >= a.box.y0 && crosses(pieces, a, b)) return true;
    }
    return false;
  });
}

/** Of outlines that do not cross, the ones across which inside and outside change. */
function bordering(paths: readonly Path[]): readonly Path[] {
  const boxes = paths.map(pathBounds);
  const polygons = paths.map((path, i) =>
    flattenPath(path, Math.max(boxWidth(boxes[i]!), boxHeight(boxes[i]!), 1e-6) / 2000),
  );
  const turns = paths.map((path) => Math.sign(pathArea(path)));
  const kept = paths.filter((path, i) => {
    // They do not cross: all of one lies on one side of another, and most of its points say on which.
    const own = pathCubics(path).flatMap((c) => [0, 0.3, 0.7].map((t) => cubicPoint(c, t)));
    const box = boxes[i]!;
    const around = polygons.reduce((sum, polygon, k) => {
      if (k === i || !boxesMeet(box, boxes[k]!)) return sum;
      const within = own.filter((p) => insideEvenOdd([polygon], p)).length;
      return within * 2 > own.length ? sum + turns[k]! : sum;
    }, 0);
    return (around === 0) !== (around + turns[i]! === 0);
  });
  return kept.length === paths.length ? paths : kept;
}

type PaperPath = InstanceType<typeof paper.Path>;

const paperPath = ({ anchors }: Path): PaperPath =>
  new paper.Path({
    closed: true,
    insert: false,
    segments: anchors.map(
      (a) => new paper.Segment(new paper.Point(a), new paper.Point(a.in ?? ORIGIN), new paper.Point(a.out ?? ORIGIN)),
    ),
  }); // prettier-ignore

function pathOfPaper({ segments }: PaperPath, id: string): Path {
  const handle = ({ x, y }: Point): Point | null => (x === 0 && y === 0 ? null : { x, y });
  const anchors = segments.map(({ point, handleIn, handleOut }): Anchor => {
    const [arriving, leaving] = [handle(handleIn), handle(handleOut)];
    const smooth = arriving && leaving && inLine(arriving, leaving);
    return { x: point.x, y: point.y, kind: smooth ? 'smooth' : 'corner', in: arriving, out: leaving };
  });
  return { id, closed: true, anchors };
}

/** Outlines that cross, resolved by paper.js (its `unite` of one compound path). */
function resolved(paths: readonly Path[], idOf: (n: number) => string): Path[] {
  if (!(paper.project as unknown)) paper.setup([1, 1]);
  const outline = new paper.CompoundPath({
    children: paths.map(paperPath),
    fillRule: 'nonzero',
    insert: false,
  });
  const united = outline.unite(undefined as never, { insert: false });
  const parts = (united.children ? united.children : [united]) as PaperPath[];
  return parts.filter(({ segments }) => segments.length > 1).map((part, n) => pathOfPaper(part, idOf(n)));
}

/** Places at which it is looked whether outlines were resolved rightly: so many across and down. */
const PROBES = 24;
/** Curves that cross themselves are what goes wrong at times: then it is tried again with so many more anchors on each. */
const TRIES = [0, 1, 2, 4];

/** As `resolved`, tried until the inside is the same at some hundred places. The first try where none is. */
function resolvedRightly(paths: readonly Path[], idOf: (n: number) => string): Path[] {
  const box = paths.map(pathBounds).reduce(uniteBoxes, EMPTY_BOX);
  const [width, height] = [boxWidth(box), boxHeight(box)];
  const fine = Math.max(width, height, 1e-6) / 5000;
  const polygons = paths.map((path) => flattenPath(path, fine));
  const probes = Array.from({ length: PROBES ** 2 }, (_, i) => ({
    // Off the middles of a grid, where symmetric outlines like to cross.
    x: box.x0 + (width * ((i % PROBES) + 0.43)) / PROBES,
    y: box.y0 + (height * (Math.floor(i / PROBES) + 0.57)) / PROBES,
  }));
  const inside = probes.map((p) => windingNumber(polygons, p) !== 0);
  const crowded = (path: Path, count: number): Path =>
    insertAnchors(
      path,
      Array.from({ length: segmentCount(path) }, (_, i) => evenSpots(path, i, count)).flat(),
    );
  const tries = TRIES.map((count) => () => resolved(count === 0 ? paths : paths.map((path) => crowded(path, count)), idOf)); // prettier-ignore
  for (const attempt of tries) {
    const made = attempt();
    const around = made.map((path) => flattenPath(path, fine));
    // One place of all may lie on a line and be seen on either side of it.
    const wrong = probes.filter((p, i) => insideEvenOdd(around, p) !== inside[i]).length;
    if (wrong <= 1) return made;
  }
  return tries[0]!();
}

/**
 * Paths with the inside under the even-odd rule that the given ones have under the nonzero rule. An outline that crosses
 * neither itself nor another stays anchor for anchor; those across which it makes no difference go; only where lines
 * cross, or run along each other, are they drawn anew along what borders the inside.
 *
 * @param paths in any unit; open ones as a fill closes them
 * @param idOf names the nth path that is drawn anew
 * @returns the very same list where nothing has to change
 */
export function evenOddPaths(paths: readonly Path[], idOf: (n: number) => string): readonly Path[] {
  const pieces = piecesOf(paths);
  if (!anyCross(pieces)) return paths.length < 2 ? paths : bordering(paths);
  return resolvedRightly(paths, idOf);
}
