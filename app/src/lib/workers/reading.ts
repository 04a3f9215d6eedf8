import type { Art, LetterPaths, Lettering, SvgReading } from '@mirrot/core';
import { starter } from './start';

/** What the worker that reads drawings does. */
export interface ReadingWork {
  /** Reads an SVG as a drawing in one layer. Refuses with the sentence of what is wrong. */
  svg(text: string): SvgReading;
  /** Reads a DXF as a drawing in one layer. Refuses with the sentence of what is wrong. */
  dxf(text: string): SvgReading;
  /** Reads what was copied, which is JSON. Refuses with the sentence of what is wrong. */
  copied(text: string): Art;
  /**
   * Sets a line of text in the font at an address. Refuses with the sentence of what is wrong.
   *
   * @param id of the shape: its paths are named after it
   */
  letters(font: string, lettering: Lettering, id: string): Promise<LetterPaths>;
}

/** The one worker that reads drawings: a text that takes too long is stopped by ending it. */
export const readingWorker = starter<ReadingWork>(
  () => new Worker(new URL('./reading.worker.ts', import.meta.url), { type: 'module' }),
);
