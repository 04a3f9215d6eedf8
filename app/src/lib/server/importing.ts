import { fitName } from '@mirrot/core';
import { MOST_BYTES } from '$lib/limits';
import type { ImportAnswer } from '$lib/wire';
import { readDrawingApart } from './apart';
import type { Database } from './database';
import { importBundles } from './bundling';
import { tooLargeFor } from './form';
import { addProject } from './projects';
import { Refusal } from './refusal';

/** A DXF of text: pairs of a code and a value, the first of which is 0 and SECTION, or 999 and a comment. */
const isDxf = (text: string): boolean => /^\s*(0\s*\r?\n\s*SECTION|999\s*\r?\n)/.test(text);

/** The text of a drawing. A DXF may be written in the code page of an old system: what matters of it is the same in all. */
function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    const text = new TextDecoder('latin1').decode(bytes);
    if (isDxf(text)) return text;
    throw new Refusal(
      422,
      'svg',
      'This is no bundle, SVG or DXF: it is no text in UTF-8. Nothing was added.',
    );
  }
}

/**
 * Makes a project of an SVG or DXF: its drawing, on a sheet of its size.
 *
 * @param name of the project, or null: the title of the file or its name
 */
async function importDrawing(
  db: Database,
  file: File,
  bytes: Uint8Array,
  name: string | null,
): Promise<ImportAnswer> {
  const text = textOf(bytes);
  const { art, title, left } = await readDrawingApart({ kind: isDxf(text) ? 'dxf' : 'svg', text });
  const fromFile = fitName(file.name.replace(/\.[^.]{1,5}$/, ''), 'Untitled');
  const project = await addProject(db, name ?? title ?? fromFile, art);
  return { project, projects: [project], left };
}

/** What a zip file begins with (APPNOTE, PKWARE: local file header). */
const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** Makes a project, or several, of a file by its content: a bundle, a zip file of bundles, an SVG or a DXF. */
export async function importFile(db: Database, file: File, name: string | null): Promise<ImportAnswer> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (!isZip(bytes)) {
    if (bytes.length > MOST_BYTES) throw tooLargeFor('a drawing', MOST_BYTES);
    return importDrawing(db, file, bytes, name);
  }
  const projects = await importBundles(db, bytes, name);
  return { project: projects[0]!, projects, left: [] };
}
