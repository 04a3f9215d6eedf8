import type { SvgReading } from '@mirrot/core';
import { starter } from './start';

/** What the worker for SVG does. */
export interface SvgWork {
  /** Reads an SVG as a drawing in one layer. Refuses with the sentence of what is wrong. */
  read(text: string): SvgReading;
}

/** The one worker for SVG: a file that takes too long is stopped by ending it. */
export const svgWorker = starter<SvgWork>(
  () => new Worker(new URL('./svg.worker.ts', import.meta.url), { type: 'module' }),
);
