import {
  FIRST_MACHINE,
  PLAIN_LINES,
  type Art,
  type FileKind,
  type LineWork,
  type Machine,
  type OutputRange,
} from '@mirrot/core';
import type { LinesWish } from '$lib/workers/files';
import { chosenNodes, type Choice } from './choice';

/** Files of the drawing, of the whole project, and of its palette. */
export type OutKind = FileKind | 'zip' | 'txt';

/** What is asked of the next file. */
export interface Exporting {
  format: OutKind;
  /** The whole sheet, the box of what is painted, or of what is chosen alone. */
  area: 'sheet' | 'drawing' | 'chosen';
  /** Room left about the box of what is painted, sheet pixels. */
  margin: number;
  /** Times as large as on the sheet. */
  scale: number;
  /** "clear", or "#rrggbb". */
  ground: string;
  ppi: number;
  /** One file of all, or one of each layer or shape in a zip file. */
  each: 'one' | 'layer' | 'shape';
  /** Of pixels: widths in which the file is written, in a zip file; none for the one that `ppi` says. */
  widths: readonly number[];
  /** The traced pictures go along. */
  picture: boolean;
  /** An SVG of paths alone, without ids, names and groups that do nothing. */
  plain: boolean;
  /** Every line a hairline, without fills; files of lines are so anyhow. */
  hairlines: boolean;
  /** What is done to the lines. */
  lines: LineWork;
  /** The strokes of a plotter in a short way, not in their order. */
  shortWay: boolean;
  /** The plotter or cutter that a file is written for. */
  machine: Machine;
  /** A knife's middle is led ahead by its offset; else the machine does that by itself. */
  leadBlade: boolean;
}

/** What is asked until something else is. */
export const FIRST_EXPORT: Exporting = {
  format: 'svg',
  area: 'sheet',
  margin: 0,
  scale: 1,
  ground: 'clear',
  ppi: 300,
  each: 'one',
  widths: [],
  picture: false,
  plain: false,
  hairlines: false,
  lines: PLAIN_LINES,
  shortWay: true,
  machine: FIRST_MACHINE,
  leadBlade: false,
};

/** Files that know lines only: they have no ground and no pictures. */
export const isOfLines = (kind: OutKind): boolean => kind === 'dxf' || kind === 'plt';
/** Files of curves, which lines may be asked for in. */
export const mayBeOfLines = (kind: OutKind): boolean => kind === 'svg' || kind === 'pdf' || kind === 'eps';

/** The file is of the drawing, not of the whole project or its palette. */
export const isOfDrawing = (kind: OutKind): kind is FileKind => kind !== 'zip' && kind !== 'txt';

/** The file holds lines and nothing else. */
export const holdsLines = ({ format, hairlines }: Exporting): boolean =>
  isOfLines(format) || (hairlines && mayBeOfLines(format));

/** What of the drawing goes into the file, and how large it comes out. */
export function rangeOf({ area, margin, scale }: Exporting, choice: Choice, art: Art): OutputRange {
  if (area === 'sheet') return { area, scale };
  const only = area === 'chosen' ? new Set(chosenNodes(choice, art)) : undefined;
  return { area: 'drawing', margin, scale, only };
}

/** How far a knife's middle is led ahead in the file, millimetres. */
export const leadOf = ({ machine, leadBlade }: Exporting): number =>
  machine.tool === 'knife' && leadBlade ? machine.bladeOffset : 0;

/** How far apart strokes may lie that are drawn in one: what the width of a pen hides. A knife would cut there. */
export const joinOf = ({ machine }: Exporting): number =>
  machine.tool === 'pen' ? machine.lineWidth / 2 : 0;

/** What is done to the lines. A machine holds one knife: layers that have no use of their own are cut with it. */
export function linesOf({ format, lines, machine }: Exporting, art: Art): LineWork {
  if (format !== 'plt' || machine.tool === 'pen') return lines;
  const uses = Object.fromEntries(art.layers.map(({ id }) => [id, lines.uses[id] ?? 'cut']));
  return { ...lines, uses };
}

/** What is wished of the lines; null where the drawing is written as it is painted. */
export function linesWish(out: Exporting, range: OutputRange, art: Art): LinesWish | null {
  if (!holdsLines(out)) return null;
  const { format, shortWay, machine } = out;
  const lines = linesOf(out, art);
  if (format !== 'plt') return { kind: 'curves', range, lines };
  const order = shortWay ? 'short' : 'kept';
  const innerFirst = machine.tool === 'knife';
  return { kind: 'plot', wish: { range, lines, order, innerFirst, join: joinOf(out), lead: leadOf(out) } };
}
