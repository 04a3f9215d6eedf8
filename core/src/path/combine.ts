import { arrange, type Arrangement } from './arrangement';
import type { Rounds } from './stretch';
import { pathAlong } from './along';
import { facesOf, facesOfLoops, type Face } from './faces';
import { type Path } from './path';
import { pathArea, pathBounds } from './path-measure';
import { loopsOf, type Walked } from './walk';

// Shapes combined: what borders the result is kept of the outlines, each stretch with the curve, the anchors and the marks it
// had; pieces of one segment that meet again are one segment again.

/** Ways to combine shapes, the lowest first. */
export const COMBININGS = ['add', 'bite', 'overlap', 'either'] as const;
export type Combining = (typeof COMBININGS)[number];

/** The shapes that a place is inside, by the even-odd rule. */
const shapesAt = (round: Rounds): number[] =>
  [...round].flatMap(([shape, n]) => (n % 2 !== 0 ? [shape] : []));

/** Whether a place is in the result, by the shapes that it is inside and how many there are. */
const INSIDE: Readonly<Record<Combining, (inside: readonly number[], count: number) => boolean>> = {
  add: (inside) => inside.length > 0,
  bite: (inside) => inside.length === 1 && inside[0] === 0,
  overlap: (inside, count) => inside.length === count,
  either: (inside) => inside.length % 2 !== 0,
};

/** Loops that are no more than a hair: there and back along one line. */
const ONE_HAIR = 1e-9;

/** The least area that is no hair, in the arrangement's unit squared. */
function leastArea({ members }: Arrangement): number {
  let size = 0;
  for (const path of members.flat()) {
    const b = pathBounds(path);
    size = Math.max(size, b.x1 - b.x0, b.y1 - b.y0);
  }
  return ONE_HAIR * size ** 2;
}

/** Loops round all places of which `has` holds, these on the right. It is told how often each shape runs round a place. */
const bordersOf = (arrangement: Arrangement, has: (round: Rounds) => boolean): Walked[][] =>
  loopsOf(
    arrangement.stretches.flatMap((stretch): Walked[] => {
      const [left, right] = [has(stretch.left), has(stretch.right)];
      return left === right ? [] : [{ stretch, forward: right }];
    }),
    arrangement,
  );

/**
 * What borders all places of which `has` holds, what hangs together apart: each piece its outline first, then its holes.
 *
 * @param has is told how many times the outlines of each shape run round a place
 */
export function borderPieces(
  arrangement: Arrangement,
  has: (round: Rounds) => boolean,
  idOf: (n: number) => string,
): Path[][] {
  return piecesAlong(facesOfLoops(bordersOf(arrangement, has)), arrangement, idOf).map(({ paths }) => paths);
}

/** Faces as paths, those left out that are no more than a hair. */
export function piecesAlong(
  faces: readonly Face[],
  arrangement: Arrangement,
  idOf: (n: number) => string,
): { readonly face: Face; readonly paths: Path[] }[] {
  const least = leastArea(arrangement);
  let count = 0;
  return faces
    .map((face) => ({ face, paths: pathsAlong(face.loops, arrangement, () => idOf(count++), least) }))
    .filter(({ paths }) => paths.length > 0);
}

/** Paths along loops, without those whose area is that of a hair, or less. */
function pathsAlong(
  loops: readonly (readonly Walked[])[],
  arrangement: Arrangement,
  idOf: (n: number) => string,
  least = leastArea(arrangement),
): Path[] {
  return loops
    .map((loop, n) => pathAlong(loop, arrangement, idOf(n)))
    .filter((path) => path.anchors.length > 1 && Math.abs(pathArea(path)) > least);
}

const combined = (
  arrangement: Arrangement,
  way: Combining,
  count: number,
  idOf: (n: number) => string,
): Path[] =>
  pathsAlong(
    bordersOf(arrangement, (round) => INSIDE[way](shapesAt(round), count)),
    arrangement,
    idOf,
  );

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
): Path[] => combined(arrange(shapes), way, shapes.length, idOf);

/** A piece of shapes that were split up at each other's outlines. */
export interface SplitPiece {
  readonly paths: readonly Path[];
  /** Which of the shapes it was inside. */
  readonly inside: readonly boolean[];
}

/**
 * Splits shapes up at each other's outlines, and at lines that go all the way across: every area that none of them divides is
 * a piece of its own. As `combine` otherwise.
 *
 * @param lines cut, and have no inside
 */
export const splitUp = (
  shapes: readonly (readonly Path[])[],
  idOf: (n: number) => string,
  lines: readonly Path[] = [],
): SplitPiece[] => piecesOf(arrange(shapes, lines), shapes.length, idOf);

function piecesOf(arrangement: Arrangement, count: number, idOf: (n: number) => string): SplitPiece[] {
  const insideOf = ({ loops }: Face): number[] => {
    const { stretch, forward } = loops[0]![0]!;
    return shapesAt(forward ? stretch.right : stretch.left);
  };
  const faces = facesOf(arrangement).filter((face) => insideOf(face).length > 0);
  return piecesAlong(faces, arrangement, idOf).map(({ face, paths }) => {
    const inside = new Set(insideOf(face));
    return { paths, inside: Array.from({ length: count }, (_, shape) => inside.has(shape)) };
  });
}

/** What shapes become by every way: each of one piece or none, split up of as many as there are. */
export type Combined = Readonly<Record<Combining | 'split', readonly SplitPiece[]>>;

/** All ways worked out at once, as `combine` and `splitUp` do. Lines only cut what is split up. */
export function combineAll(
  shapes: readonly (readonly Path[])[],
  idOf: (n: number) => string,
  lines: readonly Path[] = [],
): Combined {
  const arrangement = arrange(shapes, lines);
  const inside = shapes.map(() => true);
  const whole = (way: Combining): SplitPiece[] => {
    const paths = combined(arrangement, way, shapes.length, idOf);
    return paths.length > 0 ? [{ paths, inside }] : [];
  };
  return {
    add: whole('add'),
    bite: whole('bite'),
    overlap: whole('overlap'),
    either: whole('either'),
    split: piecesOf(arrangement, shapes.length, idOf),
  };
}
