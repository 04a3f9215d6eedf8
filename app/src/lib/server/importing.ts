import { fitName } from '@mirrot/core';
import { MOST_BYTES } from '$lib/limits';
import type { ImportAnswer } from '$lib/wire';
import { readSvgApart } from './apart';
import type { Database } from './database';
import { importBundles } from './bundling';
import { tooLargeFor } from './form';
import { addProject } from './projects';
import { Refusal } from './refusal';

/**
 * Makes a project of an SVG: its drawing, on a sheet of its size.
 *
 * @param name of the project, or null: the title of the file or its name
 */
async function importSvg(
  db: Database,
  file: File,
  bytes: Uint8Array,
  name: string | null,
): Promise<ImportAnswer> {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new Refusal(422, 'svg', 'This is not an SVG: it is no text in UTF-8. Nothing was added.');
  }
  const { art, title, left } = await readSvgApart(text);
  const fromFile = fitName(file.name.replace(/\.[^.]{1,5}$/, ''), 'Untitled');
  const project = await addProject(db, name ?? title ?? fromFile, art);
  return { project, projects: [project], left };
}

/** What a zip file begins with (APPNOTE, PKWARE: local file header). */
const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** Makes a project, or several, of a file by its content: a bundle, a zip file of bundles, or an SVG. */
export async function importFile(db: Database, file: File, name: string | null): Promise<ImportAnswer> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (!isZip(bytes)) {
    if (bytes.length > MOST_BYTES) throw tooLargeFor('an SVG', MOST_BYTES);
    return importSvg(db, file, bytes, name);
  }
  const projects = await importBundles(db, bytes, name);
  return { project: projects[0]!, projects, left: [] };
}
