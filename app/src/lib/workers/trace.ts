import type {
  Crossed,
  Drift,
  Economy,
  Follow,
  Path,
  Point,
  Raster,
  Reached,
  ReachOptions,
  ReachStart,
  Settled,
  SettleOptions,
  StrokeWeight,
} from '@mirrot/core';
import * as Comlink from 'comlink';

/** A path to be measured, in pixels of the raster. */
export interface TraceWish {
  readonly path: Path;
  readonly reach: number;
  readonly flip: boolean;
  /** Bumps of the edge shorter than this are ignored, pixels. */
  readonly detail: number;
  /** A value each so many pixels. */
  readonly spacing: number;
  /** What it follows; null leaves it to be found. */
  readonly follow: Follow | null;
  /** Width of its stroke in pixels, when it has one. */
  readonly width: number | null;
}

export interface Traced {
  readonly drift: Drift;
  readonly follow: Follow;
}

/** A next segment to be offered, in pixels of the raster. */
export interface ReachWish {
  readonly start: ReachStart | null;
  readonly pointer: Point;
  readonly options: ReachOptions;
  /** What it lies on, and the width of the stroke whose middle that is. */
  readonly follow: Follow;
  readonly width: number | null;
  /** Pixels of the raster that one screen pixel shows. */
  readonly shown: number;
}

/** What the worker for drift and Settle does. Fields of the picture are made where paths run and kept. */
export interface TraceWork {
  /** The picture that everything is measured against from now on. */
  see(key: string, raster: Raster): void;
  /** Drift of each path; null when the picture is another one meanwhile. */
  drift(key: string, wishes: readonly TraceWish[]): Promise<Traced[] | null>;
  /** What each path's anchors cost beside the fewest, within a tolerance in pixels; null where it has no edge. */
  economy(key: string, wishes: readonly TraceWish[], tolerance: number): Promise<(Economy | null)[] | null>;
  /** What a line over the picture crosses. */
  across(key: string, from: Point, to: Point): Promise<Crossed | null>;
  /** Weight of the stroke under each path. */
  weigh(key: string, paths: readonly Path[]): Promise<(StrokeWeight | null)[] | null>;
  /** The next segment on the picture's edge; null where there is none to offer, `later` where asking again goes on. */
  reach(key: string, wish: ReachWish): Promise<Reached | 'later' | null>;
  settle(
    key: string,
    wishes: readonly (TraceWish & { readonly options: SettleOptions })[],
    progress?: (share: number) => void,
  ): Promise<Settled[] | null>;
}

/** A worker, started when first needed, and the picture it has in sight. */
interface Hand {
  running: Worker | null;
  work: Comlink.Remote<TraceWork> | null;
  shown: Raster | null;
}
const idle = (): Hand => ({ running: null, work: null, shown: null });
/** One measures; the other follows the pointer, or counts anchors, and never waits for the first. */
const measuring = idle();
const reaching = idle();

/** A hand with a picture's pixels in sight; they are sent once. */
async function withSight(hand: Hand, key: string, raster: Raster): Promise<Comlink.Remote<TraceWork>> {
  hand.running ??= new Worker(new URL('./trace.worker.ts', import.meta.url), { type: 'module' });
  const work = (hand.work ??= Comlink.wrap<TraceWork>(hand.running));
  if (hand.shown !== raster) {
    hand.shown = raster;
    await work.see(key, raster);
  }
  return work;
}
/** The worker that measures. */
export const tracing = (key: string, raster: Raster): Promise<Comlink.Remote<TraceWork>> =>
  withSight(measuring, key, raster);
/** The worker that offers the next segment. */
export const reachingTo = (key: string, raster: Raster): Promise<Comlink.Remote<TraceWork>> =>
  withSight(reaching, key, raster);

let tellEnded = (): void => {};
let ended = new Promise<null>((done) => (tellEnded = () => done(null)));

/** Ends whatever is measured: who waits for it hears null, by `orEnded`. */
export function endTraceWork(): void {
  measuring.running?.terminate();
  Object.assign(measuring, idle());
  tellEnded();
  ended = new Promise<null>((done) => (tellEnded = () => done(null)));
}

/** An answer of the worker, or null when the worker is ended first: an ended worker answers nothing. */
export const orEnded = <T>(answer: Promise<T>): Promise<T | null> => Promise.race([answer, ended]);

export { proxy } from 'comlink';
