// The built application as a server: `node app/server.mjs`. Plain Node round the handler that the build made.
import { createServer } from 'node:http';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const build = join(dirname(fileURLToPath(import.meta.url)), 'build');

// Without being told otherwise it is reached from this machine only.
process.env.HOST ||= '127.0.0.1';
process.env.PORT ||= '4310';
const { HOST: host, PORT: port } = process.env;
process.env.ORIGIN ||= `http://${host.includes(':') ? `[${host}]` : host}:${port}`;
process.env.BODY_SIZE_LIMIT ||= '256M';
process.env.MIRROT_APART ||= join(build, 'apart');

/** On every answer, files of the build included. Pages bring a content policy of their own, with a nonce. */
const HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
};
/** On answers that are no page and no script. */
const NO_CONTENT = "default-src 'none'; frame-ancestors 'none'";

// Opens the database, or ends the process with a sentence: nothing listens before.
const { handler } = await import(join(build, 'handler.js'));

const isReadable = (url) => {
  try {
    decodeURIComponent(new URL(url, 'http://here').pathname);
    return true;
  } catch {
    return false;
  }
};

const server = createServer((request, response) => {
  for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
  if (request.url.startsWith('/api/')) response.setHeader('content-security-policy', NO_CONTENT);
  if (isReadable(request.url)) return handler(request, response, () => response.writeHead(404).end());
  response.writeHead(400, { 'content-type': 'application/json', 'cache-control': 'no-store' });
  const message = 'The address is not written as addresses are. Nothing was changed.';
  response.end(JSON.stringify({ error: { code: 'address', message } }));
});

server.on('error', (error) => {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Port ${port} on ${host} is taken by another program. Name another with PORT.`
      : `Mirrot cannot listen on ${host}:${port}: ${error.message}`,
  );
  process.exit(1);
});
server.listen(Number(port), host, () => console.log(`Listening on ${process.env.ORIGIN}`));

/** How long answers under way are waited for, milliseconds. */
const PATIENCE = 2000;
let ending = false;
const end = () => {
  if (ending) return;
  ending = true;
  server.close(() => process.emit('sveltekit:shutdown'));
  server.closeIdleConnections();
  setTimeout(() => server.closeAllConnections(), PATIENCE).unref();
};
process.on('SIGTERM', end);
process.on('SIGINT', end);
// Whoever started it is gone: so is it.
if (process.connected) process.on('disconnect', end);
