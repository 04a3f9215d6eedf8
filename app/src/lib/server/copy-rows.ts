import { artText, readArt, type Art } from '@mirrot/core';
import { newId } from '$lib/ids';
import type { CopyAnswer } from '$lib/wire';
import type { Database } from './database';
import { packText, unpackText } from './entry';

/** Copies that are kept by themselves: so many of a project at most, the oldest go first. */
const MOST_BY_ITSELF = 24;

/** What a copy is called, and whether the server keeps it by itself. */
export interface Kept {
  readonly name: string;
  readonly note?: string;
  readonly byItself?: boolean;
  /** ISO 8601, UTC; now when left out. */
  readonly createdAt?: string;
}

/** Keeps a drawing as it is at a revision. */
export async function addCopy(
  db: Database,
  projectId: string,
  { art, revision }: { readonly art: Art; readonly revision: number },
  { name, note = '', byItself = false, createdAt = new Date().toISOString() }: Kept,
): Promise<CopyAnswer> {
  const id = newId();
  await db
    .insertInto('copies')
    .values({
      id,
      project_id: projectId,
      name,
      note,
      revision,
      art: await packText(artText(art)),
      created_at: createdAt,
      by_itself: Number(byItself),
    })
    .execute();
  if (byItself) {
    const old = db
      .selectFrom('copies')
      .select('id')
      .where('project_id', '=', projectId)
      .where('by_itself', '=', 1)
      .orderBy('created_at', 'desc')
      .limit(-1)
      .offset(MOST_BY_ITSELF);
    await db.deleteFrom('copies').where('id', 'in', old).execute();
  }
  return { id, name, note, byItself, revision, createdAt };
}

/** A kept copy with its drawing. */
export interface ListedCopy extends Omit<CopyAnswer, 'id'> {
  readonly art: Art;
}

/** Kept copies of a project with their drawings, oldest first. */
export async function listedCopies(db: Database, projectId: string): Promise<ListedCopy[]> {
  const rows = await db
    .selectFrom('copies')
    .select(['name', 'note', 'revision', 'by_itself', 'created_at', 'art'])
    .where('project_id', '=', projectId)
    .orderBy('created_at')
    .execute();
  return Promise.all(
    rows.map(async ({ by_itself, created_at, art, ...row }) => ({
      ...row,
      byItself: by_itself === 1,
      createdAt: created_at,
      art: readArt(JSON.parse((await unpackText(art)).toString())),
    })),
  );
}
