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
  type PlotPlan,
} from '@mirrot/core';

export interface PlotWork {
  readonly art: Art;
  readonly range: OutputRange;
  /** How far strokes may leave the curves, millimetres. */
  readonly tolerance: number;
}

/** HP-GL by a short way, and what that and the order the strokes came in come to; or why there is none. */
export type PlotAnswer =
  | ({ readonly text: string } & Omit<PlotPlan, 'strokes'>)
  | { readonly refused: { readonly code: string; readonly message: string } };

const { art, range, tolerance } = workerData as PlotWork;
let answer: PlotAnswer;
try {
  const { list, box } = outputOf(art, range);
  const strokes = plotStrokes(outlinesOf(list), box, { tolerance, scale: range.scale });
  const plan = planPlot(strokes);
  answer = { text: writeHpgl(plan.strokes), kept: plan.kept, short: plan.short };
} catch (error) {
  const { code = 'plot', message } = error as { code?: string; message: string };
  answer = { refused: { code, message } };
}
parentPort!.postMessage(answer);
