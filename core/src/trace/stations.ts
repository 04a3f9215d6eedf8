import { toRadians } from '../geometry/angle';
import { cubicCurvature, cubicDerivative, cubicPoint, cubicTangent, type Cubic } from '../geometry/cubic';
import { unit, type Point } from '../geometry/vector';
import { pathArea } from '../path/path-measure';
import { pathCubics, type Path } from '../path/path';

/** An anchor where the line turns by more than this is a corner: the track begins anew. */
export const CORNER = Math.cos(toRadians(25));
/** A place along a path. */
export interface Station {
  readonly segment: number;
  readonly t: number;
  readonly at: Point;
  readonly n: Point;
  readonly weight: number;
  /** Curvature, positive where the path bends away from the positive side. */
  readonly bend: number;
}

/** Places along a cubic at even lengths, about so many pixels apart, in the middles of their stretches. */
function evenly(c: Cubic, spacing: number): { t: number; weight: number }[] {
  const rough = Math.hypot(c[1].x - c[0].x, c[1].y - c[0].y) + Math.hypot(c[2].x - c[1].x, c[2].y - c[1].y) + Math.hypot(c[3].x - c[2].x, c[3].y - c[2].y); // prettier-ignore
  const fine = Math.max(8, Math.min(4000, Math.ceil(rough / 2)));
  const upTo = new Float64Array(fine + 1);
  let before = c[0];
  for (let k = 1; k <= fine; k++) {
    const p = cubicPoint(c, k / fine);
    upTo[k] = upTo[k - 1]! + Math.hypot(p.x - before.x, p.y - before.y);
    before = p;
  }
  const long = upTo[fine]!;
  if (!(long > 0)) return [];
  const count = Math.max(1, Math.round(long / spacing));
  const out: { t: number; weight: number }[] = [];
  let k = 0;
  for (let i = 0; i < count; i++) {
    const s = ((i + 0.5) * long) / count;
    while (k + 1 < fine && upTo[k + 1]! < s) k++;
    const stretch = upTo[k + 1]! - upTo[k]!;
    out.push({ t: (k + (stretch > 0 ? (s - upTo[k]!) / stretch : 0)) / fine, weight: long / count });
  }
  return out;
}

/** Stations in chains between the path's corners; a ring without a corner is one chain that runs on into itself. */
export function chainsOf(path: Path, flip: boolean, spacing: number): { chains: Station[][]; ring: boolean } {
  const cubics = pathCubics(path);
  const left = (path.closed && pathArea(path) < 0 ? -1 : 1) * (flip ? -1 : 1);
  const ends = cubics.map((c) => [unit(cubicTangent(c, 0)), unit(cubicTangent(c, 1))] as const);
  const isCorner = (before: number, after: number): boolean => {
    const [a, b] = [ends[before]?.[1], ends[after]?.[0]];
    return !a || !b || a.x * b.x + a.y * b.y < CORNER;
  };
  const chains: Station[][] = [];
  let chain: Station[] = [];
  cubics.forEach((c, segment) => {
    if (segment > 0 && isCorner(segment - 1, segment)) {
      chains.push(chain);
      chain = [];
    }
    for (const { t, weight } of evenly(c, spacing)) {
      const d = unit(cubicDerivative(c, t)) ?? unit(cubicTangent(c, t));
      if (!d) continue;
      const bend = left * cubicCurvature(c, t);
      chain.push({ segment, t, at: cubicPoint(c, t), n: { x: d.y * left, y: -d.x * left }, weight, bend });
    }
  });
  chains.push(chain);
  const closes = path.closed && cubics.length > 0 && !isCorner(cubics.length - 1, 0);
  if (closes && chains.length > 1) {
    // The last chain goes on as the first.
    const last = chains.pop()!;
    chains[0] = [...last, ...chains[0]!];
  }
  return { chains: chains.filter((q) => q.length > 0), ring: closes && chains.length === 1 };
}
