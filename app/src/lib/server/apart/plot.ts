// A thread of its own: plans the way of a plotter through a drawing's lines, which takes a second for thousands.
import { parentPort, workerData } from 'node:worker_threads';
import {
  outlinesOf,
  outputOf,
  planPlot,
  plotStrokes,
  writeHpgl,
  type Art,
  type OutputRange,
  type PlotWay,
} from '@mirrot/core';

export interface PlotWork {
  readonly art: Art;
  readonly range: OutputRange;
  /** How far strokes may leave the curves, millimetres. */
  readonly tolerance: number;
}

/** HP-GL, its strokes as they come and in a short order, and what either comes to; or why there is none. */
export type PlotAnswer =
  | {
      readonly texts: { readonly kept: string; readonly short: string };
      readonly kept: PlotWay;
      readonly short: PlotWay;
    }
  | { readonly refused: { readonly code: string; readonly message: string } };

const { art, range, tolerance } = workerData as PlotWork;
let answer: PlotAnswer;
try {
  const { list, box } = outputOf(art, range);
  const strokes = plotStrokes(outlinesOf(list), box, { tolerance, scale: range.scale });
  const texts = { kept: writeHpgl(strokes), short: '' };
  const plan = planPlot(strokes);
  answer = { texts: { ...texts, short: writeHpgl(plan.strokes) }, kept: plan.kept, short: plan.short };
} catch (error) {
  const { code = 'plot', message } = error as { code?: string; message: string };
  answer = { refused: { code, message } };
}
parentPort!.postMessage(answer);
