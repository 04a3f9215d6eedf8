import type { Art, Finding, Tolerances } from '@mirrot/core';
import { starter } from './start';

/** What the worker for proving does. */
export interface ProofWork {
  findings(art: Art, tolerances: Tolerances): Promise<Finding[]>;
}

/** The one worker for proving. */
export const proofWorker = starter<ProofWork>(
  () => new Worker(new URL('./proof.worker.ts', import.meta.url), { type: 'module' }),
);
