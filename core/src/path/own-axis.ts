import { add, dot, ORIGIN, scale, subtract, type Point } from '../geometry/vector';
import type { MirrorAxis } from './axis';
import { counterpartIndex } from './pairing';
import type { Path } from './path';

/**
 * The mirror axis that paths' anchors lie about best: for every way a path's anchors can be paired with each other
 * running the other way, the line that brings the pairs together by least squares (through the mean of the anchors,
 * along the main direction of their sums and differences), the nearest of all. Only the longest path is looked at.
 *
 * @returns null for paths with fewer than three anchors
 */
export function ownMirrorAxis(paths: readonly Path[]): MirrorAxis | null {
  const path = paths.reduce<Path | null>((a, b) => (!a || b.anchors.length > a.anchors.length ? b : a), null);
  const n = path?.anchors.length ?? 0;
  if (!path || n < 3) return null;
  const centre = ownCentre(paths);
  const from = path.anchors.map((a) => subtract(a, centre));
  let best: { angle: number; sum: number } | null = null;
  for (let shift = 0; shift < (path.closed ? n : 1); shift++) {
    // Maximise Σ p·M(θ)q over θ: M's matrix is [cos 2θ, sin 2θ; sin 2θ, −cos 2θ].
    let c = 0;
    let s = 0;
    let sum = 0;
    for (let i = 0; i < n; i++) {
      const p = from[i]!;
      const q = from[counterpartIndex(i, n, shift, true)]!;
      c += p.x * q.x - p.y * q.y;
      s += p.x * q.y + p.y * q.x;
      sum += dot(p, p) + dot(q, q);
    }
    const off = sum - 2 * Math.hypot(c, s);
    if (!best || off < best.sum - 1e-9 * sum) best = { angle: Math.atan2(s, c) / 2, sum: off };
  }
  return { kind: 'mirror', x: centre.x, y: centre.y, angle: best!.angle };
}

/** Mean of the anchors of the path that has most: the centre of what turns about itself. */
export function ownCentre(paths: readonly Path[]): Point {
  const path = paths.reduce((a, b) => (b.anchors.length > a.anchors.length ? b : a));
  return scale(path.anchors.reduce<Point>(add, ORIGIN), 1 / path.anchors.length);
}
