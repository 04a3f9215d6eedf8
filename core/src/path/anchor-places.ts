import { toRadians } from '../geometry/angle';
import { cross, dot, subtract, unit, type Point } from '../geometry/vector';
import type { Run } from './fit-path';

/** Places of a line that a person would put an anchor at, the likeliest first; common practice, no source. */
export const PLACE = { corner: 0, straightEnd: 1, extreme: 2, turn: 3, any: 4 } as const;

/** A line that bends by less, from one side of a place to the other, is straight there. */
const STRAIGHT_BEND = toRadians(2.5);
/** A straight run is at least so many of the lengths long by which directions are told. */
const STRAIGHT_IN_LENGTHS = 4;
/** Where a line bends by less than this about a place, it has no extreme there: it runs along the sheet. */
const EXTREME_BEND = toRadians(6);
/** A turn bends by more than this. */
const TURN_BEND = toRadians(15);

/**
 * What each point of a run is as a place for an anchor: a value of `PLACE`.
 *
 * @param about length by which directions are told, as of `runTangent`
 * @param level unit direction of the sheet's horizontal: an extreme lies where the line runs along it or upright to it
 * @returns as many values as the run has points; where a closed run begins counts as its ends
 */
export function anchorPlaces({ points, upTo, corners }: Run, about: number, level: Point): Uint8Array {
  const n = points.length;
  const out = new Uint8Array(n).fill(PLACE.any);
  const long = upTo[n - 1] ?? 0;
  const r = Math.max(1, Math.round((about * (n - 1)) / Math.max(1e-9, long)));
  /** Direction of the line about a point; null by an end or a corner, past which none is told. */
  const ways = points.map((_, i) => {
    if (i < r || i + r >= n) return null;
    for (let k = i - r + 1; k < i + r; k++) if (corners.has(k)) return null;
    return unit(subtract(points[i + r]!, points[i - r]!));
  });
  const bends = Float64Array.from(ways, (_, i) => {
    const [a, b] = [ways[i - r], ways[i + r]];
    return a && b ? Math.atan2(cross(a, b), dot(a, b)) : NaN;
  });
  for (let i = 1; i < n; i++) {
    const [a, b] = [ways[i - 1], ways[i]];
    if (!a || !b || !(Math.abs(bends[i]!) > EXTREME_BEND)) continue;
    const alongs = Math.sign(cross(level, a)) !== Math.sign(cross(level, b));
    const uprights = Math.sign(dot(level, a)) !== Math.sign(dot(level, b));
    if (alongs || uprights) out[i] = PLACE.extreme;
  }
  for (let i = 0; i < n; i++) {
    const bend = Math.abs(bends[i]!);
    if (!(bend > TURN_BEND)) continue;
    let most = true;
    for (let k = i - 2 * r; k <= i + 2 * r && most; k++) {
      const other = Math.abs(bends[k] ?? NaN);
      most = !(other > bend) && !(other === bend && k < i);
    }
    if (most) out[i] = Math.min(out[i]!, PLACE.turn);
  }
  for (let from = 0; from < n;) {
    let to = from;
    while (to < n && Math.abs(bends[to]!) < STRAIGHT_BEND) to++;
    if (to - from >= STRAIGHT_IN_LENGTHS * r) {
      // Bends are told from so far to either side; by an end or a corner none is.
      if (!Number.isNaN(bends[from - 1] ?? NaN)) out[from - r] = PLACE.straightEnd;
      if (!Number.isNaN(bends[to] ?? NaN)) out[to - 1 + r] = PLACE.straightEnd;
    }
    from = to + 1;
  }
  for (const c of corners) out[c] = PLACE.corner;
  return out;
}
