import { cubicPoint, reversedCubic, type Cubic } from '../geometry/cubic';
import { distance, type Point } from '../geometry/vector';
import type { Arrangement } from './arrangement';
import type { Stretch } from './stretch';

// Stretches of an arrangement walked one after another, what is bordered always on the right.

/** A stretch as it is walked: along it or against it. */
export interface Walked {
  readonly stretch: Stretch;
  readonly forward: boolean;
}

export const startOf = ({ stretch, forward }: Walked): number => (forward ? stretch.start : stretch.end);
export const endOf = ({ stretch, forward }: Walked): number => (forward ? stretch.end : stretch.start);
export const cubicOf = ({ stretch, forward }: Walked): Cubic =>
  forward ? stretch.cubic : reversedCubic(stretch.cubic);
export const turnedBack = ({ stretch, forward }: Walked): Walked => ({ stretch, forward: !forward });

/**
 * Stretches in the order they are walked as runs that hang together: a new one begins where a stretch does not begin at the
 * end of the one before, or at a vertex where they are cut. Round the beginning of a closed line a run goes on.
 */
export function runsAlong(
  walked: readonly Walked[],
  closed: boolean,
  isCut: (vertex: number) => boolean = () => false,
): Walked[][] {
  const goesOn = (before: Walked, after: Walked): boolean =>
    endOf(before) === startOf(after) && !isCut(startOf(after));
  const runs: Walked[][] = [];
  for (const one of walked) {
    const last = runs.at(-1);
    if (last && goesOn(last.at(-1)!, one)) last.push(one);
    else runs.push([one]);
  }
  const [first, last] = [runs[0], runs.at(-1)];
  if (closed && first && last && first !== last && goesOn(last.at(-1)!, first[0]!)) {
    runs[0] = [...last, ...first];
    runs.pop();
  }
  return runs;
}

/** Ways out of a vertex are told apart at this share of the way to the nearest other end, */
const NEAR_SHARE = 0.1;
/** but at this many times what points may lie apart at least: nearer they say nothing. */
const LEAST_TIMES = 32;
const BISECTIONS = 20;
/** Ways whose directions differ by less, radians, are told apart farther on, up to this share of the shorter one's reach. */
const ALIKE_RADIANS = 0.05;
const FAR_SHARE = 0.5;
/** They lie apart where it is more than so many times what points may lie apart. */
const APART_TIMES = 16;
const TURN = 2 * Math.PI;

/** An angle as at most half a turn either way. */
const halfTurn = (angle: number): number => angle - TURN * Math.round(angle / TURN);

/** Where a curve first is so far from the place where it begins; its end where it never is. */
function pointAtDistance(c: Cubic, from: Point, far: number): Point {
  let [low, high] = [0, 1];
  for (let i = 0; i < BISECTIONS; i++) {
    const middle = (low + high) / 2;
    if (distance(cubicPoint(c, middle), from) < far) low = middle;
    else high = middle;
  }
  return cubicPoint(c, high);
}

/** How far a curve goes from its beginning: told by its end, or by its middle where it ends where it began. */
const reachOf = (c: Cubic): number => Math.max(distance(c[0], c[3]), distance(c[0], cubicPoint(c, 0.5)));

/**
 * What of all that is walked comes after another at its end, round what lies on the right. All that leave a vertex are
 * compared where they are as far from it, so that those that leave in one direction are told apart by how they bend.
 *
 * @param walked every way a stretch may be walked
 * @returns of a walked one the next, of those that are still free
 */
export function nextRound(
  walked: readonly Walked[],
  { vertices, within }: Pick<Arrangement, 'vertices' | 'within'>,
): (last: Walked, free: (one: Walked) => boolean) => Walked | null {
  const leaving = new Map<number, Walked[]>();
  const reaches = new Map<number, number>();
  const touch = (vertex: number, cubic: Cubic): void =>
    void reaches.set(vertex, Math.min(reaches.get(vertex) ?? Infinity, reachOf(cubic)));
  for (const one of walked) {
    const list = leaving.get(startOf(one));
    if (list) list.push(one);
    else leaving.set(startOf(one), [one]);
    touch(startOf(one), cubicOf(one));
    touch(endOf(one), cubicOf(turnedBack(one)));
  }
  const known = [new Map<Stretch, number>(), new Map<Stretch, number>()] as const;
  const angleAt = (one: Walked, far: number): number => {
    const at = vertices[startOf(one)]!;
    const p = pointAtDistance(cubicOf(one), at, far);
    return Math.atan2(p.y - at.y, p.x - at.x);
  };
  const angleOut = (one: Walked): number => {
    const angles = known[one.forward ? 0 : 1];
    let angle = angles.get(one.stretch);
    if (angle === undefined) {
      angle = angleAt(one, Math.max(NEAR_SHARE * reaches.get(startOf(one))!, LEAST_TIMES * within));
      angles.set(one.stretch, angle);
    }
    return angle;
  };
  /** How much farther clockwise one way out leads than another, up to half a turn either way. */
  const between = (from: Walked, to: Walked): number => {
    const near = halfTurn(angleOut(to) - angleOut(from));
    if (Math.abs(near) > ALIKE_RADIANS) return near;
    // Nearly alike they are told apart farther on, where they lie apart: they do not cross, so whichever lies on one side
    // stays there.
    const most = FAR_SHARE * Math.min(reachOf(cubicOf(from)), reachOf(cubicOf(to)));
    let far = LEAST_TIMES * within;
    for (; far < most; far *= 2) {
      const gap = halfTurn(angleAt(to, far) - angleAt(from, far));
      if (Math.abs(gap) * far > APART_TIMES * within) return gap;
    }
    return halfTurn(angleAt(to, most) - angleAt(from, most));
  };
  return (last, free) => {
    const ways = (leaving.get(endOf(last)) ?? []).filter(free);
    if (ways.length < 2) return ways[0] ?? null;
    const back = turnedBack(last);
    const turnOf = (one: Walked): number => {
      // Back along what was walked comes last of all.
      if (one.stretch === last.stretch && one.forward !== last.forward) return TURN;
      const turn = between(one, back);
      return turn < 0 ? turn + TURN : turn;
    };
    return ways.reduce((best, one) => {
      const [a, b] = [turnOf(one), turnOf(best)];
      if (Math.abs(a - b) > ALIKE_RADIANS || a === TURN || b === TURN) return a < b ? one : best;
      return between(best, one) > 0 ? one : best;
    });
  };
}

/** Borders of what lies on the right of all that is walked, each a closed run. */
export function loopsOf(border: readonly Walked[], arrangement: Arrangement): Walked[][] {
  const nextOf = nextRound(border, arrangement);
  const free = new Set(border);
  const out: Walked[][] = [];
  for (const first of border) {
    if (!free.delete(first)) continue;
    const loop = [first];
    const home = startOf(first);
    while (endOf(loop.at(-1)!) !== home) {
      const next = nextOf(loop.at(-1)!, (one) => free.has(one));
      if (!next) break;
      loop.push(next);
      free.delete(next);
    }
    if (endOf(loop.at(-1)!) === home) out.push(loop);
  }
  return out;
}
