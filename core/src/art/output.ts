import { boxHeight, boxWidth, EMPTY_BOX, growBox, type Box } from '../geometry/bounds';
import { paintedBox, paintList, type PaintedGroup } from './paint-list';
import type { Art } from './schema';

/** What an output shows: the whole sheet, or the box of what is painted. */
export type OutputArea = 'sheet' | 'drawing';

/** What of a drawing goes into a file, and how large it comes out. */
export interface OutputRange {
  /** Left out, the whole sheet. */
  readonly area?: OutputArea;
  /** Room left about the box of what is painted, sheet pixels. */
  readonly margin?: number;
  /** Nodes by id: no more than these and what stands in them. Left out, all. */
  readonly only?: ReadonlySet<string>;
  /** How many times as large as it lies on the sheet. Left out, once. */
  readonly scale?: number;
}

/** What is painted of a range, and the part of the plane that is shown of it, sheet pixels. */
export interface Output {
  readonly list: readonly PaintedGroup[];
  readonly box: Box;
}

/** A range of a drawing as it is painted. One with nothing in it takes the sheet. */
export function outputOf(art: Art, { area = 'sheet', margin = 0, only }: OutputRange = {}): Output {
  const list = paintList(art, only);
  const drawing = area === 'drawing' ? paintedBox(list) : EMPTY_BOX;
  const box =
    boxWidth(drawing) > 0 && boxHeight(drawing) > 0
      ? growBox(drawing, margin)
      : { x0: 0, y0: 0, x1: art.sheet.width, y1: art.sheet.height };
  return { list, box };
}

/** The part of the plane that a range shows, sheet pixels. */
export const outputBox = (art: Art, range?: OutputRange): Box => outputOf(art, range).box;
