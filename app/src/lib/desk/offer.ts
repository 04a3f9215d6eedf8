import type { Path, Point } from '@mirrot/core';

/** Something shown that one key takes and one key leaves. */
export interface Offer {
  /** What it comes from, where that matters to others: a slider shows it anew, or it speaks of the next segment itself. */
  readonly from?: 'thin-out' | 'settle' | 'border';
  readonly text: string;
  take(): void;
  /** Lines it would add, shown until it is taken or left. */
  readonly ghost?: readonly Path[];
  /** Anchors it would take out, and where it goes farthest from what is there. */
  readonly spare?: readonly Point[];
  readonly worst?: Point;
  /** R: the same the other way round. */
  turn?(): void;
}
