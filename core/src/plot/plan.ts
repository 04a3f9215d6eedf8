import type { PenStroke } from '../path/pen-stroke';
import { groupsOf, orderStrokes } from './order';
import { plotWay, type PlotWay } from './way';

/** Strokes in a short order, and what that saves. */
export interface PlotPlan {
  readonly strokes: readonly PenStroke[];
  /** As the strokes came. */
  readonly kept: PlotWay;
  /** As they are planned. */
  readonly short: PlotWay;
}

/**
 * Plans a short way through strokes, pen by pen, from the plotter's origin; never a longer one than they came in.
 *
 * @param innerFirst what lies within closed strokes comes before them, in either order
 */
export function planPlot(strokes: readonly PenStroke[], innerFirst = false): PlotPlan {
  const came = groupsOf(strokes, innerFirst).flat();
  const ordered = orderStrokes(strokes, { innerFirst });
  const [kept, short] = [plotWay(came), plotWay(ordered)];
  return kept.travel <= short.travel
    ? { strokes: came, kept, short: kept }
    : { strokes: ordered, kept, short };
}
