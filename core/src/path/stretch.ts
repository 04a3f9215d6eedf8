import type { Cubic } from '../geometry/cubic';

// Pieces of curves between places where they meet.

/** Where a stretch comes from: of which shape or line, which of its paths, which segment of that, and from where to where. */
export interface Source {
  /** Number of the shape, or of the line, those counted on after the shapes. */
  readonly member: number;
  readonly path: number;
  readonly segment: number;
  /** Parameters on the segment, the first smaller; `reversed` where the stretch runs against it. */
  readonly from: number;
  readonly to: number;
  readonly reversed: boolean;
}

/** A stretch between two places where outlines or lines meet. */
export interface Cut {
  /** Vertices it begins and ends at, by number. */
  readonly start: number;
  readonly end: number;
  readonly cubic: Cubic;
  /** All segments that lie here, the first one's line being the stretch's own. */
  readonly sources: readonly Source[];
}
/**
 * How many times the outlines of shapes run round a place, by shape, clockwise on screen positive; those that do not run round
 * it are left out. An odd number is inside by the even-odd rule, any by the nonzero rule.
 */
export type Rounds = ReadonlyMap<number, number>;

export interface Stretch extends Cut {
  /** What runs round its left side (seen along it, y down), and round its right side. */
  readonly left: Rounds;
  readonly right: Rounds;
}
