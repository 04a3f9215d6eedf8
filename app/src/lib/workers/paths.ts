import type { Combined, Path, Thinned, ThinOptions } from '@mirrot/core';
import { starter } from './start';

/** A path and what may be done to it. */
export interface ThinWish {
  readonly path: Path;
  readonly options: ThinOptions;
}

/** What the worker for paths does. */
export interface PathWork {
  /** Paths thinned out, one by one; null when a newer wish came. */
  thin(wishes: readonly ThinWish[], progress?: (share: number) => void): Promise<Thinned[] | null>;
  /** What outlines become by each way to combine them, the lowest first. */
  combine(shapes: readonly (readonly Path[])[]): Promise<Combined>;
}

/** The one worker for paths. */
export const pathWorker = starter<PathWork>(
  () => new Worker(new URL('./paths.worker.ts', import.meta.url), { type: 'module' }),
);

export { proxy } from 'comlink';
