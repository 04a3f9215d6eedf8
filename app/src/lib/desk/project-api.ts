import type {
  AgainRequest,
  CopyAnswer,
  FontAnswer,
  ImportAnswer,
  ProjectAnswer,
  SeveralKind,
} from '$lib/wire';
import { call, send } from './api';

// What is asked of the server now and then: projects of files and of others, folders, kept copies.

/**
 * Makes a project of a file taken as drawing, or the projects that are in a bundle.
 *
 * @param name of the project; null for the one that the file has
 */
export async function importFile(
  file: File,
  name: string | null,
  signal?: AbortSignal,
): Promise<ImportAnswer> {
  const form = new FormData();
  form.set('file', file);
  if (name !== null) form.set('name', name);
  const answer = await call('/api/projects/import', {
    method: 'POST',
    body: form,
    ...(signal ? { signal } : {}),
  });
  return answer.json() as Promise<ImportAnswer>;
}
export const changeCopy = (
  id: string,
  copy: string,
  change: { name?: string; note?: string },
): Promise<CopyAnswer> => send('PATCH', `/api/projects/${id}/copies/${copy}`, change);
export const deleteCopy = async (id: string, copy: string): Promise<void> =>
  void (await call(`/api/projects/${id}/copies/${copy}`, { method: 'DELETE' }));
/** Makes a project of another, or of one of its kept copies. */
export const projectAgain = (id: string, wish: AgainRequest): Promise<ProjectAnswer> =>
  send('POST', `/api/projects/${id}/again`, wish);
/** Font files that the project has of its own. */
export const listFonts = async (id: string): Promise<FontAnswer[]> =>
  (await call(`/api/projects/${id}/fonts`)).json() as Promise<FontAnswer[]>;
export async function addFont(id: string, file: File): Promise<FontAnswer> {
  const form = new FormData();
  form.set('file', file);
  const answer = await call(`/api/projects/${id}/fonts`, { method: 'POST', body: form });
  return answer.json() as Promise<FontAnswer>;
}
export const putInFolder = (id: string, folder: string): Promise<ProjectAnswer> =>
  send('PATCH', `/api/projects/${id}`, { folder });

/** Several projects in one zip file: each a bundle, or its sheet as a file of a kind. */
export async function fetchSeveral(
  ids: readonly string[],
  as: SeveralKind,
  signal: AbortSignal,
): Promise<Blob> {
  const query = new URLSearchParams({ of: ids.join(','), as });
  return (await call(`/api/projects/export.zip?${query}`, { signal })).blob();
}
