import Flatbush from 'flatbush';
import { EMPTY_BOX, uniteBoxes } from '../geometry/bounds';
import { cubicPoint, type Cubic } from '../geometry/cubic';
import { cubicLineIntersections } from '../geometry/intersect';
import { cross, dot, subtract, type Point } from '../geometry/vector';
import { openPathAlong } from './along';
import { arrange } from './arrangement';
import { pathCubics, segmentCount, type Path } from './path';
import { pathBounds } from './path-measure';
import { runsAlong, type Walked } from './walk';

/** Lines as they lie over each other: those of an area hide what lies beneath it. */
export interface LaidLines {
  readonly paths: readonly Path[];
  /** They enclose an area that hides; inside by the even-odd rule, open ones taken as closed. */
  readonly hides: boolean;
}

/** Directions in which it is counted what lies about a point, none along what people draw. */
const RAY_WAYS: readonly Point[] = [0.0123, 1.5567, 2.2199].map((angle) => ({ x: Math.cos(angle), y: Math.sin(angle) })); // prettier-ignore

/** A path as a fill closes it. */
function closedOff(path: Path): Path {
  if (path.closed || path.anchors.length < 2) return path;
  const last = path.anchors.length - 1;
  const anchors = path.anchors.map((a, i) =>
    i === 0 ? { ...a, in: null } : i === last ? { ...a, out: null } : a,
  );
  return { ...path, closed: true, anchors };
}

/** Whether a point that lies on none of an area's outlines lies inside, by the even-odd rule. Two rays have to agree. */
function areaHas(outlines: readonly Cubic[], p: Point): boolean {
  const odd = RAY_WAYS.map((way) => {
    let isOdd = false;
    for (const cubic of outlines) {
      const sides = cubic.map((q) => cross(way, subtract(q, p)));
      if (sides.every((side) => side > 0) || sides.every((side) => side < 0)) continue;
      for (const { point } of cubicLineIntersections(cubic, p, way)) if (dot(subtract(point, p), way) > 0) isOdd = !isOdd; // prettier-ignore
    }
    return isOdd;
  });
  return odd.filter(Boolean).length * 2 > odd.length;
}

/**
 * The pieces of lines that are seen from above: what lies beneath an area goes, and where lines lie on each other they
 * are drawn once, by the topmost.
 *
 * @param laid bottom first, in one unit
 * @param idOf names the nth path that is new
 * @returns for each of `laid` what is left of it; a path that is seen whole is itself
 */
export function seenLines(laid: readonly LaidLines[], idOf: (n: number) => string): readonly Path[][] {
  const lines = laid.flatMap(({ paths, hides }, level) =>
    paths.map((path) => ({ path, level, cutting: hides ? closedOff(path) : path })),
  );
  // What lies inside what is asked of few areas about each piece, not of all: cheaper than knowing both sides of all pieces.
  const arrangement = arrange(
    [],
    lines.map(({ cutting }) => cutting),
  );
  const areas = laid.flatMap(({ paths, hides }, level) => {
    const box = paths.map(pathBounds).reduce(uniteBoxes, EMPTY_BOX);
    return hides && box.x1 >= box.x0
      ? [{ level, box, outlines: paths.flatMap((path) => pathCubics(closedOff(path))) }]
      : [];
  });
  const tree = new Flatbush(Math.max(1, areas.length));
  for (const { box } of areas) tree.add(box.x0, box.y0, box.x1, box.y1);
  if (areas.length === 0) tree.add(0, 0, 0, 0);
  tree.finish();
  /** Whether an area that lies above a level, and is none of those whose outline this is, covers a point. */
  const isCovered = (p: Point, level: number, own: ReadonlySet<number>): boolean =>
    areas.length > 0 &&
    tree
      .search(p.x, p.y, p.x, p.y, (i) => areas[i]!.level > level && !own.has(areas[i]!.level))
      .some((i) => areaHas(areas[i]!.outlines, p));

  const walkedOf = lines.map(
    (): { readonly at: number; readonly walked: Walked; readonly seen: boolean }[] => [],
  );
  for (const stretch of arrangement.stretches) {
    const { sources, cubic } = stretch;
    const levelOf = (member: number): number => lines[member]!.level;
    const drawn = sources.reduce((a, b) => (levelOf(b.member) >= levelOf(a.member) ? b : a));
    const own = new Set(sources.map(({ member }) => levelOf(member)));
    const covered = isCovered(cubicPoint(cubic, 0.5), levelOf(drawn.member), own);
    for (const source of sources) {
      const { member, segment, from, reversed } = source;
      // What only a fill closes is no line.
      if (segment >= segmentCount(lines[member]!.path)) continue;
      walkedOf[member]!.push({
        at: segment + from,
        walked: { stretch, forward: !reversed },
        seen: source === drawn && !covered,
      });
    }
  }
  let count = 0;
  const out = laid.map((): Path[] => []);
  lines.forEach(({ path, level }, member) => {
    const all = walkedOf[member]!;
    if (all.every(({ seen }) => seen)) return void out[level]!.push(path);
    const seen = all.filter((one) => one.seen).sort((a, b) => a.at - b.at);
    const runs = runsAlong(
      seen.map(({ walked }) => walked),
      path.closed,
    );
    out[level]!.push(
      ...runs.map((run, n) => openPathAlong(run, arrangement, n === 0 ? path.id : idOf(count++))),
    );
  });
  return out;
}
