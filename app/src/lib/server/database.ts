import Sqlite from 'better-sqlite3';
import { Kysely, Migrator, sql, SqliteDialect } from 'kysely';
import { accessSync, constants, existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { MIGRATIONS } from './migrations';
import { startFailure, StartFailure } from './start-failure';
import type { Tables } from './tables';

export type Database = Kysely<Tables>;

const handles = new WeakMap<Database, Sqlite.Database>();

/** The SQLite handle under a database, for what Kysely has no words for. */
export const handleOf = (db: Database): Sqlite.Database => handles.get(db)!;

const MIGRATION_TABLE = 'kysely_migration';

/** Names of the migrations that a database has been through; none for a new file. */
function migrationsIn(sqlite: Sqlite.Database): string[] {
  const table = sqlite.prepare("select 1 from sqlite_master where type = 'table' and name = ?");
  if (!table.get(MIGRATION_TABLE)) return [];
  return (sqlite.prepare(`select name from ${MIGRATION_TABLE}`).all() as { name: string }[]).map(
    (r) => r.name,
  );
}

/** A copy of the file as it is before an upgrade, beside it; made once for each upgrade. */
async function copyBefore(sqlite: Sqlite.Database, file: string, last: string): Promise<void> {
  const copy = `${file}.before-${last}`;
  if (existsSync(copy)) return;
  rmSync(`${copy}.part`, { force: true });
  await sqlite.backup(`${copy}.part`);
  renameSync(`${copy}.part`, copy);
}

/** Brings the tables up to date: all of it or, should the server be killed meanwhile, nothing of it. */
async function migrate(sqlite: Sqlite.Database, db: Database, file: string): Promise<void> {
  const names = Object.keys(MIGRATIONS).sort();
  const done = migrationsIn(sqlite);
  const unknown = done.find((name) => !names.includes(name));
  if (unknown !== undefined) throw new StartFailure('newer', `The database ${file} was written by a newer Mirrot (it has "${unknown}"). It is left as it is: start that version.`); // prettier-ignore
  const last = names.at(-1)!;
  if (done.includes(last)) return;
  if (done.length > 0 && file !== ':memory:') await copyBefore(sqlite, file, last);
  // Foreign keys are looked at again when all is done: tables are made anew meanwhile.
  sqlite.pragma('foreign_keys = OFF');
  sqlite.exec('BEGIN IMMEDIATE');
  try {
    const migrator = new Migrator({ db, provider: { getMigrations: async () => ({ ...MIGRATIONS }) } });
    const { error } = await migrator.migrateToLatest();
    if (error) throw error;
    sqlite.exec('COMMIT');
  } catch (error) {
    if (sqlite.inTransaction) sqlite.exec('ROLLBACK');
    throw error;
  }
  if (done.length > 0 && sqlite.pragma('auto_vacuum', { simple: true }) === 0) {
    sqlite.pragma('auto_vacuum = INCREMENTAL');
    sqlite.exec('VACUUM');
  }
}

/** Files up to this many bytes are looked through when they are opened: about half a second. */
const CHECKED_UP_TO = 200e6;

/**
 * Opens the database and brings its tables up to date.
 *
 * @param file path of the SQLite file, or ":memory:"
 * @throws StartFailure when it cannot be used
 */
export async function openDatabase(file: string): Promise<Database> {
  let sqlite: Sqlite.Database | undefined;
  try {
    sqlite = new Sqlite(file);
    // Pages that become free are given back bit by bit. Counts only before the first table is there.
    sqlite.pragma('auto_vacuum = INCREMENTAL');
    sqlite.pragma('journal_mode = WAL');
    sqlite.pragma('synchronous = FULL');
    sqlite.pragma('busy_timeout = 5000');
    const db = new Kysely<Tables>({ dialect: new SqliteDialect({ database: sqlite }) });
    handles.set(db, sqlite);
    await migrate(sqlite, db, file);
    sqlite.pragma('foreign_keys = ON');
    if (file !== ':memory:' && statSync(file).size < CHECKED_UP_TO && sqlite.pragma('quick_check(1)', { simple: true }) !== 'ok')
      throw new StartFailure('damaged', `The database ${file} is damaged and was left as it is. Put a backup in its place (npm run backup makes them).`); // prettier-ignore
    return db;
  } catch (error) {
    sqlite?.close();
    throw startFailure(error, file);
  }
}

/**
 * Carries out work in one transaction. Where it fails, the error is the first one, also when SQLite has rolled back by
 * itself (a disk that is full at the commit) and there is nothing left to roll back.
 */
export const inTransaction = <T>(db: Database, work: (tx: Database) => Promise<T>): Promise<T> =>
  db.connection().execute(async (connection) => {
    await sql`begin immediate`.execute(connection);
    try {
      const result = await work(connection);
      await sql`commit`.execute(connection);
      return result;
    } catch (error) {
      if (handleOf(db).inTransaction) await sql`rollback`.execute(connection);
      throw error;
    }
  });

/** How long a server that is just ending is waited for, milliseconds. */
const WAIT_FOR_OTHER = 3000;

/**
 * Takes the data folder for this server alone: an exclusive transaction on a file of its own, held until the process
 * ends, however it ends.
 */
function lockFolder(folder: string): Sqlite.Database {
  const lock = new Sqlite(join(folder, 'mirrot.lock'), { timeout: WAIT_FOR_OTHER });
  try {
    lock.exec('BEGIN EXCLUSIVE');
    return lock;
  } catch (error) {
    lock.close();
    if ((error as { code?: string }).code?.startsWith('SQLITE_BUSY'))
      throw new StartFailure('in-use', `The data in ${folder} is in use by another Mirrot server. Stop that one, or name another folder with MIRROT_DATA.`); // prettier-ignore
    throw error;
  }
}

/** Opens the database of a data folder, which is made if need be and is this server's alone from then on. */
async function openFolder(folder: string): Promise<Database> {
  const file = join(folder, 'mirrot.sqlite');
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
    if (existsSync(file) && statSync(file).size > 0) accessSync(file, constants.W_OK);
    locks.lock = lockFolder(folder);
  } catch (error) {
    throw startFailure(error, file);
  }
  return openDatabase(file);
}

// Held by the process and not by this module: while developing, the module is read anew and the lock stays.
const locks = globalThis as { mirrotDatabase?: Promise<Database>; lock?: Sqlite.Database };

/** The server's database, in the folder that MIRROT_DATA names, or ./data. */
export const database = (): Promise<Database> =>
  (locks.mirrotDatabase ??= openFolder(process.env.MIRROT_DATA ?? 'data'));
