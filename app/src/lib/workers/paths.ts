import type {
  Combined,
  Enclosed,
  LinePieces,
  Path,
  StrokeOutline,
  Thinned,
  ThinOptions,
  WidenJoins,
} from '@mirrot/core';
import { starter } from './start';

/** A path and what may be done to it. */
export interface ThinWish {
  readonly path: Path;
  readonly options: ThinOptions;
}

/** Whose outline is wanted: a stroke's, or that of paths grown or shrunk. */
export type OutlineWish =
  | { readonly kind: 'stroke'; readonly paths: readonly Path[]; readonly stroke: StrokeOutline }
  | {
      readonly kind: 'widen';
      readonly paths: readonly Path[];
      readonly by: number;
      readonly joins: WidenJoins;
    };

/** What the worker for paths does. */
export interface PathWork {
  /** Paths thinned out, one by one; null when a newer wish came. */
  thin(wishes: readonly ThinWish[], progress?: (share: number) => void): Promise<Thinned[] | null>;
  /** What outlines become by each way to combine them, the lowest first; lines cut what is split up. */
  combine(shapes: readonly (readonly Path[])[], lines: readonly Path[]): Promise<Combined>;
  /** Outlines, wish by wish, each as pieces that hang together; null when a newer wish came. */
  outline(wishes: readonly OutlineWish[], progress?: (share: number) => void): Promise<Path[][][] | null>;
  /** Areas that lines enclose, gaps up to a size bridged. */
  enclosed(lines: readonly Path[], gap: number): Promise<Enclosed>;
  /** Pieces of lines between their crossings. */
  pieces(lines: readonly Path[]): Promise<LinePieces>;
}

/** The one worker for paths. */
export const pathWorker = starter<PathWork>(
  () => new Worker(new URL('./paths.worker.ts', import.meta.url), { type: 'module' }),
);

export { proxy } from 'comlink';
