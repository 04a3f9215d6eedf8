import { strToU8, zipSync, type Zippable } from 'fflate';
import type { Art } from '../../art/schema';
import { artText } from '../../art/write';
import type { Practised } from '../../practice/attempt';

// A whole project as one zip file (APPNOTE, PKWARE): a manifest, the drawing, and what it uses beside them as plain files, so
// that they can be taken out by anyone. What lies in it is written so that one project always gives the same bytes.

/** Version of the layout of a bundle; the drawing in it has its own. */
export const BUNDLE_VERSION = 1;
export const MANIFEST = 'mirrot.json';

/** A file that the drawing uses, as it came. */
export interface BundledFile {
  readonly id: string;
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** A kept copy. */
export interface BundledCopy {
  readonly name: string;
  readonly note: string;
  readonly byItself: boolean;
  readonly revision: number;
  /** ISO 8601, UTC. */
  readonly createdAt: string;
  readonly art: Art;
}

/** A change as it stands in the journal. */
export interface BundledChange {
  readonly revision: number;
  /** Version of the document that its patches fit. */
  readonly version: number;
  /** ISO 8601, UTC. */
  readonly createdAt: string;
  /** Patches, and what they were to the history. */
  readonly entry: unknown;
}

/** A whole project: what is needed to open it elsewhere as it is here. */
export interface Bundle {
  readonly name: string;
  /** ISO 8601, UTC. */
  readonly createdAt: string;
  readonly revision: number;
  readonly art: Art;
  readonly pictures: readonly BundledFile[];
  readonly fonts: readonly BundledFile[];
  readonly copies: readonly BundledCopy[];
  /** How the drawing grew, oldest first; empty where that is not known. */
  readonly journal: readonly BundledChange[];
  /** What the drawing was before them, of whatever version; null where that is not known. */
  readonly beginning: { readonly revision: number; readonly art: unknown } | null;
  /** The exercise that is practised in it, its truth included, and what was handed in; null for none. */
  readonly practised: Practised | null;
}

/** Zip cannot tell a time before this: all parts have it. */
const NO_TIME = new Date(1980, 0, 1);

/** Writes a project as a bundle: the bytes of a zip file. */
export function writeBundle({
  name,
  createdAt,
  revision,
  art,
  pictures,
  fonts,
  copies,
  journal,
  beginning,
  practised,
}: Bundle): Uint8Array {
  const parts: Zippable = {};
  const put = (path: string, bytes: Uint8Array, packed: boolean): void =>
    void (parts[path] = [bytes, { level: packed ? 6 : 0, mtime: NO_TIME }]);
  const files = (folder: string, list: readonly BundledFile[]) =>
    list.map(({ id, name: called, bytes }, n) => {
      const path = `${folder}/${n + 1}`;
      // Pictures and fonts are packed as they are.
      put(path, bytes, false);
      return { id, name: called, path };
    });
  const manifest = {
    bundle: BUNDLE_VERSION,
    art: art.version,
    name,
    createdAt,
    revision,
    pictures: files('pictures', pictures),
    fonts: files('fonts', fonts),
    copies: copies.map(({ art: copy, ...about }, n) => {
      const path = `copies/${n + 1}.json`;
      put(path, strToU8(artText(copy)), true);
      return { ...about, path };
    }),
  };
  put(MANIFEST, strToU8(JSON.stringify(manifest, null, 1)), true);
  put('drawing.json', strToU8(artText(art)), true);
  if (journal.length > 0) put('journal.json', strToU8(JSON.stringify(journal)), true);
  if (beginning) put('beginning.json', strToU8(JSON.stringify(beginning)), true);
  if (practised) put('exercise.json', strToU8(JSON.stringify(practised)), true);
  return zipSync(parts);
}

/** Several files as one zip, each under a name of its own. */
export function writeZip(
  files: readonly { readonly name: string; readonly bytes: Uint8Array }[],
): Uint8Array {
  const parts: Zippable = {};
  for (const { name, bytes } of files) {
    const [, stem, ending] = /^(.*?)(\.[^.]*)?$/s.exec(name)!;
    let free = name;
    for (let n = 2; Object.hasOwn(parts, free); n++) free = `${stem}-${n}${ending ?? ''}`;
    parts[free] = [bytes, { level: /\.(png|webp|zip|pdf)$/.test(name) ? 0 : 6, mtime: NO_TIME }];
  }
  return zipSync(parts);
}
