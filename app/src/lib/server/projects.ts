import { sql } from 'kysely';
import { keepBeginning } from './beginnings';
import { artText, emptyArt, fromPx, holdingsOf, toPx, type Art } from '@mirrot/core';
import { newId } from '$lib/ids';
import { leftRequest, type LeftRequest, type OpenedAnswer, type ProjectAnswer, type SheetRequest } from '$lib/wire'; // prettier-ignore
import { inTransaction, type Database } from './database';
import { forgetDocuments } from './documents';
import { packText } from './entry';
import { noProject } from './refusal';

const rounded = (v: number): number => Number(v.toFixed(6));

export const projectRows = (db: Database) =>
  db
    .selectFrom('projects')
    .select([
      'id',
      'name',
      'created_at',
      'updated_at',
      'revision',
      'sheet_width',
      'sheet_height',
      'sheet_unit',
      'shapes',
      'painted',
      'anchors',
      'folder',
      'opened_at',
      'drift',
      sql<string | null>`json_extract(exercise, '$.exercise.title')`.as('practised'),
    ]);

type Row = Awaited<ReturnType<ReturnType<typeof projectRows>['execute']>>[number];

export const projectAnswer = (row: Row): ProjectAnswer => ({
  id: row.id,
  name: row.name,
  createdAt: row.created_at,
  updatedAt: row.updated_at,
  revision: row.revision,
  sheet: {
    width: rounded(fromPx(row.sheet_width, row.sheet_unit)),
    height: rounded(fromPx(row.sheet_height, row.sheet_unit)),
    unit: row.sheet_unit,
  },
  shapes: row.shapes,
  painted: row.painted,
  anchors: row.anchors,
  folder: row.folder,
  openedAt: row.opened_at,
  drift: row.drift,
  practised: row.practised,
});

/** All projects that are not deleted, the one changed last first. */
export async function listProjects(db: Database): Promise<ProjectAnswer[]> {
  const found = await projectRows(db).where('deleted_at', 'is', null).orderBy('updated_at', 'desc').execute();
  return found.map(projectAnswer);
}

/** One project. Refuses with 404 when there is none, or it is deleted. */
export async function getProject(db: Database, id: string): Promise<ProjectAnswer> {
  const row = await projectRows(db).where('id', '=', id).where('deleted_at', 'is', null).executeTakeFirst();
  if (!row) throw noProject();
  return projectAnswer(row);
}

/** One project with where its desk was left. Refuses as `getProject` does. */
export async function openedProject(db: Database, id: string): Promise<OpenedAnswer> {
  const project = await getProject(db, id);
  const row = await db.selectFrom('projects').select('left_at').where('id', '=', id).executeTakeFirst();
  // What an older or newer page wrote may be of another form: then it opens as a new one does.
  const read = row?.left_at ? leftRequest.safeParse(JSON.parse(row.left_at)) : null;
  return { ...project, left: read?.success ? read.data : null };
}

/** Keeps where a project's desk was left; what was not measured now stays as it was measured before. */
export async function keepLeft(db: Database, id: string, left: LeftRequest): Promise<void> {
  const { numUpdatedRows } = await db
    .updateTable('projects')
    .set({
      opened_at: new Date().toISOString(),
      left_at: JSON.stringify(left),
      ...(left.drift === null ? {} : { drift: left.drift }),
    })
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (numUpdatedRows === 0n) throw noProject();
}

/** Makes a project with an empty drawing. */
export function makeProject(db: Database, name: string, sheet: SheetRequest): Promise<ProjectAnswer> {
  const { unit } = sheet;
  const [width, height] = [toPx(sheet.width, unit), toPx(sheet.height, unit)];
  return addProject(db, name, emptyArt({ width, height, unit }, newId()));
}

/** A project to be added, its drawing checked. */
export interface NewProject {
  readonly name: string;
  readonly art: Art;
  /** ISO 8601, UTC; now when left out. */
  readonly createdAt?: string;
  /** 0 when left out. */
  readonly revision?: number;
  /** Pictures that it uses, by their sources: held from now on. */
  readonly pictures?: readonly string[];
  /** The exercise that is practised in it: JSON. */
  readonly exercise?: string | null;
  /** What it began as where that was before: the document's text; the drawing itself when left out. */
  readonly beginning?: { readonly revision: number; readonly text: string } | null;
}

/** Adds the rows of a project within a transaction; gives its id. */
export async function insertProject(
  tx: Database,
  { name, art, createdAt, revision = 0, pictures = [], beginning, exercise = null }: NewProject,
): Promise<string> {
  const id = newId();
  const now = new Date().toISOString();
  const { width, height, unit } = art.sheet;
  const { shapes, painted, anchors } = holdingsOf(art);
  await tx
    .insertInto('projects')
    .values({
      id,
      name,
      created_at: createdAt ?? now,
      updated_at: now,
      deleted_at: null,
      revision,
      sheet_width: width,
      sheet_height: height,
      sheet_unit: unit,
      shapes,
      painted,
      anchors,
      folder: '',
      opened_at: null,
      left_at: null,
      drift: null,
      exercise,
    })
    .execute();
  await tx
    .insertInto('documents')
    .values({ project_id: id, revision, art: await packText(artText(art)) })
    .execute();
  await keepBeginning(tx, id, beginning?.revision ?? revision, beginning?.text ?? art);
  for (const picture_id of new Set(pictures))
    await tx.insertInto('held_pictures').values({ project_id: id, picture_id }).execute();
  return id;
}

/**
 * Makes a project with a drawing that was checked.
 *
 * @param pictures that it uses, by their sources: held from now on
 */
export async function addProject(
  db: Database,
  name: string,
  art: Art,
  pictures: readonly string[] = [],
): Promise<ProjectAnswer> {
  const id = await inTransaction(db, (tx) => insertProject(tx, { name, art, pictures }));
  return getProject(db, id);
}

/** Renames a project, puts it into a folder, or brings a deleted one back. */
export async function changeProject(
  db: Database,
  id: string,
  change: { name?: string; folder?: string; deleted?: false },
): Promise<ProjectAnswer> {
  const values = {
    ...(change.name === undefined ? {} : { name: change.name }),
    ...(change.folder === undefined ? {} : { folder: change.folder }),
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
  forgetDocuments(db, id);
}
