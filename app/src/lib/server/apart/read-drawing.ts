// A thread of its own: reads an SVG or DXF as a drawing. Its parent ends it should it take too long.
import { parentPort, workerData } from 'node:worker_threads';
import { MirrotError, readDxf, readSvg, type SvgReading } from '@mirrot/core';

export interface DrawingWork {
  readonly kind: 'svg' | 'dxf';
  readonly text: string;
}

/** What came of a file: the drawing, or why there is none. */
export type DrawingAnswer =
  SvgReading | { readonly refused: { readonly code: string; readonly message: string } };

function answer({ kind, text }: DrawingWork): DrawingAnswer {
  try {
    return kind === 'dxf' ? readDxf(text) : readSvg(text);
  } catch (error) {
    if (error instanceof MirrotError) return { refused: { code: error.code, message: error.message } };
    if (error instanceof RangeError)
      return { refused: { code: kind, message: 'This drawing is too large or too deep to be read. Nothing was added.' } }; // prettier-ignore
    throw error;
  }
}
parentPort!.postMessage(answer(workerData as DrawingWork));
