import type { Art, ColourDifference, Finding, MeasuredPath, Raster, Tolerances } from '@mirrot/core';
import { starter } from './start';

/** What the worker for proving does. */
export interface ProofWork {
  /** Where what is drawn differs from the picture, as pixels, with its figures. */
  difference(
    drawn: Raster,
    picture: Raster,
  ): Promise<Pick<ColourDifference, 'mean' | 'beyond' | 'compared'> & { readonly pixels: Raster }>;
  findings(art: Art, tolerances: Tolerances, measured: readonly MeasuredPath[]): Promise<Finding[]>;
}

/** The one worker for proving. */
export const proofWorker = starter<ProofWork>(
  () => new Worker(new URL('./proof.worker.ts', import.meta.url), { type: 'module' }),
);
