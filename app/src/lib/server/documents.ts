import { applyForeignPatches, migrateArt, MirrotError, type Art, type Patch } from '@mirrot/core';
import type { ArtAnswer, ChangesRequest, JournalAnswer } from '$lib/wire';
import type { Database } from './database';
import { noProject, Refusal } from './refusal';

/** The current drawing of a project and its revision. */
export async function getArt(db: Database, projectId: string): Promise<ArtAnswer> {
  const row = await db
    .selectFrom('documents')
    .innerJoin('projects', 'projects.id', 'documents.project_id')
    .select(['revision', 'art'])
    .where('project_id', '=', projectId)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (!row) throw noProject();
  return { revision: row.revision, art: migrateArt(JSON.parse(row.art)) as Art };
}

/**
 * Carries out changes on the drawing: one transaction appends each to the journal and writes the new document.
 *
 * @param base revision the changes build on; an older one is refused with 409 and the current revision
 * @param notes what each change was to the history, when its sender says
 * @param batch name of this request; when it was carried out before, nothing happens and its revision is answered
 */
export async function changeDocument(
  db: Database,
  projectId: string,
  base: number,
  changes: readonly (readonly Patch[])[],
  batch: string | null,
  notes: ChangesRequest['notes'] = [],
): Promise<{ revision: number }> {
  return db.transaction().execute(async (tx) => {
    const current = await getArt(tx, projectId);
    if (batch !== null) {
      const done = await tx
        .selectFrom('journal')
        .select((q) => q.fn.max('revision').as('revision'))
        .where('project_id', '=', projectId)
        .where('batch', '=', batch)
        .executeTakeFirst();
      if (done?.revision) return { revision: done.revision };
    }
    if (base !== current.revision)
      throw new Refusal(
        409,
        'old-revision',
        `The project has been changed elsewhere: it is at revision ${current.revision}, this change builds on ${base}. Nothing was changed.`,
        { revision: current.revision },
      );
    let { art, revision } = current;
    const now = new Date().toISOString();
    const entries = changes.map((patches, i) => {
      revision++;
      const note = notes[i] ? JSON.stringify(notes[i]) : null;
      return {
        project_id: projectId,
        revision,
        batch,
        patches: JSON.stringify(patches),
        note,
        created_at: now,
      };
    });
    try {
      art = applyForeignPatches(art, changes.flat());
    } catch (error) {
      if (error instanceof MirrotError)
        throw new Refusal(422, error.code, `${error.message} Nothing was changed.`);
      throw error;
    }
    const sources = new Set(art.pictures.map((p) => p.source));
    if (sources.size > 0) {
      const known = await tx
        .selectFrom('pictures')
        .select('id')
        .where('id', 'in', [...sources])
        .execute();
      if (known.length < sources.size)
        throw new Refusal(
          422,
          'no-picture',
          'The drawing names a picture that was never added. Nothing was changed.',
        );
    }
    await tx.insertInto('journal').values(entries).execute();
    await tx
      .updateTable('documents')
      .set({ revision, art: JSON.stringify(art) })
      .where('project_id', '=', projectId)
      .execute();
    await tx.updateTable('projects').set({ updated_at: now }).where('id', '=', projectId).execute();
    return { revision };
  });
}

/** Changes that a page is told of when it opens, and their size together in characters, at most. */
const MOST_CHANGES = 300;
const MOST_TOLD = 4_000_000;

/** The newest changes of a project with what they were to the history, as far back as is told. */
export const getJournal = (db: Database, projectId: string): Promise<JournalAnswer> =>
  db.transaction().execute(async (tx) => {
    const { revision } = await getArt(tx, projectId);
    const rows = await tx
      .selectFrom('journal')
      .select(['patches', 'note'])
      .where('project_id', '=', projectId)
      .orderBy('revision', 'desc')
      .limit(MOST_CHANGES)
      .execute();
    let told = 0;
    const end = rows.findIndex((r) => (told += r.patches.length + (r.note?.length ?? 0)) > MOST_TOLD);
    const changes = (end < 0 ? rows : rows.slice(0, end)).reverse().map(({ patches, note }) => ({
      patches: JSON.parse(patches) as Patch[],
      note: note === null ? null : (JSON.parse(note) as JournalAnswer['changes'][number]['note']),
    }));
    return { revision, changes };
  });
