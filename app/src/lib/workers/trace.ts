import type {
  BodyTone,
  Cover,
  Crossed,
  Drift,
  Economy,
  FittedGradient,
  Follow,
  Light,
  Oklab,
  Path,
  Point,
  Raster,
  Reached,
  ReachOptions,
  ReachStart,
  Settled,
  SettleOptions,
  StrokeWeight,
  ToneWish,
} from '@mirrot/core';
import type { Remote } from 'comlink';
import { starter } from './start';

/** A path to be measured, in pixels of the raster. */
export interface TraceWish {
  readonly path: Path;
  readonly reach: number;
  readonly flip: boolean;
  /** Bumps of the edge shorter than this are ignored, pixels. */
  readonly detail: number;
  /** A value each so many pixels. */
  readonly spacing: number;
  /** Where a blurred edge counts as being. */
  readonly light: Light;
  /** Colour of its shape; left out where it has none. */
  readonly own?: Oklab;
  /** What lies over it. */
  readonly covers: readonly Cover[];
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
  /** What it lies on, null leaves it to be told where the path begins; and the width of the stroke, where that is known. */
  readonly follow: Follow | null;
  readonly width: number | null;
  /** Pixels of the raster that one screen pixel shows. */
  readonly shown: number;
}

/** The next segment as offered, and what it lies on. */
export interface ReachAnswer extends Reached {
  readonly follow: Follow;
  /** A thin stroke lies where the path begins: it might follow the stroke's middle, or its border. */
  readonly onStroke: boolean;
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
  /** The middle value of what each wish shows of the picture; null where that is nothing. */
  tones(
    key: string,
    wishes: readonly ToneWish[],
    progress?: (share: number) => void,
  ): Promise<(BodyTone | null)[] | null>;
  /** The gradient that comes nearest to what each wish shows of the picture; null where that is too little. */
  gradients(key: string, wishes: readonly ToneWish[]): Promise<(FittedGradient | null)[] | null>;
  /** The share of the picture, or of what a crop leaves of it, that no outline covers. */
  bare(key: string, area: readonly Path[], covers: readonly (readonly Path[])[]): Promise<number | null>;
  /** The next segment on the picture's edge; null where there is none to offer, `later` where asking again goes on. */
  reach(key: string, wish: ReachWish): Promise<ReachAnswer | 'later' | null>;
  settle(
    key: string,
    wishes: readonly (TraceWish & { readonly options: SettleOptions })[],
    progress?: (share: number) => void,
  ): Promise<Settled[] | null>;
}

/** A worker that measures by one picture. */
export interface TraceWorker {
  /** Asks it, once it has the picture's pixels: they are sent when they are others than before. */
  ask<R>(key: string, raster: Raster, question: (work: Remote<TraceWork>) => Promise<R>): Promise<R | null>;
  end(): void;
}

function traceWorker(): TraceWorker {
  const worker = starter<TraceWork>(
    () => new Worker(new URL('./trace.worker.ts', import.meta.url), { type: 'module' }),
  );
  let seen: { readonly raster: Raster; readonly generation: number } | null = null;
  return {
    ask: (key, raster, question) =>
      worker.ask(async (work) => {
        if (seen?.raster !== raster || seen.generation !== worker.generation) {
          seen = { raster, generation: worker.generation };
          await work.see(key, raster);
        }
        return question(work);
      }),
    end: worker.end,
  };
}

/** One measures; the other follows the pointer, or counts anchors, and never waits for the first. */
export const measureWorker = traceWorker();
export const reachWorker = traceWorker();

export { proxy } from 'comlink';
