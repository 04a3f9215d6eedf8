import Flatbush from 'flatbush';
import { boxOfPoints } from '../geometry/bounds';
import { cubicPoint, cubicTangent } from '../geometry/cubic';
import { cubicLineIntersections } from '../geometry/intersect';
import { cross, dot, subtract, type Point } from '../geometry/vector';
import type { Cut, Stretch } from './arrangement';

// What lies on either side of a stretch is counted, not followed round: no error at one place spreads to another.

/** Directions in which it is looked what lies beside a stretch: none along what people draw. */
const WAYS: readonly Point[] = [0.1234, 1.0471, 2.2199, 2.9013].map((angle) => ({ x: Math.cos(angle), y: Math.sin(angle) })); // prettier-ignore

/**
 * How often each shape's outlines run round either side of each stretch: by a ray from its middle, along which all others
 * are counted.
 *
 * @param shapes how many members have an inside; sources of others count for nothing
 * @param size of the whole
 */
export function withSides(loose: readonly Cut[], shapes: number, size: number): Stretch[] {
  if (loose.length === 0 || shapes === 0) return loose.map((own) => ({ ...own, left: [], right: [] }));
  const index = new Flatbush(loose.length);
  for (const { cubic } of loose) {
    const b = boxOfPoints(cubic);
    index.add(b.x0, b.y0, b.x1, b.y1);
  }
  index.finish();
  const far = 4 * size;
  // How many times more a shape's outlines run round the right side of a stretch than round its left.
  const steps = loose.map(({ sources }) => {
    const net = new Map<number, number>();
    for (const { member, reversed } of sources)
      if (member < shapes) net.set(member, (net.get(member) ?? 0) + (reversed ? -1 : 1));
    return [...net];
  });
  return loose.map((own, n): Stretch => {
    let best: { round: number[]; clear: number; slant: number; sure: boolean } | null = null;
    for (const share of [0.5, 0.37, 0.71]) {
      const from = cubicPoint(own.cubic, share);
      const tangent = cubicTangent(own.cubic, share);
      for (const way of WAYS) {
        const slant = cross(tangent, way) / (Math.hypot(tangent.x, tangent.y) || 1);
        if (Math.abs(slant) < 0.2) continue;
        const round = new Array<number>(shapes).fill(0);
        /** The same from the other side, by what lies behind. */
        const roundBehind = new Array<number>(shapes).fill(0);
        /** How near the ray comes to what would make a count doubtful: ends of stretches, and its own beginning. */
        let clear = Infinity;
        const end = (k: number): Point => ({ x: from.x + way.x * k, y: from.y + way.y * k });
        const box = boxOfPoints([end(-far), end(far)]);
        for (const k of index.search(box.x0, box.y0, box.x1, box.y1)) {
          const { cubic } = loose[k]!;
          const off = cubic.map((p) => cross(way, subtract(p, from)));
          if (off.every((v) => v > 0) || off.every((v) => v < 0)) continue;
          for (const { t, point } of cubicLineIntersections(cubic, from, way)) {
            const along = dot(subtract(point, from), way);
            if (k === n && Math.abs(t - share) < 1e-6) continue;
            clear = Math.min(clear, Math.abs(along), Math.abs(off[0]!), Math.abs(off[3]!));
            if (steps[k]!.length === 0) continue;
            const across = Math.sign(cross(cubicTangent(cubic, t), way));
            for (const [shape, net] of steps[k]!)
              if (along > 0) round[shape]! -= across * net;
              else roundBehind[shape]! += across * net;
          }
        }
        // Both counts have to agree on what the stretch itself is between them.
        const agree = roundBehind.map((n, shape) => round[shape]! - n);
        for (const [shape, net] of steps[n]!) agree[shape]! -= slant > 0 ? net : -net;
        const sure = agree.every((v) => v === 0);
        if (!best || (sure && !best.sure) || (sure === best.sure && clear > best.clear))
          best = { round, clear, slant, sure };
        if (best.sure && best.clear > 1e-5 * size) break;
      }
      if (best?.sure && best.clear > 1e-5 * size) break;
    }
    const ahead = best?.round ?? new Array<number>(shapes).fill(0);
    // With y down the right side lies where the cross product with the tangent is positive.
    const toRight = (best?.slant ?? 1) > 0;
    const behind = [...ahead];
    for (const [shape, net] of steps[n]!) behind[shape]! += toRight ? -net : net;
    const [right, left] = toRight ? [ahead, behind] : [behind, ahead];
    return { ...own, left, right };
  });
}
