// npm start: everything needed, then the application with a shelf of one's own. npm run demo: with Quillmere Seed Room's
// projects on it.
import { existsSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { buildApp, installPackages, ROOT, startServer } from './ready.mjs';

const demo = process.argv.includes('--demo');
const port = Number(process.env.PORT ?? (demo ? 4310 : 4311));
const host = process.env.HOST ?? '127.0.0.1';
const data = resolve(ROOT, process.env.MIRROT_DATA ?? (demo ? 'data' : 'work'));

installPackages();
buildApp();
let server;
try {
  server = await startServer({ port, host, data, quiet: true });
} catch (error) {
  // The server has said why.
  if (error.code === undefined) console.error(error.message);
  process.exit(Number(error.code) || 1);
}
const keyFile = join(data, 'access-key');
const key =
  process.env.MIRROT_KEY ?? (existsSync(keyFile) ? readFileSync(keyFile, 'utf8').trim() : undefined);
if (demo) await (await import('./seed.mjs')).seed(server.here, data, key);
console.log(`Mirrot is ready at ${server.address}\nIts data lies in ${data}. Ctrl+C stops it.`);
if (!['127.0.0.1', 'localhost', '::1'].includes(host))
  console.log(process.env.MIRROT_KEY ? 'It wants the key in MIRROT_KEY.' : `Its access key is ${key}`);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void server.stop());
process.exit(Number(await server.ended) || 0);
