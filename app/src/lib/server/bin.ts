import { handleOf, inTransaction, type Database } from './database';

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

/**
 * Clears away projects that were deleted over 30 days ago, with all they hold; pictures that no project uses any more go
 * with them, and the room is given back.
 */
export async function clearBin(db: Database, now = Date.now()): Promise<void> {
  const limit = new Date(now - DAYS_KEPT * 86_400_000).toISOString();
  const cleared = await inTransaction(db, async (tx) => {
    const { numDeletedRows } = await tx
      .deleteFrom('projects')
      .where('deleted_at', '<', limit)
      .executeTakeFirst();
    if (numDeletedRows === 0n) return false;
    await tx
      .deleteFrom('pictures')
      .where('id', 'not in', (q) => q.selectFrom('held_pictures').select('picture_id'))
      .execute();
    await tx
      .deleteFrom('blobs')
      .where('sha256', 'not in', (q) => q.selectFrom('pictures').select('sha256'))
      .execute();
    return true;
  });
  if (cleared) await giveBackPages(db);
}

/** Milliseconds between two looks into the bin. */
const LOOK_AGAIN = 6 * 3_600_000;

/** Clears the bin now and from time to time. */
export function keepBinClear(db: Database): void {
  const look = (): void => void clearBin(db).catch((error: unknown) => console.error(error));
  look();
  setInterval(look, LOOK_AGAIN).unref();
}
