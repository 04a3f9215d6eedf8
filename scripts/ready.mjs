// What the start and test scripts share: packages, build, server. Plain Node, so that it runs on a bare machine.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..');
const STAMPS = join(ROOT, 'node_modules', '.mirrot');
/** Held while packages are installed or the application is built: beside `node_modules`, which an install makes anew. */
const LOCK = join(ROOT, '.mirrot-installing');

/** Runs a command to its end; the script ends with it when it fails. */
export function run(command, args, options = {}) {
  const done = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
  if (done.error) throw done.error;
  if (done.status !== 0) process.exit(done.status ?? 1);
}

/** A hash of files' contents, folders taken whole. */
function hashOf(paths) {
  const hash = createHash('sha256');
  const take = (path) => {
    const full = join(ROOT, path);
    if (!existsSync(full)) return;
    if (statSync(full).isDirectory()) {
      for (const name of readdirSync(full).sort())
        if (!['node_modules', 'build', '.svelte-kit'].includes(name)) take(join(path, name));
    } else hash.update(path).update('\0').update(readFileSync(full));
  };
  paths.forEach(take);
  return hash.digest('hex');
}

const isAlive = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
};

/** Waits within a script that has nothing else to do, milliseconds. */
const wait = (time) => Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, time);

/** Does work that two scripts must not do at once; what a script that was killed left locked is free. */
export function alone(work) {
  for (let told = false; ; wait(200)) {
    try {
      writeFileSync(LOCK, String(process.pid), { flag: 'wx' });
      break;
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
    }
    let [holder, age] = [NaN, 0];
    try {
      holder = Number(readFileSync(LOCK, 'utf8') || NaN);
      age = Date.now() - statSync(LOCK).mtimeMs;
    } catch {
      continue;
    }
    // One without a number was left in the moment between being made and being written.
    if (holder ? !isAlive(holder) : age > 10_000) rmSync(LOCK, { force: true });
    else if (!told) {
      console.log('Another script installs or builds here. Waiting for it.');
      told = true;
    }
  }
  const free = () => rmSync(LOCK, { force: true });
  process.on('exit', free);
  try {
    return work();
  } finally {
    process.off('exit', free);
    free();
  }
}

/** Does the work unless what it depends on is as it was when it was last done. */
function onceFor(name, paths, work) {
  const stamp = join(STAMPS, name);
  const hash = hashOf(paths);
  const isDone = () => existsSync(stamp) && readFileSync(stamp, 'utf8') === hash;
  if (isDone()) return;
  alone(() => {
    if (isDone()) return;
    work();
    mkdirSync(STAMPS, { recursive: true });
    writeFileSync(stamp, hash);
  });
}

export const installPackages = () =>
  onceFor('installed', ['package-lock.json'], () =>
    run('npm', ['ci', '--no-fund', '--no-audit', '--loglevel=error']),
  );

export const buildApp = () =>
  onceFor(
    'built',
    [
      'package-lock.json',
      'core/src',
      'app/src',
      'app/static',
      'app/package.json',
      'app/vite.config.ts',
      'app/vite.apart.config.ts',
      'app/svelte.config.js',
    ],
    () => {
      console.log('Building');
      run('npm', ['run', 'build', '--loglevel=error'], { stdio: ['ignore', 'ignore', 'inherit'] });
    },
  );

/** Debian's browser, and what draws PDF, EPS and HP-GL, for the tests. */
export function installDebian() {
  const wanted = {
    chromium: 'chromium',
    pdftoppm: 'poppler-utils',
    gs: 'ghostscript',
    hp2xx: 'hp2xx',
    unzip: 'unzip',
  };
  const missing = Object.entries(wanted)
    .filter(([command]) => spawnSync('which', [command]).status !== 0)
    .map(([, pack]) => pack);
  if (missing.length === 0) return;
  console.log(`Installing ${missing.join(', ')}`);
  const quiet = {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  };
  run('apt-get', ['update'], quiet);
  run('apt-get', ['install', '-y', '--no-install-recommends', ...missing, 'fonts-dejavu-core'], quiet);
}

/** A port of this machine that nothing listens on. */
export const freePort = () =>
  new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });

/** How long a server may take until it answers, milliseconds. */
const STARTING_TIME = 60_000;

/**
 * Starts the built server and waits until it answers. It ends when this script does, however that ends.
 *
 * @param spawned is told its process at once
 * @returns its address, its process, a function that stops it, a promise of its end
 * @throws when it ends before it answers, with what it said
 */
export async function startServer({
  port,
  host = '127.0.0.1',
  data,
  quiet = false,
  env = {},
  spawned = () => {},
}) {
  const address = `http://${host}:${port}`;
  // Where it is reached from here, should it listen everywhere.
  const here = ['0.0.0.0', '::'].includes(host) ? `http://127.0.0.1:${port}` : address;
  const server = spawn(process.execPath, [join(ROOT, 'app', 'server.mjs')], {
    cwd: ROOT,
    // The channel closes when this script is gone, also when it was killed: the server ends by that.
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'pipe', 'ipc'],
    env: {
      ...process.env,
      PORT: String(port),
      HOST: host,
      ORIGIN: address,
      // Seconds a connection stays open for more: a page that rests a while loses no change to one just being closed.
      KEEP_ALIVE_TIMEOUT: '65',
      HEADERS_TIMEOUT: '70',
      MIRROT_DATA: data,
      MIRROT_SHIPPED: join(ROOT, 'demo', 'pictures'),
      MIRROT_EXERCISES: join(ROOT, 'demo', 'exercises'),
      ...env,
    },
  });
  spawned(server);
  let said = '';
  server.stderr.on('data', (part) => {
    said = (said + part).slice(-4000);
    process.stderr.write(part);
  });
  let code;
  const ended = new Promise((done) => server.once('exit', (c, signal) => done((code = c ?? signal))));
  const stop = () => {
    if (code === undefined) server.kill('SIGTERM');
    return ended;
  };
  const kill = () => server.kill('SIGKILL');
  process.once('exit', kill);
  void ended.then(() => process.off('exit', kill));
  for (const start = Date.now(); ;) {
    if (code !== undefined)
      throw Object.assign(new Error(said.trim() || `The server did not start on ${address}.`), { code });
    const answer = await fetch(`${here}/api/health`).catch(() => null);
    if (answer?.ok && (await answer.json()).ok) break;
    if (Date.now() - start > STARTING_TIME) {
      kill();
      throw new Error(`The server did not answer within ${STARTING_TIME / 1000} s.`);
    }
    await new Promise((done) => setTimeout(done, 100));
  }
  return { address, here, process: server, stop, ended };
}
