import type { Point } from '../geometry/vector';

/** One stretch that a pen draws, or a knife cuts, without being lifted. */
export interface PenStroke {
  /** Number of the pen, from 1; 0 for none. */
  readonly pen: number;
  /** It ends where it begins; that point is not said twice. */
  readonly closed: boolean;
  /** Millimetres from the lower left corner of what is drawn on, y upward. Two at least. */
  readonly points: readonly Point[];
}
