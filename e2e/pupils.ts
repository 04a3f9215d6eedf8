import type { APIRequestContext } from '@playwright/test';
import { parsePathData, type Art } from '@mirrot/core';
import { URL } from './desk';

/** What a pupil handed in once: an outline on the exercise's picture, time and presses. */
export interface Try {
  readonly d: string;
  readonly seconds: number;
  readonly presses: number;
}

/** A bundle as a pupil hands it in: an exercise begun, drawn and handed in, each try over the one before. Nothing of it stays on the server. */
export async function pupilsBundle(
  request: APIRequestContext,
  exercise: string,
  tries: readonly Try[],
): Promise<Buffer> {
  const post = async <T>(path: string, data: unknown): Promise<T> => {
    const answer = await request.post(URL() + path, { data });
    if (!answer.ok()) throw new Error(`${path}: ${await answer.text()}`);
    return (await answer.json()) as T;
  };
  const { id } = await post<{ id: string }>(`/api/exercises/${exercise}/projects`, {});
  const project = `/api/projects/${id}`;
  let base = ((await (await request.get(`${URL()}${project}/art`)).json()) as { revision: number; art: Art }).revision; // prettier-ignore
  for (const [n, { d, seconds, presses }] of tries.entries()) {
    const paths = parsePathData(d, (k) => `line-${k}`);
    const shape = { id: 'shape', type: 'shape', name: 'Shape 1', shown: true, locked: false, opacity: 1, fill: null, stroke: null, paths }; // prettier-ignore
    const change =
      n === 0
        ? { op: 'add', path: '/layers/0/children/-', value: shape }
        : { op: 'replace', path: '/layers/0/children/0/paths', value: paths };
    ({ revision: base } = await post<{ revision: number }>(`${project}/changes`, {
      base,
      changes: [change],
    }));
    await post(`${project}/attempts`, { seconds, presses });
  }
  const bundle = await (await request.get(`${URL()}${project}/export.zip`)).body();
  await request.delete(URL() + project);
  await request.delete(`${URL()}/api/bin/${id}`);
  return bundle;
}
