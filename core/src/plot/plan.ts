import type { PenStroke } from '../path/pen-stroke';
import { orderStrokes } from './order';
import { plotWay, type PlotWay } from './way';

/** Strokes in a short order, and what that saves. */
export interface PlotPlan {
  readonly strokes: readonly PenStroke[];
  /** As the strokes came. */
  readonly kept: PlotWay;
  /** As they are planned. */
  readonly short: PlotWay;
}

/** Plans a short way through strokes, pen by pen, from the plotter's origin; never a longer one than they came in. */
export function planPlot(strokes: readonly PenStroke[]): PlotPlan {
  const ordered = orderStrokes(strokes);
  const [kept, short] = [plotWay(strokes), plotWay(ordered)];
  return kept.travel <= short.travel ? { strokes, kept, short: kept } : { strokes: ordered, kept, short };
}
