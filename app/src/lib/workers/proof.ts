import type { Art, Finding, MeasuredPath, Tolerances } from '@mirrot/core';
import { starter } from './start';

/** What the worker for proving does. */
export interface ProofWork {
  findings(art: Art, tolerances: Tolerances, measured: readonly MeasuredPath[]): Promise<Finding[]>;
}

/** The one worker for proving. */
export const proofWorker = starter<ProofWork>(
  () => new Worker(new URL('./proof.worker.ts', import.meta.url), { type: 'module' }),
);
