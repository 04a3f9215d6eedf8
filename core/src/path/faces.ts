import { cubicArea, cubicPoint, type Cubic } from '../geometry/cubic';
import { boxHas, boxOfPoints, type Box } from '../geometry/bounds';
import { cubicLineIntersections } from '../geometry/intersect';
import { cross, dot, subtract, type Point } from '../geometry/vector';
import type { Arrangement } from './arrangement';
import type { Stretch } from './stretch';
import { onePerCluster } from './clusters';
import { cubicOf, endOf, nextRound, startOf, type Walked } from './walk';

// Areas that the stretches of an arrangement enclose.

/** An enclosed area that no stretch divides. */
export interface Face {
  /** Its border, the area on the right: the outline first, then the outlines of islands in it. */
  readonly loops: readonly (readonly Walked[])[];
}

/** Stretches of which neither end hangs loose, told by taking away those that do until none is left. */
function withoutLooseEnds(stretches: readonly Stretch[]): Stretch[] {
  const at = new Map<number, Set<Stretch>>();
  const beside = (vertex: number): Set<Stretch> => {
    let set = at.get(vertex);
    if (!set) at.set(vertex, (set = new Set()));
    return set;
  };
  for (const stretch of stretches) {
    beside(stretch.start).add(stretch);
    beside(stretch.end).add(stretch);
  }
  const loose = [...at.keys()].filter((vertex) => hangs(vertex));
  // A stretch that ends where it begins is all that a ring needs.
  function hangs(vertex: number): boolean {
    const [only, ...others] = beside(vertex);
    return only !== undefined && others.length === 0 && only.start !== only.end;
  }
  for (let vertex = loose.pop(); vertex !== undefined; vertex = loose.pop()) {
    const [only] = beside(vertex);
    if (!only || !hangs(vertex)) continue;
    const other = only.start === vertex ? only.end : only.start;
    beside(vertex).delete(only);
    beside(other).delete(only);
    if (hangs(other)) loose.push(other);
  }
  return stretches.filter((stretch) => beside(stretch.start).has(stretch));
}

/** All ways round some stretches: each walked once each way, each way in one round. */
function roundsOf(
  all: readonly Walked[],
  stretches: readonly Stretch[],
  nextOf: ReturnType<typeof nextRound>,
): Walked[][] {
  const bordering = new Set(stretches);
  const walked = all.filter(({ stretch }) => bordering.has(stretch));
  const free = new Set(walked);
  const out: Walked[][] = [];
  for (const first of walked) {
    if (!free.delete(first)) continue;
    const round = [first];
    for (;;) {
      const next = nextOf(round.at(-1)!, ({ stretch }) => bordering.has(stretch));
      if (!next || !free.delete(next)) break;
      round.push(next);
    }
    out.push(round);
  }
  return out;
}

/** A round cut where it comes by one vertex twice. */
function simpleLoops(round: readonly Walked[]): Walked[][] {
  const out: Walked[][] = [];
  const open: Walked[] = [];
  for (const one of round) {
    open.push(one);
    const from = open.findIndex((w) => startOf(w) === endOf(one));
    if (from >= 0) out.push(open.splice(from));
  }
  return out;
}

const areaOf = (loop: readonly Walked[]): number => loop.reduce((sum, w) => sum + cubicArea(cubicOf(w)), 0);

/** A direction in which nothing is drawn. */
const RAY: Point = { x: Math.cos(0.7346), y: Math.sin(0.7346) };

interface Outline {
  readonly cubics: readonly Cubic[];
  readonly box: Box;
}
const outlineOf = (loop: readonly Walked[]): Outline => {
  const cubics = loop.map(cubicOf);
  return { cubics, box: boxOfPoints(cubics.flat()) };
};

/** Whether a point lies within a closed run of curves, by how often a ray from it crosses them. */
function isInside({ cubics, box }: Outline, p: Point): boolean {
  if (!boxHas(box, p)) return false;
  let odd = false;
  for (const cubic of cubics) {
    const off = cubic.map((q) => cross(RAY, subtract(q, p)));
    if (off.every((v) => v > 0) || off.every((v) => v < 0)) continue;
    for (const { point } of cubicLineIntersections(cubic, p, RAY))
      if (dot(subtract(point, p), RAY) > 0) odd = !odd;
  }
  return odd;
}

/** An outline with the islands in it. */
interface Piece {
  readonly outer: readonly Walked[];
  readonly holes: (readonly Walked[])[];
  readonly outline: Outline;
  readonly area: number;
}
const pieceOf = (outer: readonly Walked[], holes: (readonly Walked[])[] = []): Piece => ({
  outer,
  holes,
  outline: outlineOf(outer),
  area: areaOf(outer),
});

/** The smallest of pieces that a loop lies in. */
function hostOf<P extends Piece>(loop: readonly Walked[], pieces: readonly P[]): P | null {
  const place = cubicPoint(cubicOf(loop[0]!), 0.5);
  return pieces
    .filter((piece) => isInside(piece.outline, place))
    .reduce<P | null>((least, piece) => (!least || piece.area < least.area ? piece : least), null);
}

/** Loops of a border put together: each outline with the holes in it. The inside is on the right of all of them. */
export function facesOfLoops(loops: readonly (readonly Walked[])[]): Face[] {
  const pieces = loops.filter((loop) => areaOf(loop) > 0).map((loop) => pieceOf(loop));
  for (const loop of loops) if (areaOf(loop) <= 0) hostOf(loop, pieces)?.holes.push(loop);
  return pieces.map(({ outer, holes }) => ({ loops: [outer, ...holes] }));
}

/**
 * The areas that stretches enclose, each with its islands left out. What encloses nothing (loose ends, and lines that only
 * lead from one part to another) is no border.
 *
 * @returns none where nothing is enclosed
 */
export function facesOf(arrangement: Arrangement): Face[] {
  let bordering: readonly Stretch[] = withoutLooseEnds(arrangement.stretches);
  const walked = bordering.flatMap((stretch): Walked[] => [{ stretch, forward: true }, { stretch, forward: false }]); // prettier-ignore
  const nextOf = nextRound(walked, arrangement);
  let rounds: Walked[][] = [];
  for (;;) {
    rounds = roundsOf(walked, bordering, nextOf);
    // What has the same round on both sides divides nothing.
    const roundOf = new Map<Stretch, number>();
    const dividesNothing = new Set<Stretch>();
    rounds.forEach((round, n) =>
      round.forEach(({ stretch }) => {
        if (roundOf.get(stretch) === n) dividesNothing.add(stretch);
        roundOf.set(stretch, n);
      }),
    );
    if (dividesNothing.size === 0) break;
    bordering = withoutLooseEnds(bordering.filter((stretch) => !dividesNothing.has(stretch)));
  }
  const parts = onePerCluster();
  for (const { start, end } of bordering) parts.unite(start, end);
  const faces: (Piece & { readonly part: number })[] = [];
  const around: { readonly loops: Walked[][]; readonly part: number }[] = [];
  for (const round of rounds) {
    const part = parts.find(startOf(round[0]!));
    const loops = simpleLoops(round);
    // A round that does not close, where ways could not be told apart, borders nothing.
    if (loops.length === 0) continue;
    const outer = loops.reduce((best, loop) => (areaOf(loop) > areaOf(best) ? loop : best));
    if (areaOf(round) > 0)
      faces.push({
        ...pieceOf(
          outer,
          loops.filter((l) => l !== outer),
        ),
        part,
      });
    // The outside of a part: it is an island wherever it lies.
    else around.push({ loops, part });
  }
  for (const { loops, part } of around)
    hostOf(
      loops[0]!,
      faces.filter((face) => face.part !== part),
    )?.holes.push(...loops);
  return faces.map(({ outer, holes }) => ({ loops: [outer, ...holes] }));
}
