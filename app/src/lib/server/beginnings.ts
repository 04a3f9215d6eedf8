import { artText, type Art } from '@mirrot/core';
import type { Database } from './database';
import { packText, unpackText } from './entry';

// What each drawing began as, kept beside the journal, which has the rest.

/** Keeps what a project began as, at a revision; once. */
export const keepBeginning = async (
  tx: Database,
  projectId: string,
  revision: number,
  /** The document, of whatever version. */
  art: Art | string,
): Promise<void> =>
  void (await tx
    .insertInto('beginnings')
    .values({
      project_id: projectId,
      revision,
      art: await packText(typeof art === 'string' ? art : artText(art)),
    })
    .execute());

/** What a project began as, and the revision it had then. */
export async function beginningOf(
  db: Database,
  projectId: string,
): Promise<{ readonly revision: number; readonly text: string } | null> {
  const row = await db
    .selectFrom('beginnings')
    .select(['revision', 'art'])
    .where('project_id', '=', projectId)
    .executeTakeFirst();
  return row ? { revision: row.revision, text: (await unpackText(row.art)).toString() } : null;
}
