// A thread of its own: reads an SVG as a drawing. Its parent ends it should it take too long.
import { parentPort, workerData } from 'node:worker_threads';
import { MirrotError, readSvg, type SvgReading } from '@mirrot/core';

/** What came of an SVG: the drawing, or why there is none. */
export type SvgAnswer =
  SvgReading | { readonly refused: { readonly code: string; readonly message: string } };

function answer(text: string): SvgAnswer {
  try {
    return readSvg(text);
  } catch (error) {
    if (error instanceof MirrotError) return { refused: { code: error.code, message: error.message } };
    if (error instanceof RangeError)
      return { refused: { code: 'svg', message: 'This SVG is too large or too deep to be read. Nothing was added.' } }; // prettier-ignore
    throw error;
  }
}
parentPort!.postMessage(answer(workerData as string));
