// A thread of its own: makes a drawing's lines ready, and plans the way of a plotter through them, which takes seconds for thousands.
import { parentPort, workerData } from 'node:worker_threads';
import { linedArt, plotFile, type Art, type LineWork, type OutputRange, type PlotWish } from '@mirrot/core';

export type LinesWork =
  | { readonly kind: 'plot'; readonly art: Art; readonly wish: PlotWish }
  | { readonly kind: 'lines'; readonly art: Art; readonly range: OutputRange; readonly lines: LineWork };

/** HP-GL, or a drawing of hairlines; or why there is none. */
export type LinesAnswer =
  | { readonly text: string }
  | { readonly art: Art }
  | { readonly refused: { readonly code: string; readonly message: string } };

const work = workerData as LinesWork;
let answer: LinesAnswer;
try {
  answer =
    work.kind === 'plot'
      ? { text: plotFile(work.art, work.wish).text }
      : { art: linedArt(work.art, work.range, work.lines).art };
} catch (error) {
  const { code = 'lines', message } = error as { code?: string; message: string };
  answer = { refused: { code, message } };
}
parentPort!.postMessage(answer);
