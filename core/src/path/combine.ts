import { boxHas } from '../geometry/bounds';
import { cubicPoint, type Cubic } from '../geometry/cubic';
import { insideEvenOdd } from '../geometry/flatten';
import { subtract, type Point } from '../geometry/vector';
import { handleOrNone, turnedAnchor, withFittingKind, withoutMark, type Anchor } from './anchor';
import { arrange, reversedCubic, subCubic, type Arrangement, type Source, type Stretch } from './arrangement';
import { inLine } from './data';
import { cubicBetween, segmentCount, segmentIsLine, type Path } from './path';
import { flattenPath, pathArea, pathBounds } from './path-measure';

// Shapes combined: what borders the result is kept of the outlines, each stretch with the curve, the anchors and the marks it
// had; pieces of one segment that meet again are one segment again.

/** Ways to combine shapes, the lowest first. */
export const COMBININGS = ['add', 'bite', 'overlap', 'either'] as const;
export type Combining = (typeof COMBININGS)[number];

/** Whether a place is in the result, by whether it is inside each shape. */
const INSIDE: Readonly<Record<Combining, (inside: readonly boolean[]) => boolean>> = {
  add: (inside) => inside.some(Boolean),
  bite: ([lowest, ...others]) => lowest === true && !others.some(Boolean),
  overlap: (inside) => inside.every(Boolean),
  either: (inside) => inside.reduce((odd, one) => odd !== one, false),
};

/** A stretch as it is walked along a border, the inside on its right. */
interface Walked {
  readonly stretch: Stretch;
  readonly forward: boolean;
}

const startOf = ({ stretch, forward }: Walked): number => (forward ? stretch.start : stretch.end);
const endOf = ({ stretch, forward }: Walked): number => (forward ? stretch.end : stretch.start);
const cubicOf = ({ stretch, forward }: Walked): Cubic =>
  forward ? stretch.cubic : reversedCubic(stretch.cubic);

/** How far along a stretch it is looked where it goes, so that two that begin in one direction are told apart. */
const AHEAD = 0.05;
const angleFrom = (a: Point, b: Point): number => Math.atan2(b.y - a.y, b.x - a.x);
const wayOut = (w: Walked): number => angleFrom(cubicOf(w)[0], cubicPoint(cubicOf(w), AHEAD));
const wayBack = (w: Walked): number => angleFrom(cubicOf(w)[3], cubicPoint(cubicOf(w), 1 - AHEAD));

const TURN = 2 * Math.PI;

/** Borders of what `has` holds of, each a closed run of stretches with the inside on its right. */
function loops({ stretches }: Arrangement, has: (inside: readonly boolean[]) => boolean): Walked[][] {
  const border = stretches.flatMap((stretch): Walked[] => {
    const [left, right] = [has(stretch.left), has(stretch.right)];
    return left === right ? [] : [{ stretch, forward: right }];
  });
  const leaving = new Map<number, Walked[]>();
  for (const one of border) leaving.set(startOf(one), [...(leaving.get(startOf(one)) ?? []), one]);
  const free = new Set(border);
  const out: Walked[][] = [];
  for (const first of border) {
    if (!free.has(first)) continue;
    const loop = [first];
    free.delete(first);
    const home = startOf(first);
    while (endOf(loop.at(-1)!) !== home) {
      const last = loop.at(-1)!;
      const back = wayBack(last);
      // The next one round the inside: where several leave, the first that is met on the right.
      const next = (leaving.get(endOf(last)) ?? [])
        .filter((one) => free.has(one))
        .map((one) => ({ one, turn: (((back - wayOut(one)) % TURN) + TURN) % TURN }))
        .reduce<{ one: Walked; turn: number } | null>(
          (best, c) => (!best || c.turn < best.turn ? c : best),
          null,
        );
      if (!next) break;
      loop.push(next.one);
      free.delete(next.one);
    }
    if (endOf(loop.at(-1)!) === home) out.push(loop);
  }
  return out;
}

/** A run along one segment of an outline, forward or against it. */
interface Run {
  readonly shape: number;
  readonly path: number;
  readonly segment: number;
  from: number;
  to: number;
  readonly against: boolean;
  start: number;
  end: number;
}

/** Parameters so near each other are one place of a segment. */
const ONE_PARAMETER = 1e-6;

/** A loop as runs along segments: stretches of one segment that follow one another are one run. */
function runsOf(loop: readonly Walked[]): Run[] {
  const out: Run[] = [];
  const againstOf = (w: Walked, s: Source): boolean => w.forward === s.reversed;
  const goesOn = (run: Run, w: Walked, s: Source): boolean =>
    run.shape === s.shape &&
    run.path === s.path &&
    run.segment === s.segment &&
    run.against === againstOf(w, s) &&
    Math.abs(run.against ? run.from - s.to : s.from - run.to) < ONE_PARAMETER;
  for (const w of loop) {
    const last = out.at(-1);
    const same = last && w.stretch.sources.find((s) => goesOn(last, w, s));
    if (last && same) {
      if (last.against) last.from = same.from;
      else last.to = same.to;
      last.end = endOf(w);
      continue;
    }
    // Where borders are in common, the one that the line before ran along goes on.
    const s = (last && w.stretch.sources.find((one) => one.shape === last.shape)) ?? w.stretch.sources[0]!;
    out.push({ ...s, against: againstOf(w, s), start: startOf(w), end: endOf(w) });
  }
  const [first, last] = [out[0], out.at(-1)];
  const round =
    first &&
    last &&
    first !== last &&
    first.shape === last.shape &&
    first.path === last.path &&
    first.segment === last.segment &&
    first.against === last.against && // prettier-ignore
    Math.abs(first.against ? last.from - first.to : first.from - last.to) < ONE_PARAMETER;
  if (!round) return out;
  if (first.against) first.to = last.to;
  else first.from = last.from;
  first.start = last.start;
  return out.slice(0, -1);
}

/** The anchor at which a run ends, where it ends at one. */
function anchorAtEnd(run: Run, path: Path): Anchor | null {
  const n = path.anchors.length;
  if (run.against) return run.from < ONE_PARAMETER ? path.anchors[run.segment]! : null;
  return run.to > 1 - ONE_PARAMETER ? path.anchors[(run.segment + 1) % n]! : null;
}
function anchorAtStart(run: Run, path: Path): Anchor | null {
  const n = path.anchors.length;
  if (run.against) return run.to > 1 - ONE_PARAMETER ? path.anchors[(run.segment + 1) % n]! : null;
  return run.from < ONE_PARAMETER ? path.anchors[run.segment]! : null;
}

/** A closed path along a loop. */
function pathAlong(
  loop: readonly Walked[],
  { vertices }: Arrangement,
  shapes: readonly (readonly Path[])[],
  id: string,
): Path {
  const runs = runsOf(loop);
  const cubics = runs.map((run): { cubic: Cubic; straight: boolean } => {
    const path = shapes[run.shape]![run.path]!;
    // The last segment of an open path is the line that a fill closes it with.
    const closing = run.segment >= segmentCount(path);
    const [from, to] = [path.anchors[run.segment]!, path.anchors[(run.segment + 1) % path.anchors.length]!];
    const whole = closing
      ? cubicBetween({ ...from, out: null }, { ...to, in: null })
      : cubicBetween(from, to);
    const part = subCubic(whole, run.from, run.to);
    return {
      cubic: run.against ? reversedCubic(part) : part,
      straight: closing || segmentIsLine(path, run.segment),
    };
  });
  const anchors = runs.map((run, i): Anchor => {
    const before = (i + runs.length - 1) % runs.length;
    const at = vertices[run.start]!;
    const [arriving, leaving] = [cubics[before]!, cubics[i]!];
    const into = arriving.straight ? null : handleOrNone(subtract(arriving.cubic[2], arriving.cubic[3]));
    const out = leaving.straight ? null : handleOrNone(subtract(leaving.cubic[1], leaving.cubic[0]));
    const own = anchorAtStart(run, shapes[run.shape]![run.path]!);
    const earlier = runs[before]!;
    const kept = own && own === anchorAtEnd(earlier, shapes[earlier.shape]![earlier.path]!);
    const { x, y } = at;
    if (kept) {
      const turned = run.against ? turnedAnchor(own) : own;
      return withFittingKind({ ...withoutMark(turned, 'shared'), kind: own.kind === 'corner' ? 'corner' : 'smooth', x, y, in: into, out }); // prettier-ignore
    }
    const smooth = into && out && inLine(into, out);
    return { x, y, kind: smooth ? 'smooth' : 'corner', in: into, out };
  });
  return { id, closed: true, anchors };
}

/** Loops that are no more than a hair: there and back along one line. */
const ONE_HAIR = 1e-9;

function pathsOf(
  arrangement: Arrangement,
  has: (inside: readonly boolean[]) => boolean,
  shapes: readonly (readonly Path[])[],
  idOf: (n: number) => string,
): Path[] {
  const all = shapes.flat();
  const sizes = all.map(pathBounds).map((b) => Math.max(b.x1 - b.x0, b.y1 - b.y0));
  const least = ONE_HAIR * Math.max(0, ...sizes) ** 2;
  return loops(arrangement, has)
    .map((loop, n) => pathAlong(loop, arrangement, shapes, idOf(n)))
    .filter((path) => path.anchors.length > 1 && Math.abs(pathArea(path)) > least);
}

/**
 * Combines shapes into one: Add (what any has), Bite (the lowest without the others), Overlap only (what all have), Not both
 * (what an odd number of them has).
 *
 * @param shapes outlines of each, the lowest first, inside by the even-odd rule, in one unit; open ones as a fill closes them
 * @param idOf names the nth path of the result
 * @returns closed paths, inside by the even-odd rule; none where nothing is left
 */
export const combine = (
  shapes: readonly (readonly Path[])[],
  way: Combining,
  idOf: (n: number) => string,
): Path[] => pathsOf(arrange(shapes), INSIDE[way], shapes, idOf);

/** A piece of shapes that were split up at each other's outlines. */
export interface SplitPiece {
  readonly paths: readonly Path[];
  /** Which of the shapes it was inside. */
  readonly inside: readonly boolean[];
}

/**
 * Splits shapes up at each other's outlines: every area that lies in the same ones of them is a piece of its own, islands apart.
 * As `combine` otherwise.
 */
export const splitUp = (shapes: readonly (readonly Path[])[], idOf: (n: number) => string): SplitPiece[] =>
  splitBy(arrange(shapes), shapes, idOf);

function splitBy(
  arrangement: Arrangement,
  shapes: readonly (readonly Path[])[],
  idOf: (n: number) => string,
): SplitPiece[] {
  const keyOf = (inside: readonly boolean[]): string => inside.map((v) => (v ? '1' : '0')).join('');
  // Stretches by what lies on their sides: each kind of area is bordered by its own alone.
  const kinds = new Map<string, { inside: readonly boolean[]; stretches: Stretch[] }>();
  for (const stretch of arrangement.stretches)
    for (const side of [stretch.left, stretch.right]) {
      if (!side.some(Boolean)) continue;
      const kind = kinds.get(keyOf(side)) ?? { inside: side, stretches: [] };
      kind.stretches.push(stretch);
      kinds.set(keyOf(side), kind);
    }
  let count = 0;
  return [...kinds].flatMap(([key, { inside, stretches }]) => {
    const own = { ...arrangement, stretches: [...new Set(stretches)] };
    const has = (side: readonly boolean[]): boolean => keyOf(side) === key;
    const paths = pathsOf(own, has, shapes, () => idOf(count++));
    return apart(paths).map((piece): SplitPiece => ({ paths: piece, inside }));
  });
}

/** What shapes become by every way: each of one piece or none, split up of as many as there are. */
export type Combined = Readonly<Record<Combining | 'split', readonly SplitPiece[]>>;

/** All ways worked out at once, as `combine` and `splitUp` do. */
export function combineAll(shapes: readonly (readonly Path[])[], idOf: (n: number) => string): Combined {
  const arrangement = arrange(shapes);
  const inside = shapes.map(() => true);
  const whole = (way: Combining): SplitPiece[] => {
    const paths = pathsOf(arrangement, INSIDE[way], shapes, idOf);
    return paths.length > 0 ? [{ paths, inside }] : [];
  };
  return {
    add: whole('add'),
    bite: whole('bite'),
    overlap: whole('overlap'),
    either: whole('either'),
    split: splitBy(arrangement, shapes, idOf),
  };
}

/** Outlines with the holes that lie in each. The inside is on the right of all of them: holes run the other way round. */
function apart(paths: readonly Path[]): Path[][] {
  const outer = paths.filter((path) => pathArea(path) > 0);
  const out = outer.map((path) => ({ paths: [path], polygon: flattenPath(path, 1e-4 * sizeOf(path)), area: pathArea(path) })); // prettier-ignore
  for (const hole of paths.filter((path) => pathArea(path) <= 0)) {
    const [a] = hole.anchors;
    const around = out
      .filter(
        ({ paths: [path], polygon }) =>
          boxHas(pathBounds(path!), a!) && insideEvenOdd([polygon], innerPoint(hole)),
      )
      .sort((one, other) => one.area - other.area)[0];
    around?.paths.push(hole);
  }
  return out.map(({ paths: own }) => own);
}

const sizeOf = (path: Path): number => {
  const b = pathBounds(path);
  return Math.max(b.x1 - b.x0, b.y1 - b.y0);
};

/** A point just inside a path: beside the middle of its first segment. */
function innerPoint(path: Path): Point {
  const polygon = flattenPath(path, 1e-3 * sizeOf(path));
  const [p, q] = [polygon[0]!, polygon[1 % polygon.length]!];
  return { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
}
