import type { Art } from '@mirrot/core';
import { starter } from './start';

/** What is known of a drawing's growth as a whole. */
export interface GrowthKnown {
  readonly count: number;
  readonly anchors: Int32Array;
  readonly workMs: Float64Array;
}

/** What the worker for replays does. */
export interface GrowthWork {
  /**
   * Fetches how a project's drawing grew, and follows it.
   *
   * @throws Error with a sentence where that cannot be had
   */
  open(projectId: string): Promise<GrowthKnown>;
  /** The drawing after so many changes; null where nothing was opened. */
  artAt(changes: number): Promise<Art | null>;
}

/** The one worker for replays. */
export const growthWorker = starter<GrowthWork>(
  () => new Worker(new URL('./growth.worker.ts', import.meta.url), { type: 'module' }),
);
