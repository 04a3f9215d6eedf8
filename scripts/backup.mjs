// npm run backup: a copy of the database as it is now, whole, also while the server runs.
import { existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, resolve } from 'node:path';
import { installPackages, ROOT } from './ready.mjs';

installPackages();
const Sqlite = createRequire(join(ROOT, 'app', 'package.json'))('better-sqlite3');

const data = resolve(ROOT, process.env.MIRROT_DATA ?? 'data');
const file = join(data, 'mirrot.sqlite');
const folder = resolve(ROOT, process.argv[2] ?? join(data, 'backups'));
if (!existsSync(file)) {
  console.error(`There is no database in ${data}. MIRROT_DATA names the folder.`);
  process.exit(1);
}
const name = `mirrot-${new Date().toISOString().slice(0, 19).replace(/[:T]/g, '-')}.sqlite`;
const target = join(folder, name);
try {
  mkdirSync(folder, { recursive: true });
  const db = new Sqlite(file, { readonly: true, timeout: 10_000 });
  // SQLite's own backup: it follows what is written meanwhile, where a copy of the file would be behind or torn.
  await db.backup(`${target}.part`);
  db.close();
  const copy = new Sqlite(`${target}.part`);
  const sound = copy.pragma('quick_check(1)', { simple: true });
  copy.close();
  if (sound !== 'ok') throw new Error(`the copy is not sound (${sound})`);
  renameSync(`${target}.part`, target);
  console.log(`${target}, ${Math.ceil(statSync(target).size / 1e6)} MB`);
} catch (error) {
  rmSync(`${target}.part`, { force: true });
  console.error(`No backup was made: ${error.message}.`);
  process.exit(1);
}
