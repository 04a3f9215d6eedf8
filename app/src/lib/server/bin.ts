import type { DeleteQueryBuilder, DeleteResult } from 'kysely';
import type { BinAnswer } from '$lib/wire';
import { handleOf, inTransaction, type Database } from './database';
import { projectAnswer, projectRows } from './projects';
import { noProject } from './refusal';
import type { Tables } from './tables';

/** Days for which a deleted project can be brought back. */
export const DAYS_KEPT = 30;

/** Pages given back to the system at a time, 4 kB each. */
const PAGES_AT_ONCE = 2000;

/** Gives free pages back to the system, some at a time, so that others are served in between. */
async function giveBackPages(db: Database): Promise<void> {
  const sqlite = handleOf(db);
  const free = (): number => Number(sqlite.pragma('freelist_count', { simple: true }));
  for (let before = Infinity; free() > 0 && free() < before;) {
    before = free();
    sqlite.pragma(`incremental_vacuum(${PAGES_AT_ONCE})`);
    await new Promise((done) => setImmediate(done));
  }
}

const DAY_MS = 86_400_000;

type DeletedProjects = DeleteQueryBuilder<Tables, 'projects', DeleteResult>;

/**
 * Clears deleted projects away with all they hold; pictures that no project uses any more go with them, and the room is
 * given back.
 *
 * @returns how many there were
 */
async function clear(db: Database, which: (query: DeletedProjects) => DeletedProjects): Promise<number> {
  const cleared = await inTransaction(db, async (tx) => {
    const query = tx.deleteFrom('projects').where('deleted_at', 'is not', null);
    const { numDeletedRows } = await which(query).executeTakeFirst();
    if (numDeletedRows === 0n) return 0;
    await tx
      .deleteFrom('pictures')
      .where('id', 'not in', (q) => q.selectFrom('held_pictures').select('picture_id'))
      .execute();
    await tx
      .deleteFrom('blobs')
      .where('sha256', 'not in', (q) => q.selectFrom('pictures').select('sha256'))
      .execute();
    return Number(numDeletedRows);
  });
  if (cleared > 0) await giveBackPages(db);
  return cleared;
}

/** Clears away projects that were deleted over 30 days ago. */
export async function clearBin(db: Database, now = Date.now()): Promise<void> {
  const limit = new Date(now - DAYS_KEPT * DAY_MS).toISOString();
  await clear(db, (q) => q.where('deleted_at', '<', limit));
}

/** Clears one deleted project away before its time. Refuses with 404 when it is not in the bin. */
export async function clearFromBin(db: Database, id: string): Promise<void> {
  if ((await clear(db, (q) => q.where('id', '=', id))) === 0) throw noProject();
}

/** What can be brought back, deleted last first. */
export async function listBin(db: Database): Promise<BinAnswer[]> {
  const found = await projectRows(db)
    .select('deleted_at')
    .where('deleted_at', 'is not', null)
    .orderBy('deleted_at', 'desc')
    .execute();
  return found.map((row) => ({
    ...projectAnswer(row),
    deletedAt: row.deleted_at!,
    goneAt: new Date(Date.parse(row.deleted_at!) + DAYS_KEPT * DAY_MS).toISOString(),
  }));
}

/** The card's picture as it was drawn last, of a deleted project; null where none was. */
export async function binThumb(db: Database, id: string): Promise<Buffer | null> {
  const kept = await db
    .selectFrom('thumbs')
    .innerJoin('projects', 'projects.id', 'thumbs.project_id')
    .select('thumbs.bytes')
    .where('projects.id', '=', id)
    .where('projects.deleted_at', 'is not', null)
    .executeTakeFirst();
  return kept?.bytes ?? null;
}

/** Milliseconds between two looks into the bin. */
const LOOK_AGAIN = 6 * 3_600_000;

/** Clears the bin now and from time to time. */
export function keepBinClear(db: Database): void {
  const look = (): void => void clearBin(db).catch((error: unknown) => console.error(error));
  look();
  setInterval(look, LOOK_AGAIN).unref();
}
