/** Between two sides that run together their blurs mingle while they are nearer than so many of them. */
const MINGLED_IN_BLURS = 2;
/** Rows across an edge are calmed by those so far along it: near a corner they are another side's. Pixels. */
const CALMED_OVER_PX = 2;
/** Farther than this from a corner an edge is itself, pixels. */
export const FARTHEST_CLEARANCE_PX = 24;

/**
 * How far from a corner that turns so much its two sides are round, or each other's, to whoever reads them.
 *
 * @param turn radians from one side's direction to the other's
 * @param soft standard deviation with which edges are read, the picture's own blur among it; pixels
 */
export const clearanceAt = (turn: number, soft: number): number =>
  Math.min(
    FARTHEST_CLEARANCE_PX,
    CALMED_OVER_PX + (MINGLED_IN_BLURS * soft) / Math.max(0.1, Math.cos(turn / 2)),
  );
