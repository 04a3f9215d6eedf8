import { saveFile } from '$lib/ui/files';
import { fetchExport } from './api';
import { withProgress } from './progress';
import type { Workplace } from './workplace.svelte';

/** A file that was made, with its name. */
export interface MadeFile {
  readonly name: string;
  readonly content: Blob;
  /** What is not in it that one would look for, as a sentence. */
  readonly without?: string;
}

/**
 * Has a file made and hands it to the browser to keep.
 *
 * @param what is written, in words
 * @param make makes it; @param end stops that
 * @returns whether it was written
 */
export async function keepFile(
  w: Workplace,
  what: string,
  end: () => void,
  make: () => Promise<MadeFile>,
): Promise<boolean> {
  const file = await withProgress(w, `Writing ${what}`, end, make);
  if (!file) return false;
  saveFile(file.name, file.content);
  w.desk.say([`${file.name} was written.`, file.without].filter(Boolean).join(' '), 'good');
  return true;
}

/** Fetches a file of the drawing from the server and hands it to the browser to keep. */
export function writeFile(
  w: Workplace,
  what: string,
  format: string,
  query: Record<string, string>,
): Promise<boolean> {
  const stopper = new AbortController();
  return keepFile(
    w,
    what,
    () => stopper.abort(),
    () => fetchExport(w.project.id, format, query, stopper.signal),
  );
}
