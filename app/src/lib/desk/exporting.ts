import type { FileKind } from '@mirrot/core';

/** What is asked of the next file. */
export interface Exporting {
  format: FileKind;
  /** The whole sheet, the box of what is painted, or of what is chosen alone. */
  area: 'sheet' | 'drawing' | 'chosen';
  /** Room left about the box of what is painted, sheet pixels. */
  margin: number;
  /** Times as large as on the sheet. */
  scale: number;
  /** "clear", or "#rrggbb". */
  ground: string;
  ppi: number;
  /** The traced pictures go along. */
  picture: boolean;
  /** An SVG of paths alone, without ids, names and groups that do nothing. */
  plain: boolean;
  /** The strokes of a plotter in a short way, not in their order. */
  shortWay: boolean;
}

/** What is asked until something else is. */
export const FIRST_EXPORT: Exporting = {
  format: 'svg',
  area: 'sheet',
  margin: 0,
  scale: 1,
  ground: 'clear',
  ppi: 300,
  picture: false,
  plain: false,
  shortWay: true,
};
