import { boxOfPoints, EMPTY_BOX, uniteBoxes, type Box } from '../geometry/bounds';
import type { PenStroke } from '../path/pen-stroke';
import { readHpgl } from '../formats/hpgl/read';
import { trailOf } from './blade';
import { doubledStretches, type Doubled } from './doubled';
import type { Machine } from './machine';
import { crowdedPlaces, motionAlong, type Crowding, type Motion } from './motion';
import { plotWay, type PlotWay } from './way';

/** What a machine does by a file, and how it comes out. Lengths in millimetres from the lower left, y upward. */
export interface Played {
  /** As the file has them. */
  readonly strokes: readonly PenStroke[];
  /** What is left on the sheet: with a trailing knife something else than the file says. */
  readonly left: readonly PenStroke[];
  readonly motion: Motion;
  readonly way: PlotWay;
  readonly seconds: number;
  /** Places that the machine is sent with the pen down. */
  readonly places: number;
  readonly doubled: readonly Doubled[];
  readonly crowded: readonly Crowding[];
  /** Around all it draws, and the place it begins at. */
  readonly box: Box;
  /** Commands of the file that it does not know. */
  readonly unknown: readonly string[];
}

/**
 * Plays a file of HP-GL as a machine would.
 *
 * @throws MirrotError `hpgl` where the text is none
 */
export function playFile(text: string, machine: Machine): Played {
  const { strokes, left: unknown } = readHpgl(text);
  const motion = motionAlong(strokes, machine);
  return {
    strokes,
    left: machine.tool === 'knife' ? trailOf(strokes, machine.bladeOffset) : strokes,
    motion,
    way: plotWay(strokes),
    seconds: motion.times.at(-1)!,
    places: motion.down.reduce((sum, isDown) => sum + isDown, 0),
    doubled: doubledStretches(strokes, machine.lineWidth),
    crowded: crowdedPlaces(motion, machine.placesPerSecond),
    box: strokes.map(({ points }) => boxOfPoints(points)).reduce(uniteBoxes, uniteBoxes(EMPTY_BOX, { x0: 0, y0: 0, x1: 0, y1: 0 })), // prettier-ignore
    unknown,
  };
}
