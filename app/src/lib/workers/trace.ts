import type { Drift, Follow, Path, Raster, Settled, SettleOptions, StrokeWeight } from '@mirrot/core';
import * as Comlink from 'comlink';

/** A path to be measured, in pixels of the raster. */
export interface TraceWish {
  readonly path: Path;
  readonly reach: number;
  readonly flip: boolean;
  /** What it follows; null leaves it to be found. */
  readonly follow: Follow | null;
  /** Width of its stroke in pixels, when it has one. */
  readonly width: number | null;
}

export interface Traced {
  readonly drift: Drift;
  readonly follow: Follow;
}

/** What the worker for drift and Settle does. Fields of the picture are made where paths run and kept. */
export interface TraceWork {
  /** The picture that everything is measured against from now on. */
  see(key: string, raster: Raster): void;
  /** Drift of each path; null when the picture is another one meanwhile. */
  drift(key: string, wishes: readonly TraceWish[]): Promise<Traced[] | null>;
  /** Weight of the stroke under each path. */
  weigh(key: string, paths: readonly Path[]): Promise<(StrokeWeight | null)[] | null>;
  settle(
    key: string,
    wishes: readonly (TraceWish & { readonly options: SettleOptions })[],
    progress?: (share: number) => void,
  ): Promise<Settled[] | null>;
}

let shown: Raster | null = null;
let running: Worker | null = null;
let worker: Comlink.Remote<TraceWork> | null = null;

/** The one worker for drift, started when first needed. */
function traceWork(): Comlink.Remote<TraceWork> {
  running ??= new Worker(new URL('./trace.worker.ts', import.meta.url), { type: 'module' });
  return (worker ??= Comlink.wrap<TraceWork>(running));
}

/** The worker with a picture's pixels in sight; they are sent once. */
export async function tracing(key: string, raster: Raster): Promise<Comlink.Remote<TraceWork>> {
  const work = traceWork();
  if (shown !== raster) {
    shown = raster;
    await work.see(key, raster);
  }
  return work;
}

let tellEnded = (): void => {};
let ended = new Promise<null>((done) => (tellEnded = () => done(null)));

/** Ends whatever it does: who waits for it hears null, by `orEnded`. */
export function endTraceWork(): void {
  running?.terminate();
  running = worker = shown = null;
  tellEnded();
  ended = new Promise<null>((done) => (tellEnded = () => done(null)));
}

/** An answer of the worker, or null when the worker is ended first: an ended worker answers nothing. */
export const orEnded = <T>(answer: Promise<T>): Promise<T | null> => Promise.race([answer, ended]);

export { proxy } from 'comlink';
