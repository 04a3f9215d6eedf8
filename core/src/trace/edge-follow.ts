import { add, distance, dot, mix, scale, subtract, unit, type Point } from '../geometry/vector';
import { peakAcross, strengthOf } from './edge-peak';
import { acrossTip } from './edge-tip';
import { formBetween } from './field-form';
import type { FieldTiles } from './field-tiles';
import { leastStrength } from './noise';
import { STRANGE, strangeTo, type Training } from './learnt-edge';

/** After one tip there is none for so long, pixels. */
const TIPS_APART_PX = 16;
/** An edge is followed as long as it has this share of the strength it had. */
const FADED = 0.3;
/** As strong as this share of what is usual straight ahead, it does not turn. */
const STEADY = 0.85;
/** How far to the side the next step may find it, pixels. */
const ASIDE = 1.2;

/**
 * An edge followed on from a point on it, step by step, as long as it is there: to `most` pixels, to the picture's border,
 * or until it comes back to where it began.
 *
 * @param way unit direction in which to go
 * @param behind points that led here, the last ones last: round a tip it does not turn back onto them
 * @param training what was learnt of the edge: others count for less
 * @returns points a pixel apart, the first one left out
 */
export function followEdge(
  field: FieldTiles,
  from: Point,
  way: Point,
  most: number,
  behind: readonly Point[],
  training: Training | null = null,
): Point[] {
  const { width, height } = field.raster;
  const out: Point[] = [];
  let [p, d] = [from, way];
  let usual = strengthOf(field, formBetween(field, p.x, p.y, d.y, -d.x));
  let turned = -TIPS_APART_PX;
  for (let i = 0; i < most; i++) {
    const ahead = add(p, d);
    if (ahead.x < 0 || ahead.y < 0 || ahead.x > width || ahead.y > height) break;
    // The edge may turn: the way across it is asked of the field, a little to either side.
    let best: { at: Point; strength: number } | null = null;
    for (const turn of TURNS) {
      if (best && best.strength > STEADY * usual) break;
      const u = { x: d.x * turn.c - d.y * turn.s, y: d.x * turn.s + d.y * turn.c };
      const n = { x: u.y, y: -u.x };
      const q = add(p, u);
      const { off, strength } = peakAcross(field, q, n, ASIDE);
      const at = add(q, scale(n, off));
      // Who goes along u has n to the left, as seen on screen.
      const alike = training ? 1 - STRANGE * strangeTo(training, at, n)[0] : 1;
      const enough = training ? Math.min(strength, usual) : strength;
      const liked = enough * alike * (0.9 + 0.1 * turn.c);
      if (!best || liked > best.strength) best = { at, strength: liked };
    }
    const went = best && unit(subtract(best.at, p));
    if (
      !best ||
      !went ||
      best.strength < Math.max(leastStrength(field, best.at), FADED * usual) ||
      dot(went, d) < -0.2
    ) {
      // At a tip its two sides' blurs leave little of either: it goes on along the other.
      const other =
        field.kind === 'edge' && i >= turned + TIPS_APART_PX
          ? acrossTip(field, p, d, usual, [...behind, ...out])
          : null;
      if (!other) break;
      const gap = Math.max(1, Math.round(distance(p, other.at)));
      for (let k = 1; k <= gap; k++) out.push(mix(p, other.at, k / gap));
      [p, d] = [other.at, other.way];
      i += gap;
      turned = i;
      continue;
    }
    usual = 0.97 * usual + 0.03 * best.strength;
    d = unit(add(scale(d, 0.5), went)) ?? went;
    p = add(p, scale(went, 1));
    out.push(p);
    if (i > 12 && distance(p, from) < 1) break;
  }
  return out;
}

const TURNS = [0, 0.35, -0.35, 0.8, -0.8].map((a) => ({ c: Math.cos(a), s: Math.sin(a) }));
