import type { Path, Thinned, ThinOptions } from '@mirrot/core';
import * as Comlink from 'comlink';

/** A path and what may be done to it. */
export interface ThinWish {
  readonly path: Path;
  readonly options: ThinOptions;
}

/** What the worker for paths does. */
export interface PathWork {
  /** Paths thinned out, one by one; null when a newer wish came. */
  thin(wishes: readonly ThinWish[], progress?: (share: number) => void): Promise<Thinned[] | null>;
}

let running: Worker | null = null;
let worker: Comlink.Remote<PathWork> | null = null;

/** The one worker for paths, started when first needed. */
export function pathWork(): Comlink.Remote<PathWork> {
  running ??= new Worker(new URL('./paths.worker.ts', import.meta.url), { type: 'module' });
  return (worker ??= Comlink.wrap<PathWork>(running));
}

/** Ends whatever it does, in the middle of a path if need be; what was asked of it is never answered. */
export function endPathWork(): void {
  running?.terminate();
  running = worker = null;
}

export { proxy } from 'comlink';
