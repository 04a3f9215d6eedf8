import { strFromU8, unzipSync } from 'fflate';
import { z } from 'zod';
import { readArt } from '../../art/check';
import { ART_VERSION } from '../../art/limits';
import type { Art } from '../../art/schema';
import { MirrotError } from '../../error';
import { practisedSchema, type Practised } from '../../practice/attempt';
import { BUNDLE_VERSION, MANIFEST, type Bundle, type BundledFile } from './write';

// Nothing in a bundle is believed: it may be cut short, made to fill memory (a "zip bomb"), or name places outside of itself.

/** Files in a bundle, at most, and bytes of all of them unpacked. */
const MOST_PARTS = 3000;
const MOST_UNPACKED = 512 * 1024 * 1024;
/** Most projects in one file. */
const MOST_BUNDLES = 100;

const NOTHING = 'Nothing was added.';
const broken = (what: string): MirrotError => new MirrotError('bundle', `${what} ${NOTHING}`);

const fileSchema = z.object({
  id: z.string().regex(/^[\w-]{1,64}$/),
  name: z.string().max(500),
  path: z.string().regex(/^(pictures|fonts)\/\d{1,4}$/),
});
const dateSchema = z.iso.datetime();
const revisionSchema = z.number().int().nonnegative();
const manifestSchema = z.object({
  bundle: z.number().int().positive(),
  art: z.number().int().positive(),
  name: z.string().max(500),
  createdAt: dateSchema,
  revision: revisionSchema,
  pictures: z.array(fileSchema).max(500),
  fonts: z.array(fileSchema).max(500),
  copies: z
    .array(
      z.object({
        name: z.string().max(500),
        note: z.string().max(10_000),
        byItself: z.boolean(),
        revision: revisionSchema,
        createdAt: dateSchema,
        path: z.string().regex(/^copies\/\d{1,4}\.json$/),
      }),
    )
    .max(500),
});
const journalSchema = z.array(
  z.object({
    revision: revisionSchema,
    version: z.number().int().positive(),
    createdAt: dateSchema,
    entry: z.unknown(),
  }),
);

/** The parts of a zip file by name. */
function unpacked(bytes: Uint8Array): Readonly<Record<string, Uint8Array>> {
  let [count, total] = [0, 0];
  try {
    return unzipSync(bytes, {
      filter({ name, originalSize, size }) {
        if (name.endsWith('/')) return false;
        if (/(^|[/\\])\.\.([/\\]|$)|^[/\\]|^[a-z]:|\0/i.test(name))
          throw broken('The file names a place outside of itself.');
        count++;
        // What says that it is small and is not is cut off at what it says.
        total += Math.max(originalSize, size);
        if (count > MOST_PARTS) throw broken(`The bundle has over ${MOST_PARTS} files.`);
        if (total > MOST_UNPACKED) throw broken('The bundle would be over 512 MB unpacked.');
        return true;
      },
    });
  } catch (error) {
    if (error instanceof MirrotError) throw error;
    throw broken('This is no zip file, or one that is cut short or broken.');
  }
}

const jsonOf = (parts: Readonly<Record<string, Uint8Array>>, path: string): unknown => {
  const bytes = Object.hasOwn(parts, path) ? parts[path] : undefined;
  if (!bytes) throw broken(`The bundle lacks "${path}".`);
  try {
    return JSON.parse(strFromU8(bytes));
  } catch {
    throw broken(`"${path}" in the bundle is broken.`);
  }
};

function artOf(parts: Readonly<Record<string, Uint8Array>>, path: string): Art {
  try {
    return readArt(jsonOf(parts, path));
  } catch (error) {
    if (error instanceof MirrotError && error.code === 'bundle') throw error;
    throw broken(`The drawing "${path}" in the bundle is broken: ${(error as Error).message}`);
  }
}

/** What the drawing began as: checked like every drawing, and kept of its own version, which the journal's changes fit. */
function beginningIn(parts: Readonly<Record<string, Uint8Array>>, now: number): Bundle['beginning'] {
  const read = z.object({ revision: revisionSchema, art: z.unknown() }).safeParse(jsonOf(parts, 'beginning.json')); // prettier-ignore
  try {
    if (!read.success || read.data.revision > now) throw new RangeError('It is no beginning.');
    readArt(read.data.art);
    return { revision: read.data.revision, art: read.data.art };
  } catch {
    throw broken('"beginning.json" in the bundle is broken.');
  }
}

/** The exercise that is practised in the project, and what was handed in. */
function practisedIn(parts: Readonly<Record<string, Uint8Array>>): Practised {
  const read = practisedSchema.safeParse(jsonOf(parts, 'exercise.json'));
  if (!read.success) throw broken('"exercise.json" in the bundle is broken.');
  return read.data;
}

function bundleOf(parts: Readonly<Record<string, Uint8Array>>): Bundle {
  const said = jsonOf(parts, MANIFEST);
  const version = z.object({ bundle: z.number(), art: z.number() }).safeParse(said);
  if (version.success && (version.data.bundle > BUNDLE_VERSION || version.data.art > ART_VERSION))
    throw broken('This bundle was written by a newer Mirrot. Bring this one up to date first.');
  const read = manifestSchema.safeParse(said);
  if (!read.success) throw broken(`"${MANIFEST}" in the bundle is broken.`);
  const { name, createdAt, revision } = read.data;
  const files = (list: readonly z.infer<typeof fileSchema>[]): BundledFile[] =>
    list.map(({ id, name: called, path }) => {
      const bytes = Object.hasOwn(parts, path) ? parts[path] : undefined;
      if (!bytes) throw broken(`The bundle lacks "${path}", which is ${called}.`);
      return { id, name: called, bytes };
    });
  const journal = Object.hasOwn(parts, 'journal.json')
    ? journalSchema.safeParse(jsonOf(parts, 'journal.json'))
    : null;
  if (journal?.success === false) throw broken('"journal.json" in the bundle is broken.');
  const beginning = Object.hasOwn(parts, 'beginning.json') ? beginningIn(parts, revision) : null;
  return {
    name,
    createdAt,
    revision,
    beginning,
    practised: Object.hasOwn(parts, 'exercise.json') ? practisedIn(parts) : null,
    art: artOf(parts, 'drawing.json'),
    pictures: files(read.data.pictures),
    fonts: files(read.data.fonts),
    copies: read.data.copies.map(({ path, ...about }) => ({ ...about, art: artOf(parts, path) })),
    journal: (journal?.data ?? []).map((one) => ({ ...one, entry: one.entry })),
  };
}

/**
 * Reads a bundle, or a zip file of several.
 *
 * @returns each project that is in it, in the order of their names in the file
 * @throws MirrotError `bundle` with a sentence: no zip, cut short, hostile, of a newer version, or lacking something
 */
export function readBundles(bytes: Uint8Array): Bundle[] {
  const parts = unpacked(bytes);
  if (Object.hasOwn(parts, MANIFEST)) return [bundleOf(parts)];
  const within = Object.keys(parts).filter((name) => name.toLowerCase().endsWith('.zip'));
  if (within.length === 0) throw broken('There is no project of Mirrot in this zip file.');
  if (within.length > MOST_BUNDLES) throw broken(`There are over ${MOST_BUNDLES} projects in this file.`);
  return within.sort().map((name) => {
    const inner = unpacked(parts[name]!);
    if (!Object.hasOwn(inner, MANIFEST)) throw broken(`There is no project of Mirrot in "${name}".`);
    return bundleOf(inner);
  });
}
