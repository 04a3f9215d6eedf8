import { leavesOf, outputOf, type Art } from '@mirrot/core';
import { fileName } from '$lib/file-name';
import { zipApart } from './apart';
import type { FileOptions } from './output-options';
import { Refusal } from './refusal';

/** Most files of one drawing. */
const MOST_FILES = 300;

/** A part of a drawing that becomes a file of its own. */
interface Piece {
  readonly name: string;
  readonly only: ReadonlySet<string>;
}

/** What a drawing is parted into: what is painted of each layer, or each shape and picture. Top first, as in the stack. */
function piecesOf(art: Art, { area, margin, only }: FileOptions, each: 'layer' | 'shape'): Piece[] {
  const pieces = new Map<string, { name: string; only: Set<string> }>();
  for (const { part, layer } of [...leavesOf(outputOf(art, { area, margin, only }).list)].reverse()) {
    const { id, name } = each === 'layer' ? layer : part;
    const piece = pieces.get(id) ?? { name, only: new Set() };
    piece.only.add(part.id);
    pieces.set(id, piece);
  }
  return [...pieces.values()];
}

/** How a drawing is written as several files. */
export interface Parting {
  readonly each: 'one' | 'layer' | 'shape';
  /** Pixels across, of files of pixels; none for the one size that the options say. */
  readonly widths: readonly number[];
}

/**
 * A drawing as several files in one zip file: each layer or shape in one of its own, each in several sizes.
 *
 * @param write makes one of them
 */
export async function zipPieces(
  art: Art,
  project: string,
  format: string,
  options: FileOptions,
  { each, widths }: Parting,
  write: (options: FileOptions) => Promise<string | Uint8Array>,
): Promise<Uint8Array> {
  const pieces = each === 'one' ? [{ name: '', only: options.only }] : piecesOf(art, options, each);
  const sizes = widths.length > 0 ? widths : [undefined];
  const count = pieces.length * sizes.length;
  if (count === 0)
    throw new Refusal(422, 'nothing', 'There is nothing to write. Show something that is painted.');
  if (count > MOST_FILES)
    throw new Refusal(413, 'too-many-files', `That would make ${count} files; ${MOST_FILES} are the most. Group what belongs together, or take fewer sizes.`); // prettier-ignore
  const files: { name: string; bytes: Uint8Array }[] = [];
  for (const { name, only } of pieces)
    for (const width of sizes) {
      const made = await write({ ...options, only, width: width ?? options.width });
      const called = [project, name, width ? `${width} px` : ''].filter(Boolean).join(' ');
      files.push({
        name: fileName(called, format),
        bytes: typeof made === 'string' ? Buffer.from(made) : made,
      });
    }
  return zipApart(files);
}
