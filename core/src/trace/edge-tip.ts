import type { Rgb } from '../colour/srgb';
import { toRadians } from '../geometry/angle';
import { add, distance, dot, scale, type Point } from '../geometry/vector';
import { pixelAt, type Raster } from '../picture/raster';
import { edgeWay, peakAcross, strengthOf } from './edge-peak';
import { formBetween } from './field-form';
import type { FieldTiles } from './field-tiles';
import { leastStrength } from './noise';

/** Beyond a tip its other side is looked for so far off, pixels, this far turned round, and as strong beside what was followed. */
const TIP_RADII_PX = [5, 8, 11, 14] as const;
const TIP_TURNS = Array.from({ length: 15 }, (_, k) => toRadians(95 + 6 * k));
const TIP_STRENGTH = 0.5;
/** It lies so far from the points that led there, pixels, of which so many are looked at, and leads away from the tip: the least cosine. */
const TIP_BESIDE_PX = 2.5;
const TRAIL = 40;
const TIP_ALONG = 0.85;

/** How far to the side it may lie, pixels. */
const ASIDE_PX = 1.2;
/** The ground about a tip is told so far behind it, places, and so far beside its sides, pixels. */
const TOLD_BEHIND = 6;
const OUTSIDE_PX = 3.5;
/** It is one ground where it differs by less than this share of what lies on both sides of the edge. */
const ONE_GROUND = 0.5;

/** Whether what lies outside one side of a tip lies outside the other: else the other is another thing's edge. */
function hasSameOutside(
  raster: Raster,
  { one, way, other, wayOn, side }: { one: Point; way: Point; other: Point; wayOn: Point; side: number },
): boolean {
  /** The pixel beside a place, to the side that the tip turns to or away from it. */
  const beside = (p: Point, along: Point, far: number): Rgb | null =>
    pixelAt(raster, Math.floor(p.x - far * side * along.y), Math.floor(p.y + far * side * along.x));
  const [outside, inside] = [beside(one, way, -OUTSIDE_PX), beside(one, way, OUTSIDE_PX)];
  const outsideOther = beside(other, wayOn, -OUTSIDE_PX);
  // Clear ground, and what lies off the picture, is one ground with its like alone.
  if (!outside || !outsideOther) return outside === outsideOther;
  const apart = (a: Rgb, b: Rgb): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
  return inside === null || apart(outside, outsideOther) < ONE_GROUND * apart(outside, inside);
}

/** The other side of a tip at which an edge ends: a place on it, and its way on; null where there is none. */
export function acrossTip(
  field: FieldTiles,
  tip: Point,
  way: Point,
  usual: number,
  trail: readonly Point[],
): { at: Point; way: Point } | null {
  const lately = trail.slice(-TRAIL);
  const before = lately.at(-TOLD_BEHIND) ?? tip;
  for (const radius of TIP_RADII_PX) {
    let best: { at: Point; way: Point; strength: number } | null = null;
    for (const turn of TIP_TURNS)
      for (const side of [1, -1]) {
        const [c, s] = [Math.cos(turn), side * Math.sin(turn)];
        const u = { x: c * way.x - s * way.y, y: s * way.x + c * way.y };
        const q = add(tip, scale(u, radius));
        if (lately.some((t) => distance(t, q) < TIP_BESIDE_PX)) continue;
        const along = edgeWay(field, q);
        if (!along) continue;
        const on = scale(along, Math.sign(dot(along, u)) || 1);
        const strength = strengthOf(field, formBetween(field, q.x, q.y, on.y, -on.x));
        if (dot(on, u) < TIP_ALONG || strength < Math.max(leastStrength(field, q), TIP_STRENGTH * usual))
          continue;
        if (best && strength <= best.strength) continue;
        if (hasSameOutside(field.raster, { one: before, way, other: q, wayOn: on, side })) best = { at: q, way: on, strength }; // prettier-ignore
      }
    if (best) {
      const { off } = peakAcross(field, best.at, { x: best.way.y, y: -best.way.x }, ASIDE_PX);
      return { at: add(best.at, scale({ x: best.way.y, y: -best.way.x }, off)), way: best.way };
    }
  }
  return null;
}
