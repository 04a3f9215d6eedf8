// npm run demo: everything needed, then the application with Quillmere Seed Room's projects.
import { resolve } from 'node:path';
import { buildApp, installPackages, ROOT, startServer } from './ready.mjs';
import { seed } from './seed.mjs';

const port = Number(process.env.PORT ?? 4310);
const host = process.env.HOST ?? '127.0.0.1';
const data = resolve(ROOT, process.env.MIRROT_DATA ?? 'data');

installPackages();
buildApp();
const server = await startServer({ port, host, data, quiet: true });
await seed(server.address, data);
console.log(`Mirrot is ready at ${server.address}\nIts data lies in ${data}. Ctrl+C stops it.`);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void server.stop());
await server.ended;
