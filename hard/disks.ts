import { spawn, spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statfsSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import Sqlite from 'better-sqlite3';
import { EXIT_CODES } from '../app/src/lib/server/start-failure';
import { freePort } from '../scripts/ready.mjs';
import { ask, finding, getArt, makeProject, newFolder, pause, post, removeFolder, shape, start, type Finding } from './harness'; // prettier-ignore

const run = (command: string, ...args: string[]): boolean =>
  spawnSync(command, args, { stdio: 'ignore' }).status === 0;

/** Tries to start a server where it cannot: the exit code and whether it said one sentence. */
async function refusal(data: string): Promise<{ code: unknown; sentence: boolean; said: string }> {
  try {
    const server = await start(data);
    await server.stop();
    return { code: 'started', sentence: false, said: '' };
  } catch (error) {
    const said = (error as Error).message.trim();
    return { code: (error as { code?: unknown }).code, sentence: /^[A-Z][^\n]*\.$/.test(said) && !said.includes('    at '), said }; // prettier-ignore
  }
}

const refused = async (what: string, data: string, wanted: number): Promise<Finding> => {
  const { code, sentence, said } = await refusal(data);
  return finding(what, `${String(code)}${sentence ? ', a sentence' : `: ${said.slice(0, 80)}`}`, `${wanted}, a sentence`, code === wanted && sentence); // prettier-ignore
};

/** Takes what room is left on a disk, but for so many bytes. */
function fill(folder: string, but: number): void {
  const { bavail, bsize } = statfsSync(folder);
  writeFileSync(join(folder, 'filler'), Buffer.alloc(Math.max(0, bavail * bsize - but)));
}

/** A disk that is full, one that cannot be written, files that are damaged or of another Mirrot, a folder in use. */
export async function disks(): Promise<Finding[]> {
  const out: Finding[] = [];
  const plain = newFolder();
  let server = await start(plain);
  const kept = await makeProject(server.address);
  out.push(await refused('A folder in use: exit code', plain, EXIT_CODES['in-use']));
  await server.stop();
  const file = join(plain, 'mirrot.sqlite');
  const db = new Sqlite(file);
  db.prepare("insert into kysely_migration values ('999-later', '2030-01-01')").run();
  db.close();
  out.push(await refused('A newer database: exit code', plain, EXIT_CODES.newer));
  const back = new Sqlite(file);
  back.prepare("delete from kysely_migration where name = '999-later'").run();
  back.close();
  const whole = readFileSync(file);
  const spoilt = Buffer.from(whole);
  spoilt.fill(0xa5, 4096, Math.min(spoilt.length, 4096 * 6));
  writeFileSync(file, spoilt);
  out.push(await refused('A damaged database: exit code', plain, EXIT_CODES.damaged));
  writeFileSync(file, 'This is no database at all, and longer than its header would be.'.repeat(40));
  out.push(await refused('Another file in its place: exit code', plain, EXIT_CODES.damaged));
  writeFileSync(file, whole);
  server = await start(plain);
  out.push(
    finding(
      '… and started again with the right one',
      (await getArt(server.address, kept)).revision,
      '0',
      true,
    ),
  );
  await server.stop();
  removeFolder(plain);

  const disk = newFolder();
  if (!run('mount', '-t', 'tmpfs', '-o', 'size=12m', 'tmpfs', disk)) {
    removeFolder(disk);
    // Without the right to mount nothing of this can be tried: said, not passed over.
    return [...out, finding('A small disk to fill', 'cannot be mounted here', 'mounted', process.env.CI === undefined)]; // prettier-ignore
  }
  try {
    const data = join(disk, 'data');
    mkdirSync(data);
    fill(disk, 8192);
    out.push(await refused('A full disk: exit code', data, EXIT_CODES.full));
    rmSync(join(disk, 'filler'));
    server = await start(data);
    const id = await makeProject(server.address);
    let revision = 0;
    const draw = async (): Promise<number> => {
      const answer = await post(server.address, `/api/projects/${id}/changes`, { base: revision, changes: [[{ op: 'add', path: '/layers/0/children/-', value: shape(`s${revision}`, 1, 1) }]] }); // prettier-ignore
      if (answer?.status === 200) revision++;
      return answer?.status ?? 0;
    };
    for (let k = 0; k < 20; k++) await draw();
    fill(disk, 0);
    let full = 200;
    for (let k = 0; k < 200 && full === 200; k++) full = await draw();
    out.push(finding('A disk that fills up while at work: status', full, '507', full === 507));
    const health = await ask(server.address, '/api/health');
    out.push(finding('… and the server', health?.status ?? 'gone', '200', health?.status === 200));
    rmSync(join(disk, 'filler'));
    out.push(finding('… with room again: status', await draw(), '200', revision > 20));
    const { art } = await getArt(server.address, id);
    const there = art.layers[0]!.children.length;
    out.push(finding('… changes lost', revision - there, '0', there === revision));
    await server.stop();
    server = await start(data);
    const again = (await getArt(server.address, id)).art.layers[0]!.children.length;
    out.push(finding('… after a cold start', revision - again, '0', again === revision));
    await server.stop();
    run('mount', '-o', 'remount,ro', disk);
    out.push(await refused('A disk that cannot be written: exit code', data, EXIT_CODES['read-only']));
  } finally {
    run('umount', '-l', disk);
    removeFolder(disk);
  }
  return out;
}

/** Two first starts on one folder at once: one wins, one says so. */
export async function twoFirstStarts(): Promise<Finding[]> {
  const data = newFolder();
  const both = await Promise.all(
    [0, 1].map(() =>
      start(data).then(
        (server) => ({ server, code: null as unknown }),
        (error: { code?: unknown }) => ({ server: null, code: error.code }),
      ),
    ),
  );
  const codes = both.flatMap((b) => (b.server ? [] : [b.code]));
  for (const { server } of both) await server?.stop();
  removeFolder(data);
  return [finding('Two first starts at once', `${2 - codes.length} runs, the other ended with ${String(codes[0])}`, '1 runs, the other ended with 74', codes.length === 1 && codes[0] === EXIT_CODES['in-use'])]; // prettier-ignore
}

/** A backup made while the server writes: whole, and as new as the moment it was begun at least. */
export async function backup(): Promise<Finding[]> {
  const data = newFolder();
  const server = await start(data);
  const id = await makeProject(server.address);
  let revision = 0;
  let over = false;
  const writing = (async () => {
    while (!over) {
      const answer = await post(server.address, `/api/projects/${id}/changes`, { base: revision, changes: [[{ op: 'add', path: '/layers/0/children/-', value: shape(`s${revision}`, 1, 1) }]] }); // prettier-ignore
      if (answer?.status === 200) revision++;
    }
  })();
  while (revision < 20) await new Promise((done) => setTimeout(done, 10));
  const atLeast = revision;
  const made = await new Promise<number | null>(
    (done) =>
    spawn(process.execPath, ['scripts/backup.mjs'], { env: { ...process.env, MIRROT_DATA: data }, stdio: 'ignore' }).once('exit', done), // prettier-ignore
  );
  over = true;
  await writing;
  await server.stop();
  const restored = newFolder();
  const [file] = existsSync(join(data, 'backups')) ? readdirSync(join(data, 'backups')) : [];
  if (file) cpSync(join(data, 'backups', file), join(restored, 'mirrot.sqlite'));
  const again = await start(restored);
  const known = await ask(again.address, `/api/projects/${id}/art`);
  const there = known?.status === 200 ? (known.json() as { revision: number }).revision : -1;
  await again.stop();
  removeFolder(data);
  removeFolder(restored);
  return [finding('A backup while the server writes: changes behind its beginning', made === 0 ? Math.max(0, atLeast - there) : 'not made', '0', made === 0 && there >= atLeast)]; // prettier-ignore
}

/** Two scripts that install or build at once: one waits for the other. */
export async function twoInstallations(): Promise<Finding[]> {
  const folder = newFolder();
  const log = join(folder, 'log');
  const script = `import('${pathToFileURL(join(process.cwd(), 'scripts/ready.mjs')).href}').then(({ alone }) => alone(() => {
    const fs = process.getBuiltinModule('node:fs');
    fs.appendFileSync(${JSON.stringify(log)}, 'in ');
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 300);
    fs.appendFileSync(${JSON.stringify(log)}, 'out ');
  }))`;
  await Promise.all(
    [0, 1, 2].map(
      () => new Promise((done) => spawn(process.execPath, ['-e', script], { stdio: 'ignore' }).once('exit', done)), // prettier-ignore
    ),
  );
  const order = readFileSync(log, 'utf8').trim();
  removeFolder(folder);
  return [finding('Three scripts that install at once', order, 'in out in out in out', order === 'in out in out in out')]; // prettier-ignore
}

/** A script that started a server is killed: the server ends with it. */
export async function startersEnd(): Promise<Finding[]> {
  const data = newFolder();
  const port = await freePort();
  const script = `import('${pathToFileURL(join(process.cwd(), 'scripts/ready.mjs')).href}').then(({ startServer }) => startServer({ port: ${port}, data: ${JSON.stringify(data)}, quiet: true }))`;
  const starter = spawn(process.execPath, ['-e', script], { stdio: 'ignore' });
  const address = `http://127.0.0.1:${port}`;
  const until = async (answers: boolean): Promise<boolean> => {
    for (let tries = 0; tries < 600; tries++) {
      if (((await ask(address, '/api/health')) !== null) === answers) return true;
      await pause(100);
    }
    return false;
  };
  const started = await until(true);
  starter.kill('SIGKILL');
  const ended = await until(false);
  removeFolder(data);
  return [finding('A server whose starter was killed', started && ended ? 'ends' : 'goes on', 'ends', started && ended)]; // prettier-ignore
}
