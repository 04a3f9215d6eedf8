import { artText, readArt, type Art } from '@mirrot/core';
import { newId } from '$lib/ids';
import type { CopyAnswer } from '$lib/wire';
import type { Database } from './database';
import { getArt } from './documents';
import { Refusal } from './refusal';

/** Keeps the drawing as it is now under a name. */
export async function keepCopy(db: Database, projectId: string, name: string): Promise<CopyAnswer> {
  const { art, revision } = await getArt(db, projectId);
  const id = newId();
  const createdAt = new Date().toISOString();
  await db
    .insertInto('copies')
    .values({ id, project_id: projectId, name, revision, art: artText(art), created_at: createdAt })
    .execute();
  return { id, name, revision, createdAt };
}

/** Kept copies of a project, newest first. */
export async function listCopies(db: Database, projectId: string): Promise<CopyAnswer[]> {
  return db
    .selectFrom('copies')
    .select(['id', 'name', 'revision', 'created_at as createdAt'])
    .where('project_id', '=', projectId)
    .orderBy('created_at', 'desc')
    .execute();
}

/** The drawing of a kept copy. */
export async function getCopy(db: Database, projectId: string, id: string): Promise<Art> {
  const row = await db
    .selectFrom('copies')
    .select('art')
    .where('project_id', '=', projectId)
    .where('id', '=', id)
    .executeTakeFirst();
  if (!row) throw new Refusal(404, 'no-copy', 'There is no such kept copy.');
  return readArt(JSON.parse(row.art));
}
