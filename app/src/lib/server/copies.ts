import { readArt, type Art } from '@mirrot/core';
import type { CopyAnswer } from '$lib/wire';
import type { Database } from './database';
import { getArt } from './documents';
import { addCopy, type Kept } from './copy-rows';
import { unpackText } from './entry';
import { Refusal } from './refusal';

/** Keeps the drawing as it is now under a name. */
export const keepCopy = async (db: Database, projectId: string, kept: Kept): Promise<CopyAnswer> =>
  addCopy(db, projectId, await getArt(db, projectId), kept);

/** Kept copies of a project, newest first. */
export async function listCopies(db: Database, projectId: string): Promise<CopyAnswer[]> {
  const rows = await db
    .selectFrom('copies')
    .select(['id', 'name', 'note', 'revision', 'by_itself', 'created_at as createdAt'])
    .where('project_id', '=', projectId)
    .orderBy('created_at', 'desc')
    .execute();
  return rows.map(({ by_itself, ...row }) => ({ ...row, byItself: by_itself === 1 }));
}

const noCopy = (): Refusal => new Refusal(404, 'no-copy', 'There is no such kept copy.');

/** The drawing of a kept copy. */
export async function getCopy(db: Database, projectId: string, id: string): Promise<Art> {
  const row = await db
    .selectFrom('copies')
    .select('art')
    .where('project_id', '=', projectId)
    .where('id', '=', id)
    .executeTakeFirst();
  if (!row) throw noCopy();
  return readArt(JSON.parse((await unpackText(row.art)).toString()));
}

/** Gives a kept copy another name or note. One that is named stays until it is taken away. */
export async function changeCopy(
  db: Database,
  projectId: string,
  id: string,
  change: { name?: string; note?: string },
): Promise<CopyAnswer> {
  const values = {
    ...(change.name === undefined ? {} : { name: change.name, by_itself: 0 }),
    ...(change.note === undefined ? {} : { note: change.note, by_itself: 0 }),
  };
  await db
    .updateTable('copies')
    .set(values)
    .where('project_id', '=', projectId)
    .where('id', '=', id)
    .execute();
  const copy = (await listCopies(db, projectId)).find((c) => c.id === id);
  if (!copy) throw noCopy();
  return copy;
}

/** Takes a kept copy away for good. */
export async function deleteCopy(db: Database, projectId: string, id: string): Promise<void> {
  const { numDeletedRows } = await db
    .deleteFrom('copies')
    .where('project_id', '=', projectId)
    .where('id', '=', id)
    .executeTakeFirst();
  if (numDeletedRows === 0n) throw noCopy();
}
