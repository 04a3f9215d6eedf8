import Sqlite from 'better-sqlite3';
import { Kysely, Migrator, SqliteDialect } from 'kysely';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { MIGRATIONS } from './migrations';
import type { Tables } from './tables';

export type Database = Kysely<Tables>;

/**
 * Opens the database and brings its tables up to date.
 *
 * @param file path of the SQLite file, or ":memory:"
 */
export async function openDatabase(file: string): Promise<Database> {
  const sqlite = new Sqlite(file);
  sqlite.pragma('journal_mode = WAL');
  sqlite.pragma('synchronous = FULL');
  sqlite.pragma('foreign_keys = ON');
  sqlite.pragma('busy_timeout = 5000');
  const db = new Kysely<Tables>({ dialect: new SqliteDialect({ database: sqlite }) });
  const migrator = new Migrator({ db, provider: { getMigrations: async () => ({ ...MIGRATIONS }) } });
  const { error } = await migrator.migrateToLatest();
  if (error) throw error;
  return db;
}

let shared: Promise<Database> | null = null;

/** The server's database, in the folder that MIRROT_DATA names, or ./data. Opened at first use. */
export function database(): Promise<Database> {
  shared ??= (async () => {
    const folder = process.env.MIRROT_DATA ?? 'data';
    mkdirSync(folder, { recursive: true });
    return openDatabase(join(folder, 'mirrot.sqlite'));
  })();
  return shared;
}
