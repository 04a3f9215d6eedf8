import type { FileKind, LeftOut } from '@mirrot/core';
import { FIRST_MACHINE, PLAIN_LINES } from '@mirrot/core';
import type { SavingState } from '$lib/desk/saving.svelte';
import { isOfDrawing, isOfLines, type Exporting, type OutKind } from '$lib/desk/exporting';

/** The kinds of files, with what each is for. */
export const KINDS: readonly (readonly [kind: OutKind, name: string, use: string])[] = [
  ['svg', 'SVG', 'curves, for other programs'],
  ['png', 'PNG', 'pixels, clear where nothing is'],
  ['webp', 'WebP', 'pixels, small, for the web'],
  ['pdf', 'PDF', 'one page, for print'],
  ['eps', 'EPS', 'curves, for older presses'],
  ['dxf', 'DXF', 'splines in millimetres, for CAD'],
  ['plt', 'HP-GL', 'strokes, for pen and knife'],
  ['zip', 'Bundle', 'the whole project'],
  ['txt', 'Palette', 'the chips, a line each'],
];

export const nameOf = (kind: OutKind): string => KINDS.find(([of]) => of === kind)![1];

export const isPixels = (kind: OutKind): boolean => kind === 'png' || kind === 'webp';
/** Files that the traced pictures can go into. */
export const holdsPictures = (kind: OutKind): boolean =>
  isOfDrawing(kind) && !isOfLines(kind) && kind !== 'eps';

/** Kinds that can be made without the server. */
const MADE_HERE: readonly OutKind[] = ['svg', 'png', 'plt', 'zip', 'txt'];

/** One file, not a zip file of several. */
const isOneFile = ({ format, each, widths }: Exporting): boolean =>
  !isOfDrawing(format) || (each === 'one' && !(widths.length > 0 && isPixels(format)));

/** Whether the file that is asked for can be made without the server. */
export const canBeMadeHere = (out: Exporting): boolean => MADE_HERE.includes(out.format) && isOneFile(out);
/** Whether it is made here in any case: of what is on the page, nothing of it being on the server alone. */
export const isMadeHere = (out: Exporting): boolean =>
  out.format === 'txt' || (out.format === 'plt' && isOneFile(out));

/** Whether the server is away, or takes nothing: while changes are merely on their way it is not. */
export const isAway = (state: SavingState): boolean => state !== 'kept' && state !== 'sending';

/** What a file is made for, and what that asks of it. */
export const USES: readonly (readonly [use: string, asks: Partial<Exporting>])[] = [
  ['print', { format: 'pdf', area: 'sheet', ground: 'clear' }],
  ['a sticker', { format: 'png', area: 'drawing', ground: 'clear', ppi: 300 }],
  ['a cutter', { format: 'plt', area: 'drawing', lines: { ...PLAIN_LINES, seen: true }, machine: { ...FIRST_MACHINE, tool: 'knife' } }], // prettier-ignore
  ['a pen', { format: 'plt', area: 'sheet', lines: PLAIN_LINES, machine: FIRST_MACHINE }],
  ['CAD', { format: 'dxf', area: 'sheet' }],
  ['the screen', { format: 'webp', area: 'drawing', ground: 'clear', ppi: 192 }],
];

/** The use whose wishes a file fulfils; null for none. */
export const useOf = (out: Exporting): string | null =>
  USES.find(([, asks]) => Object.entries(asks).every(([key, value]) => JSON.stringify(out[key as keyof Exporting]) === JSON.stringify(value)))?.[0] ?? null; // prettier-ignore

const many = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`;

/** What a file leaves out, in words. */
export function leftOutWords(left: LeftOut, kind: FileKind, area: Exporting['area']): readonly string[] {
  const said: readonly (readonly [number, string])[] = [
    [left.hidden, `${many(left.hidden, 'shape')} hidden`],
    [left.unpainted, `${many(left.unpainted, 'shape')} without fill or stroke`],
    [left.outside, `${left.outside} off ${area === 'sheet' ? 'the sheet' : 'what is shown'}`],
    [left.traced, left.traced === 1 ? 'the traced picture' : `${left.traced} traced pictures`],
    [left.pictures, `${many(left.pictures, 'picture')} in the drawing: this kind of file holds none`],
    [left.gradients, isOfLines(kind) ? `${many(left.gradients, 'gradient')}: lines have one colour` : `${many(left.gradients, 'gradient')}, written as steps of colour`], // prettier-ignore
    [left.seeThrough, `${left.seeThrough} see-through: mixed with the ground instead`],
    [left.soft, `${left.soft} soft or blended: written sharp and plain`],
    [left.cutLines, `${many(left.cutLines, 'line')} cut by a cutout: written whole`],
  ];
  return said.filter(([n]) => n > 0).map(([, words]) => words);
}
