import { fitName } from '@mirrot/core';
import type { ImportAnswer } from '$lib/wire';
import { readSvgApart } from './apart';
import type { Database } from './database';
import { addProject } from './projects';
import { Refusal } from './refusal';

/**
 * Makes a project of an SVG: its drawing, on a sheet of its size.
 *
 * @param name of the project, or null: the title of the file or its name
 */
export async function importSvg(db: Database, file: File, name: string | null): Promise<ImportAnswer> {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(await file.arrayBuffer());
  } catch {
    throw new Refusal(422, 'svg', 'This is not an SVG: it is no text in UTF-8. Nothing was added.');
  }
  const { art, title, left } = await readSvgApart(text);
  const fromFile = fitName(file.name.replace(/\.[^.]{1,5}$/, ''), 'Untitled');
  return { project: await addProject(db, name ?? title ?? fromFile, art), left };
}
