import { join } from 'node:path';
import { readArt, seeded } from '@mirrot/core';
import Sqlite from 'better-sqlite3';
import { Kysely, Migrator, sql, SqliteDialect } from 'kysely';
import { cpSync } from 'node:fs';
import { freePort, startServer } from '../scripts/ready.mjs';
import { MIGRATIONS } from '../app/src/lib/server/migrations';
import { bare, finding, getArt, kill, makeProject, newFolder, pause, post, removeFolder, shape, start, type Finding } from './harness'; // prettier-ignore

/** Kills while three hands edit two projects: what was acknowledged has to be there, and no more than was sent. */
export async function killsWhileEditing(times: number): Promise<Finding[]> {
  const random = seeded(times);
  const data = newFolder();
  let server = await start(data);
  const ids = [await makeProject(server.address), await makeProject(server.address)];
  const known = ids.map(() => ({ revision: 0, names: [] as string[] }));
  let [acknowledged, lost, corrupt, n] = [0, 0, 0, 0];
  for (let round = 0; round < times; round++) {
    let over = false;
    const hands = ids.map(async (id, p) => {
      while (!over) {
        const name = `k${n++}`;
        const answer = await post(server.address, `/api/projects/${id}/changes`, {
          base: known[p]!.revision,
          changes: [[{ op: 'add', path: '/layers/0/children/-', value: shape(name, 9, 9) }]],
          batch: name,
        });
        if (answer?.status !== 200) return;
        known[p]!.revision = (answer.json() as { revision: number }).revision;
        known[p]!.names.push(name);
        acknowledged++;
      }
    });
    await pause(30 + random() * 300);
    await kill(server);
    over = true;
    await Promise.all(hands);
    server = await start(data);
    for (const [p, id] of ids.entries()) {
      const { revision, art } = await getArt(server.address, id);
      const there = new Set(art.layers[0]!.children.map((c) => c.id));
      lost += known[p]!.names.filter((name) => !there.has(name)).length;
      try {
        readArt(art);
        // One request may have been carried out whose answer was lost; never half of one.
        if (revision > known[p]!.revision + 1 || there.size !== revision) corrupt++;
      } catch {
        corrupt++;
      }
      known[p] = { revision, names: [...there] };
    }
  }
  await server.stop();
  removeFolder(data);
  return [
    finding(`Kills while editing (${times}): changes acknowledged`, acknowledged, 'over 0', acknowledged > 0),
    finding('… of them lost', lost, '0', lost === 0),
    finding('… drawings corrupt', corrupt, '0', corrupt === 0),
  ];
}

/** Starts a server and kills it so many milliseconds later, whether it answers by then or not. */
async function startAndKill(data: string, after: number): Promise<void> {
  const starting = startServer({
    port: await freePort(),
    data,
    quiet: true,
    spawned: (process) => void setTimeout(() => process.kill('SIGKILL'), after),
  });
  await starting.then(
    (server) => server.ended,
    () => {},
  );
}

/** Kills during the first start: the next start has to make what is missing. */
export async function killsAtFirstStart(times: number): Promise<Finding[]> {
  const random = seeded(17);
  let failed = 0;
  for (let round = 0; round < times; round++) {
    const data = newFolder();
    await startAndKill(data, 150 + random() * 500);
    try {
      const server = await start(data);
      await makeProject(server.address);
      await server.stop();
    } catch {
      failed++;
    }
    removeFolder(data);
  }
  return [
    finding(`Kills at the first start (${times}): servers that never start again`, failed, '0', failed === 0),
  ];
}

/** A database as the version before the last wrote it. */
async function oldDatabase(file: string, projects: number): Promise<void> {
  const db = new Kysely<unknown>({ dialect: new SqliteDialect({ database: new Sqlite(file) }) });
  const old = { '001-first': MIGRATIONS['001-first']!, '002-notes': MIGRATIONS['002-notes']! };
  await new Migrator({ db, provider: { getMigrations: async () => old } }).migrateToLatest();
  const now = '2026-01-01T00:00:00Z';
  for (let p = 0; p < projects; p++) {
    const art = { ...bare, layers: [{ ...bare.layers[0]!, children: [shape(`s${p}`, 9, 9)] }] };
    await sql`insert into projects values (${`p${p}`}, ${`Old ${p}`}, ${now}, ${now}, null)`.execute(db);
    await sql`insert into documents values (${`p${p}`}, 40, ${JSON.stringify(art)})`.execute(db);
    for (let r = 1; r <= 40; r++)
      await sql`insert into journal (project_id, revision, batch, patches, created_at) values (${`p${p}`}, ${r}, null, '[]', ${now})`.execute(db); // prettier-ignore
  }
  await db.destroy();
}

/** Kills during an upgrade: the next start has to find it done or not begun. */
export async function killsAtUpgrade(times: number): Promise<Finding[]> {
  const random = seeded(23);
  const origin = newFolder();
  await oldDatabase(join(origin, 'mirrot.sqlite'), 60);
  let [failed, lost] = [0, 0];
  for (let round = 0; round < times; round++) {
    const data = newFolder();
    cpSync(origin, data, { recursive: true });
    await startAndKill(data, 150 + random() * 500);
    try {
      const server = await start(data);
      for (const p of [0, 59]) {
        const { revision, art } = await getArt(server.address, `p${p}`);
        if (revision !== 40 || art.layers[0]!.children[0]!.id !== `s${p}`) lost++;
      }
      await server.stop();
    } catch {
      failed++;
    }
    removeFolder(data);
  }
  removeFolder(origin);
  return [
    finding(`Kills during an upgrade (${times}): servers that never start again`, failed, '0', failed === 0),
    finding('… drawings lost', lost, '0', lost === 0),
  ];
}
