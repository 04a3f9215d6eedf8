import pLimit from 'p-limit';
import type { Database } from './database';
import { getCopy } from './copies';
import { getArt } from './documents';
import { outputThumb } from './output';
import { getProject } from './projects';

/** Width of a card's picture on the shelf, pixels. */
const THUMB_WIDTH = 480;
/** Drawn at a time; a machine has other things to do. */
const drawing = pLimit(2);

/** A project's card: drawn once for each revision. `revision` is the project's now. */
export async function projectThumb(
  db: Database,
  projectId: string,
): Promise<{ revision: number; bytes: Buffer }> {
  const { revision } = await getProject(db, projectId);
  const kept = await db
    .selectFrom('thumbs')
    .select(['revision', 'bytes'])
    .where('project_id', '=', projectId)
    .executeTakeFirst();
  if (kept?.revision === revision) return kept;
  return drawing(async () => {
    const { art, revision: drawn } = await getArt(db, projectId);
    const bytes = await outputThumb(db, art, THUMB_WIDTH);
    await db
      .insertInto('thumbs')
      .values({ project_id: projectId, revision: drawn, bytes })
      .onConflict((c) => c.column('project_id').doUpdateSet({ revision: drawn, bytes }))
      .execute();
    return { revision: drawn, bytes };
  });
}

/** Width of a kept copy's picture, pixels. */
const COPY_WIDTH = 240;

/** The picture of a kept copy. */
export const copyThumb = (db: Database, projectId: string, copy: string): Promise<Buffer> =>
  drawing(async () => outputThumb(db, await getCopy(db, projectId, copy), COPY_WIDTH));
