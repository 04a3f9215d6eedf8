import { fontProblem, MOST_FONT_BYTES } from '@mirrot/core';
import { newId } from '$lib/ids';
import type { FontAnswer } from '$lib/wire';
import type { Database } from './database';
import { getProject } from './projects';
import { Refusal } from './refusal';

/** Font files of a project, at most. */
const MOST_FONTS = 50;

/**
 * Adds a font file to a project. Only its beginning is looked at here: it is read by the pages that set texts in it, away
 * from anything else.
 */
export async function addFont(
  db: Database,
  projectId: string,
  name: string,
  bytes: Buffer,
): Promise<FontAnswer> {
  await getProject(db, projectId);
  const problem = fontProblem(bytes);
  if (problem) throw new Refusal(bytes.length > MOST_FONT_BYTES ? 413 : 415, 'font', problem);
  const { count } = await db
    .selectFrom('fonts')
    .select((e) => e.fn.countAll<number>().as('count'))
    .where('project_id', '=', projectId)
    .executeTakeFirstOrThrow();
  if (count >= MOST_FONTS)
    throw new Refusal(
      409,
      'fonts',
      `A project has ${MOST_FONTS} fonts of its own at most. Nothing was added.`,
    );
  const id = newId();
  await db
    .insertInto('fonts')
    .values({ id, project_id: projectId, name, bytes, created_at: new Date().toISOString() })
    .execute();
  return { id, name };
}

/** The fonts of a project by name. */
export const listFonts = (db: Database, projectId: string): Promise<FontAnswer[]> =>
  db.selectFrom('fonts').select(['id', 'name']).where('project_id', '=', projectId).orderBy('name').execute();

/** A font file as it came. Refuses with 404 when it is not there any more. */
export async function fontBytes(db: Database, id: string): Promise<Buffer> {
  const row = await db.selectFrom('fonts').select('bytes').where('id', '=', id).executeTakeFirst();
  if (!row) throw new Refusal(404, 'no-font', 'The font of this text is not here any more. Choose another one; until then the text stays as it is.'); // prettier-ignore
  return row.bytes;
}
