// What the start and test scripts share: packages, build, server. Plain Node, so that it runs on a bare machine.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..');
const STAMPS = join(ROOT, 'node_modules', '.mirrot');

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

/** Does the work unless what it depends on is as it was when it was last done. */
function onceFor(name, paths, work) {
  const stamp = join(STAMPS, name);
  const hash = hashOf(paths);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  work();
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(stamp, hash);
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
      'app/svelte.config.js',
    ],
    () => {
      console.log('Building');
      run('npm', ['run', 'build', '--loglevel=error'], { stdio: ['ignore', 'ignore', 'inherit'] });
    },
  );

/** Debian's browser, for the tests. */
export function installDebian() {
  const wanted = { chromium: 'chromium' };
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

/**
 * Starts the built server and waits until it answers.
 *
 * @returns its address and a function that stops it
 */
export async function startServer({ port, host = '127.0.0.1', data, quiet = false }) {
  const address = `http://${host}:${port}`;
  const server = spawn(process.execPath, [join(ROOT, 'app', 'build', 'index.js')], {
    cwd: ROOT,
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'],
    env: {
      ...process.env,
      PORT: String(port),
      HOST: host,
      ORIGIN: address,
      MIRROT_DATA: data,
      MIRROT_SHIPPED: join(ROOT, 'demo', 'pictures'),
      BODY_SIZE_LIMIT: '64M',
      SHUTDOWN_TIMEOUT: '2',
    },
  });
  let ended = false;
  server.once('exit', () => (ended = true));
  for (let tries = 0; ; tries++) {
    if (ended) throw new Error(`The server did not start on ${address}. Is the port taken?`);
    const answer = await fetch(`${address}/api/health`).catch(() => null);
    if (answer?.ok && (await answer.json()).ok) break;
    if (tries > 150) throw new Error('The server did not answer within 30 s.');
    await new Promise((done) => setTimeout(done, 200));
  }
  const stop = () =>
    new Promise((done) => {
      if (ended) return done();
      server.once('exit', done);
      server.kill('SIGTERM');
    });
  return { address, stop, ended: new Promise((done) => server.once('exit', done)) };
}
