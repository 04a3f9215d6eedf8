import { outputOf, type OutputRange } from '../art/output';
import type { Art } from '../art/schema';
import type { Box } from '../geometry/bounds';
import { outlinesOf } from '../formats/outlines';
import { writeHpgl } from '../formats/hpgl/write';
import { leadBlade } from './blade';
import { joinStrokes } from './join';
import { linedArt, PLAIN_LINES, type LinedArt, type LineWork } from './line-work';
import { groupsOf } from './order';
import { planPlot } from './plan';
import { plotStrokes } from './strokes';
import { plotWay, type PlotWay } from './way';

/** How far strokes may leave the curves, millimetres: half of what a plotter counts in. */
export const PLOT_TOLERANCE_MM = 0.0125;

/** How a drawing is written for a plotter or cutter. */
export interface PlotWish {
  readonly range?: OutputRange;
  readonly lines?: LineWork;
  /** Strokes in the order they stand in, or with a short way between them. */
  readonly order?: 'kept' | 'short';
  /** What lies within closed strokes is cut before them. */
  readonly innerFirst?: boolean;
  /** Strokes that begin so near the end of the last one go on without a lift, millimetres. */
  readonly join?: number;
  /** How far the middle of a knife is led ahead, millimetres; 0 for a pen, and for machines that do it by themselves. */
  readonly lead?: number;
}

/** A file for a plotter, and what it comes to. */
export interface PlotFile {
  /** HP-GL. */
  readonly text: string;
  /** In the order the strokes stand in, and as it is written. */
  readonly kept: PlotWay;
  readonly way: PlotWay;
  readonly anchors: LinedArt['anchors'];
  /** Places that the machine is sent. */
  readonly places: number;
  /** The part of the drawing's sheet that is written, sheet pixels. */
  readonly written: Box;
}

/**
 * A drawing as HP-GL: its lines made ready (see `LineWork`), in an order, as strokes within half a plotter unit of the curves.
 *
 * @throws MirrotError `nothing` without lines; `too-far` where a plotter cannot count that far
 */
export function plotFile(
  art: Art,
  { range = {}, lines = PLAIN_LINES, order = 'kept', innerFirst = false, join = 0, lead = 0 }: PlotWish = {},
): PlotFile {
  const lined = linedArt(art, range, lines);
  const { list, box } = outputOf(lined.art);
  const strokes = plotStrokes(outlinesOf(list), box, { tolerance: PLOT_TOLERANCE_MM, scale: range.scale });
  const came = groupsOf(strokes, innerFirst).flat();
  const planned = order === 'short' ? planPlot(strokes, innerFirst).strokes : came;
  const led = leadBlade(joinStrokes(planned, join), lead);
  return {
    text: writeHpgl(led),
    kept: plotWay(joinStrokes(came, join)),
    way: plotWay(led),
    anchors: lined.anchors,
    written: lined.written,
    places: led.reduce((sum, { points, closed }) => sum + points.length + (closed ? 1 : 0), 0),
  };
}
