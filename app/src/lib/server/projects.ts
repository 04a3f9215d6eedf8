import { emptyArt, fromPx, toPx, type Art } from '@mirrot/core';
import { newId } from '$lib/ids';
import type { ProjectAnswer, SheetRequest } from '$lib/wire';
import type { Database } from './database';
import { noProject } from './refusal';

/** Days for which a deleted project can be brought back. */
export const DAYS_KEPT = 30;

const rounded = (v: number): number => Number(v.toFixed(6));

const rows = (db: Database) =>
  db
    .selectFrom('projects')
    .innerJoin('documents', 'documents.project_id', 'projects.id')
    .select(['id', 'name', 'created_at', 'updated_at', 'revision', 'art']);

type Row = Awaited<ReturnType<ReturnType<typeof rows>['execute']>>[number];

function answerOf(row: Row): ProjectAnswer {
  const { sheet } = JSON.parse(row.art) as Art;
  return {
    id: row.id,
    name: row.name,
    createdAt: row.created_at,
    updatedAt: row.updated_at,
    revision: row.revision,
    sheet: {
      width: rounded(fromPx(sheet.width, sheet.unit)),
      height: rounded(fromPx(sheet.height, sheet.unit)),
      unit: sheet.unit,
    },
  };
}

/** All projects that are not deleted, the one changed last first. Deleted ones past their days are cleared away. */
export async function listProjects(db: Database): Promise<ProjectAnswer[]> {
  const limit = new Date(Date.now() - DAYS_KEPT * 86_400_000).toISOString();
  await db.deleteFrom('projects').where('deleted_at', '<', limit).execute();
  const found = await rows(db).where('deleted_at', 'is', null).orderBy('updated_at', 'desc').execute();
  return found.map(answerOf);
}

/** One project. Refuses with 404 when there is none, or it is deleted. */
export async function getProject(db: Database, id: string): Promise<ProjectAnswer> {
  const row = await rows(db).where('id', '=', id).where('deleted_at', 'is', null).executeTakeFirst();
  if (!row) throw noProject();
  return answerOf(row);
}

/** Makes a project with an empty drawing. */
export async function makeProject(db: Database, name: string, sheet: SheetRequest): Promise<ProjectAnswer> {
  const id = newId();
  const now = new Date().toISOString();
  const { unit } = sheet;
  const art = emptyArt({ width: toPx(sheet.width, unit), height: toPx(sheet.height, unit), unit }, newId());
  await db.transaction().execute(async (tx) => {
    await tx
      .insertInto('projects')
      .values({ id, name, created_at: now, updated_at: now, deleted_at: null })
      .execute();
    await tx
      .insertInto('documents')
      .values({ project_id: id, revision: 0, art: JSON.stringify(art) })
      .execute();
  });
  return getProject(db, id);
}

/** Renames a project, or brings a deleted one back. */
export async function changeProject(
  db: Database,
  id: string,
  change: { name?: string; deleted?: false },
): Promise<ProjectAnswer> {
  const values = {
    ...(change.name === undefined ? {} : { name: change.name }),
    ...(change.deleted === false ? { deleted_at: null } : {}),
  };
  let query = db.updateTable('projects').set(values).where('id', '=', id);
  if (change.deleted !== false) query = query.where('deleted_at', 'is', null);
  const { numUpdatedRows } = await query.executeTakeFirst();
  if (numUpdatedRows === 0n) throw noProject();
  return getProject(db, id);
}

/** Marks a project as deleted; `changeProject` brings it back within 30 days. */
export async function deleteProject(db: Database, id: string): Promise<void> {
  const { numUpdatedRows } = await db
    .updateTable('projects')
    .set({ deleted_at: new Date().toISOString() })
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (numUpdatedRows === 0n) throw noProject();
}
