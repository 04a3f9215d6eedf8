import Flatbush from 'flatbush';
import { boxOfPoints } from '../geometry/bounds';
import { cubicPoint, cubicTangent } from '../geometry/cubic';
import { cubicLineIntersections } from '../geometry/intersect';
import { cross, dot, subtract, type Point } from '../geometry/vector';
import type { Cut, Rounds, Stretch } from './stretch';

// What lies on either side of a stretch is counted, not followed round: no error at one place spreads to another.

/**
 * Directions in which it is looked what lies beside a stretch, none along what people draw. The first are nearly level and nearly
 * upright: the box about such a ray is thin, and little else lies in it.
 */
const RAY_WAYS: readonly Point[] = [0.0123, 1.5567, 1.0471, 2.2199].map((angle) => ({ x: Math.cos(angle), y: Math.sin(angle) })); // prettier-ignore

/** Adds to a count that is left out where it is 0. */
function count(round: Map<number, number>, shape: number, by: number): void {
  const sum = (round.get(shape) ?? 0) + by;
  if (sum === 0) round.delete(shape);
  else round.set(shape, sum);
}

const sameRounds = (a: Rounds, b: Rounds): boolean =>
  a.size === b.size && [...a].every(([shape, n]) => b.get(shape) === n);

interface Sides {
  readonly left: Rounds;
  readonly right: Rounds;
}
const NONE: Sides = { left: new Map(), right: new Map() };

/** Shares of a stretch from which rays go out. */
const RAY_STARTS = [0.5, 0.37, 0.71];
/** A ray that leaves a stretch at less than this sine runs along it. */
const SLANT_SINE = 0.2;
/** A ray leads out of everything after so many times the size. */
const RAY_SIZES = 1.5;
/** A ray that keeps so far from all ends of stretches, as a share of the size, cannot be mistaken. */
const CLEAR_SHARE = 1e-5;

/**
 * How often each shape's outlines run round either side of each stretch: by a ray from its middle, along which all others
 * are counted, ahead and behind; both have to agree. What goes on from it with nothing else there has the same sides.
 *
 * @param shapes how many members have an inside; sources of others count for nothing
 * @param size of the whole
 */
export function withSides(cuts: readonly Cut[], shapes: number, size: number): Stretch[] {
  if (cuts.length === 0 || shapes === 0) return cuts.map((own) => ({ ...own, ...NONE }));
  const index = new Flatbush(cuts.length);
  for (const { cubic } of cuts) {
    const b = boxOfPoints(cubic);
    index.add(b.x0, b.y0, b.x1, b.y1);
  }
  index.finish();
  const flat = new Float64Array(8 * cuts.length);
  cuts.forEach(({ cubic }, n) =>
    cubic.forEach((p, i) => {
      flat[8 * n + 2 * i] = p.x;
      flat[8 * n + 2 * i + 1] = p.y;
    }),
  );
  // How many times more a shape's outlines run round the right side of a stretch than round its left.
  const steps = cuts.map(({ sources }) => {
    const net = new Map<number, number>();
    for (const { member, reversed } of sources) if (member < shapes) count(net, member, reversed ? -1 : 1);
    return net;
  });

  function sidesOf(own: Cut, n: number): Sides {
    let best: (Sides & { readonly clear: number; readonly sure: boolean }) | null = null;
    for (const share of RAY_STARTS) {
      const from = cubicPoint(own.cubic, share);
      const tangent = cubicTangent(own.cubic, share);
      for (const way of RAY_WAYS) {
        const slant = cross(tangent, way) / (Math.hypot(tangent.x, tangent.y) || 1);
        if (Math.abs(slant) < SLANT_SINE) continue;
        const [ahead, behind] = [new Map<number, number>(), new Map<number, number>()];
        /** How near the ray comes to what would make a count doubtful: ends of stretches, and its own beginning. */
        let clear = Infinity;
        const end = (k: number): Point => ({ x: from.x + way.x * k, y: from.y + way.y * k });
        const box = boxOfPoints([end(-RAY_SIZES * size), end(RAY_SIZES * size)]);
        for (const k of index.search(box.x0, box.y0, box.x1, box.y1)) {
          // Most lie on one side of the ray: told from their control points, laid out so that it costs nothing.
          const o = 8 * k;
          const first = way.x * (flat[o + 1]! - from.y) - way.y * (flat[o]! - from.x);
          const second = way.x * (flat[o + 3]! - from.y) - way.y * (flat[o + 2]! - from.x);
          const third = way.x * (flat[o + 5]! - from.y) - way.y * (flat[o + 4]! - from.x);
          const last = way.x * (flat[o + 7]! - from.y) - way.y * (flat[o + 6]! - from.x);
          if (first > 0 === second > 0 && first > 0 === third > 0 && first > 0 === last > 0 && first !== 0)
            continue;
          const { cubic } = cuts[k]!;
          for (const { t, point } of cubicLineIntersections(cubic, from, way)) {
            const along = dot(subtract(point, from), way);
            if (k === n && Math.abs(t - share) < 1e-6) continue;
            clear = Math.min(clear, Math.abs(along), Math.abs(first), Math.abs(last));
            if (steps[k]!.size === 0) continue;
            const across = Math.sign(cross(cubicTangent(cubic, t), way));
            for (const [shape, net] of steps[k]!)
              if (along > 0) count(ahead, shape, -across * net);
              else count(behind, shape, across * net);
          }
        }
        // With y down the right side lies where the cross product with the tangent is positive.
        const toRight = slant > 0;
        const told = new Map(ahead);
        for (const [shape, net] of steps[n]!) count(told, shape, toRight ? -net : net);
        const sure = sameRounds(told, behind);
        if (!best || (sure && !best.sure) || (sure === best.sure && clear > best.clear))
          best = { left: toRight ? told : ahead, right: toRight ? ahead : told, clear, sure };
        if (best.sure && best.clear > CLEAR_SHARE * size) return best;
      }
    }
    return best ?? NONE;
  }

  // Where just two stretches meet, the one goes on from the other.
  const meeting = new Map<number, number[]>();
  cuts.forEach(({ start, end }, n) => {
    for (const vertex of [start, end]) {
      const list = meeting.get(vertex);
      if (list) list.push(n);
      else meeting.set(vertex, [n]);
    }
  });
  const sides = new Array<Sides | undefined>(cuts.length);
  cuts.forEach((own, first) => {
    if (sides[first]) return;
    sides[first] = sidesOf(own, first);
    const waiting = [first];
    for (let n = waiting.pop(); n !== undefined; n = waiting.pop())
      for (const vertex of [cuts[n]!.start, cuts[n]!.end]) {
        const [a, b, ...others] = meeting.get(vertex)!;
        const next = a === n ? b : a;
        if (next === undefined || others.length > 0 || sides[next]) continue;
        const along = (cuts[n]!.end === vertex) === (cuts[next]!.start === vertex);
        const { left, right } = sides[n]!;
        sides[next] = along ? { left, right } : { left: right, right: left };
        waiting.push(next);
      }
  });
  return cuts.map((own, n) => ({ ...own, left: sides[n]!.left, right: sides[n]!.right }));
}
