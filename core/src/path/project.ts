import { cubicPoint } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { negate, subtract, unit, type Point } from '../geometry/vector';
import { fitCubic } from './fit';
import { freezeFlow } from './flow';
import { pathCubics, segmentCubic, segmentIsLine, tangentAt, type Path } from './path';
import type { Anchor, HandleSide } from './anchor';

const SAMPLES = 32;

/** A path seen through a map that keeps straight lines straight, and how far it lies from the truth at most. */
export interface Projected {
  readonly path: Path;
  /** Largest distance of the exactly mapped line from the new one, in the target's unit. */
  readonly error: number;
}

/**
 * A path through a projective map. Anchors go exactly where they are seen and kinds stay; a cubic seen in perspective
 * is no cubic, so each curved segment is fitted anew, leaving and arriving in the directions that are seen.
 *
 * Flowing anchors become smooth: in perspective the curve is not what they would work out.
 *
 * @param map where a point is seen; must be smooth near the path
 */
export function projectPath(flowing: Path, map: (p: Point) => Point): Projected {
  const path = freezeFlow(flowing);
  const n = path.anchors.length;
  const seenTangent = (i: number, side: HandleSide): Point | null => {
    const a = path.anchors[i]!;
    const t = tangentAt(path, i, side);
    if (!t) return null;
    const step = 1e-4 * Math.max(1, Math.hypot(a.x, a.y) * 1e-3);
    const ahead = map({ x: a.x + t.x * step, y: a.y + t.y * step });
    const behind = map({ x: a.x - t.x * step, y: a.y - t.y * step });
    return unit(subtract(ahead, behind));
  };
  const anchors: Anchor[] = path.anchors.map((a) => ({ ...a, ...map(a), in: null, out: null }));
  pathCubics(path).forEach((c, i) => {
    if (segmentIsLine(path, i)) return;
    const next = (i + 1) % n;
    const points = Array.from({ length: SAMPLES + 1 }, (_, k) => map(cubicPoint(c, k / SAMPLES)));
    const arriving = seenTangent(next, 'in');
    const fitted = fitCubic(points, seenTangent(i, 'out'), arriving && negate(arriving));
    anchors[i] = { ...anchors[i]!, out: subtract(fitted[1], fitted[0]) };
    anchors[next] = { ...anchors[next]!, in: subtract(fitted[2], fitted[3]) };
  });
  const seen: Path = { ...path, anchors };
  let error = 0;
  pathCubics(path).forEach((c, i) => {
    if (segmentIsLine(path, i)) return;
    const drawn = segmentCubic(seen, i);
    for (let k = 0; k <= 2 * SAMPLES; k++)
      error = Math.max(error, nearestOnCubic(drawn, map(cubicPoint(c, k / (2 * SAMPLES)))).distance);
  });
  return { path: seen, error };
}
