import { OUTDATED, OUTDATED_TEXT } from '$lib/outdated';
import type {
  ArtAnswer,
  BinAnswer,
  CopyAnswer,
  ErrorAnswer,
  JournalAnswer,
  LeftRequest,
  OpenedAnswer,
  PictureAnswer,
  ProjectAnswer,
  SheetRequest,
  ShippedAnswer,
} from '$lib/wire';
import { LAST_SEEN } from '$lib/last-seen';
import { ART_VERSION, type Art } from '@mirrot/core';
import type { MadeChange } from './changes';

/** An answer that was no success: its status, code and sentence. Status 0: the server could not be reached. */
export class ServerError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly revision: number | null = null,
  ) {
    super(message);
  }
}

/** Asks the server; refuses with its sentence. */
export async function call(path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch (error) {
    if (init?.signal?.aborted) throw error;
    throw new ServerError(
      0,
      'away',
      'The server cannot be reached. Work is kept in this browser and sent when it is back.',
    );
  }
  if (response.ok) return response;
  const answer = (await response.json().catch(() => null)) as ErrorAnswer | null;
  throw new ServerError(
    response.status,
    answer?.error.code ?? 'server',
    answer?.error.message ?? 'The server could not do that. Please try again.',
    answer?.error.revision ?? null,
  );
}

export const get = async <T>(path: string): Promise<T> => (await call(path)).json() as Promise<T>;

/** @param keepalive sent also should the page close meanwhile; 64 KiB at most */
export const send = async <T>(method: string, path: string, value: unknown, keepalive = false): Promise<T> =>
  (
    await call(path, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(value),
      keepalive,
    })
  ).json() as Promise<T>;

export const signIn = async (key: string): Promise<void> =>
  void (await send('POST', '/api/sign-in', { key }));

/** The shelf; `away` when the server was, and this is how it was last seen. */
export async function listProjects(): Promise<{
  readonly projects: ProjectAnswer[];
  readonly away: boolean;
}> {
  const answer = await call('/api/projects');
  return { projects: (await answer.json()) as ProjectAnswer[], away: answer.headers.has(LAST_SEEN) };
}
export const getProject = (id: string): Promise<OpenedAnswer> => get(`/api/projects/${id}`);
/** Says where a project's desk was left; also while the page closes. */
export const sendLeft = async (id: string, left: LeftRequest): Promise<void> =>
  void (await call(`/api/projects/${id}/left`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(left),
    keepalive: true,
  }));
export const makeProject = (name: string, sheet: SheetRequest): Promise<ProjectAnswer> =>
  send('POST', '/api/projects', { name, sheet });
export const renameProject = (id: string, name: string): Promise<ProjectAnswer> =>
  send('PATCH', `/api/projects/${id}`, { name });
export const bringBackProject = (id: string): Promise<ProjectAnswer> =>
  send('PATCH', `/api/projects/${id}`, { deleted: false });
export const deleteProject = async (id: string): Promise<void> =>
  void (await call(`/api/projects/${id}`, { method: 'DELETE' }));

export const listBin = (): Promise<BinAnswer[]> => get('/api/bin');
export const clearFromBin = async (id: string): Promise<void> =>
  void (await call(`/api/bin/${id}`, { method: 'DELETE' }));

/** Refuses as the server does (426) where its documents are of another version than this page knows. */
export async function getArt(id: string): Promise<ArtAnswer> {
  const answer = await get<ArtAnswer>(`/api/projects/${id}/art`);
  if (answer.art.version !== ART_VERSION) throw new ServerError(OUTDATED, 'outdated', OUTDATED_TEXT);
  return answer;
}
export const sendChanges = (
  id: string,
  base: number,
  changes: readonly MadeChange[],
  batch: string,
  keepalive = false,
): Promise<{ revision: number }> =>
  send(
    'POST',
    `/api/projects/${id}/changes`,
    {
      base,
      version: ART_VERSION,
      changes: changes.map((c) => c.patches),
      notes: changes.map((c) => c.note),
      batch,
    },
    keepalive,
  );

export const getJournal = (id: string): Promise<JournalAnswer> => get(`/api/projects/${id}/journal`);

type Query = Readonly<Record<string, string>>;

/** Address of a file of the drawing. */
export const exportUrl = (id: string, format: string, query: Query): string =>
  `/api/projects/${id}/export.${format}?${new URLSearchParams(query)}`;

/** A file of the drawing, with the name the server gives it. */
export async function fetchExport(
  id: string,
  format: string,
  query: Query,
  signal?: AbortSignal,
): Promise<{ readonly name: string; readonly content: Blob }> {
  return fetchFile(exportUrl(id, format, query), `drawing.${format}`, signal);
}

/** How a drawing grew, as moving pictures. */
export const fetchReplay = (id: string, kind: 'webp' | 'gif', query: Query, signal: AbortSignal) =>
  fetchFile(`/api/projects/${id}/replay.${kind}?${new URLSearchParams(query)}`, `replay.${kind}`, signal);

/** A file with the name the server gives it; `otherwise` where it gives none. */
async function fetchFile(
  address: string,
  otherwise: string,
  signal?: AbortSignal,
): Promise<{ readonly name: string; readonly content: Blob }> {
  const answer = await call(address, { signal });
  const disposition = answer.headers.get('content-disposition') ?? '';
  const named = /filename\*=UTF-8''([^;]+)/.exec(disposition)?.[1];
  return { name: named ? decodeURIComponent(named) : otherwise, content: await answer.blob() };
}

export const listCopies = (id: string): Promise<CopyAnswer[]> => get(`/api/projects/${id}/copies`);
export const keepCopy = (id: string, name: string): Promise<CopyAnswer> =>
  send('POST', `/api/projects/${id}/copies`, { name });
export const getCopy = async (id: string, copy: string): Promise<Art> =>
  (await get<{ art: Art }>(`/api/projects/${id}/copies/${copy}`)).art;

export const listShipped = (): Promise<ShippedAnswer[]> => get('/api/shipped');
export async function fetchShipped({ file }: ShippedAnswer): Promise<File> {
  const blob = await (await call(`/api/shipped/${file}`)).blob();
  return new File([blob], file, { type: blob.type });
}

export const pictureUrl = (source: string, size: 'full' | 'work' | 'thumb'): string =>
  `/api/pictures/${source}?size=${size}`;

export const enlargePicture = async (projectId: string, id: string, factor: number): Promise<PictureAnswer> =>
  (
    await send<{ picture: PictureAnswer }>('POST', `/api/projects/${projectId}/pictures/${id}/larger`, {
      factor,
    })
  ).picture;

/** Uploads a picture; `progress` hears the share sent, 0 to 1, and `signal` stops it. */
export function uploadPicture(
  projectId: string,
  file: File,
  progress?: (share: number) => void,
  signal?: AbortSignal,
): Promise<PictureAnswer> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', `/api/projects/${projectId}/pictures`);
    request.responseType = 'json';
    request.upload.onprogress = (e) => e.lengthComputable && progress?.(e.loaded / e.total);
    request.onload = () => {
      const answer = request.response as { picture?: PictureAnswer } & Partial<ErrorAnswer>;
      if (answer?.picture) resolve(answer.picture);
      else
        reject(
          new ServerError(
            request.status,
            answer?.error?.code ?? 'server',
            answer?.error?.message ?? 'The picture could not be taken. Nothing was added.',
          ),
        );
    };
    request.onerror = () =>
      reject(
        new ServerError(
          0,
          'away',
          'The server cannot be reached. Nothing was added. Try again when it is back.',
        ),
      );
    request.onabort = () => reject(new ServerError(0, 'stopped', 'Stopped. Nothing was added.'));
    signal?.addEventListener('abort', () => request.abort());
    const form = new FormData();
    form.set('file', file);
    request.send(form);
  });
}
