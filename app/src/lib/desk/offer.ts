import type { Path, Point, Recipe } from '@mirrot/core';
import type { Context } from './changes';

/** A change not made yet: one key takes it, one key leaves it, any other change leaves it too. */
export interface Offer {
  /** What it comes from, where that matters to others: a slider shows it anew, or it speaks of the next segment itself. */
  readonly from?:
    'thin-out' | 'settle' | 'border' | 'arrange' | 'covering' | 'body-tone' | 'palette' | 'combine' | 'widen';
  readonly text: string;
  /** The step of the history it will be, and what is looked at once it is taken. */
  readonly label: string;
  readonly recipe: Recipe;
  readonly after?: Partial<Context>;
  /** The drawing is shown as if it were taken, except while Q is held. */
  readonly preview?: boolean;
  /** It lasts only while the pointer is on what offers it: nothing asks whether to take it. */
  readonly passing?: boolean;
  /** Lines it would add, shown beside what is there. */
  readonly ghost?: readonly Path[];
  /** Anchors it would take out, and where it goes farthest from what is there. */
  readonly spare?: readonly Point[];
  readonly worst?: Point;
  /** R: the same the other way round. */
  turn?(): void;
  /** Hears that it was taken. */
  taken?(): void;
}
