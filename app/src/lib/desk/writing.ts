import { saveFile } from '$lib/ui/files';
import { fetchExport } from './api';
import { withProgress } from './progress';
import type { Workplace } from './workplace.svelte';

/** Hands a file to the browser to keep, and says so. */
export function keepFile(w: Workplace, name: string, content: Blob): void {
  saveFile(name, content);
  w.desk.say(`${name} was written.`, 'good');
}

/**
 * Fetches a file of the drawing and hands it to the browser to keep.
 *
 * @param what of the drawing is written, in words
 * @returns whether it was written
 */
export async function writeFile(
  w: Workplace,
  what: string,
  format: string,
  query: Record<string, string>,
): Promise<boolean> {
  const stopper = new AbortController();
  const file = await withProgress(
    w,
    `Writing ${what}`,
    () => stopper.abort(),
    () => fetchExport(w.project.id, format, query, stopper.signal),
  );
  if (!file) return false;
  keepFile(w, file.name, file.content);
  return true;
}
