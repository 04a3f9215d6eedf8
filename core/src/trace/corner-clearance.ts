/**
 * Between two sides that run together their blurs mingle while they are nearer than so many of them, and rows across an edge are
 * calmed by those so far along it, pixels. Where a corner's place is known an edge is then within 0.1 px of where it is (measured
 * on corners of 40° to 160° in sharp pictures and through lenses); where it is only sought, more of its sides is left out.
 */
const MINGLED = {
  known: { inBlurs: 1.75, calmedPx: 1 },
  sought: { inBlurs: 2, calmedPx: 2 },
} as const;
/** Farther than this from a corner an edge is itself, pixels. */
export const FARTHEST_CLEARANCE_PX = 24;

/**
 * How far from a corner that turns so much its two sides are round, or each other's, to whoever reads them.
 *
 * @param turn radians from one side's direction to the other's
 * @param soft standard deviation with which edges are read, the picture's own blur among it; pixels
 * @param place whether the corner is known to be there, or sought about there
 */
export function clearanceAt(turn: number, soft: number, place: keyof typeof MINGLED): number {
  const { inBlurs, calmedPx } = MINGLED[place];
  return Math.min(FARTHEST_CLEARANCE_PX, calmedPx + (inBlurs * soft) / Math.max(0.1, Math.cos(turn / 2)));
}
