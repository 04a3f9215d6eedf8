/// <reference no-default-lib="true"/>
/// <reference lib="esnext" />
/// <reference lib="webworker" />
/// <reference types="@sveltejs/kit" />
import { build, files, version } from '$service-worker';
import { LAST_SEEN } from './lib/last-seen';

// Keeps the build, the shelf as last seen and the pictures of projects opened lately, so that Mirrot opens while its
// server is away. Drawings themselves are kept by the page, which knows what of them the server has.

const worker = globalThis as unknown as ServiceWorkerGlobalScope;

const BUILD = `mirrot-build-${version}`;
const SEEN = 'mirrot-seen';
const PICTURES = 'mirrot-pictures';
const ASSETS = new Set([...build, ...files]);
/** The one page there is, whatever address it is asked for. */
const PAGE = '/';
/** Pictures kept, full and working copies: the ones asked for last. */
const PICTURES_KEPT = 40;
/** How long the server is waited for before what was last seen is shown, milliseconds. */
const PATIENCE = 8000;

worker.addEventListener('install', (event) => {
  event.waitUntil(
    caches.open(BUILD).then(async (cache) => {
      await cache.addAll([...ASSETS]);
      await cache.add(new Request(PAGE, { cache: 'reload' }));
    }),
  );
});

worker.addEventListener('activate', (event) => {
  event.waitUntil(
    caches.keys().then(async (keys) => {
      // The build before this one stays: a drawing may still be open on it, and want a part it has not loaded yet.
      const builds = keys.filter((key) => key.startsWith('mirrot-build-'));
      const kept = new Set([BUILD, SEEN, PICTURES, ...builds.filter((key) => key !== BUILD).slice(-1)]);
      for (const key of keys) if (!kept.has(key)) await caches.delete(key);
      await worker.clients.claim();
    }),
  );
});

// A page that is at rest asks for it: nothing changes under a drawing.
worker.addEventListener('message', (event) => {
  if (event.data === 'take-over') void worker.skipWaiting();
});

/** The server's answer, or null when it is away: not reached, too slow, or only its proxy answers. */
async function ask(request: Request): Promise<Response | null> {
  try {
    const answer = await fetch(request, { signal: AbortSignal.timeout(PATIENCE) });
    return answer.status >= 502 && answer.status <= 504 ? null : answer;
  } catch {
    return null;
  }
}

async function keepIn(name: string, request: Request, answer: Response): Promise<void> {
  const cache = await caches.open(name);
  await cache.put(request, answer);
}

/** The newest answer, or the last one seen, which says that it is that. */
async function newest(event: FetchEvent): Promise<Response> {
  const answer = await ask(event.request);
  if (answer?.ok) event.waitUntil(keepIn(SEEN, event.request, answer.clone()).catch(() => {}));
  if (answer) return answer;
  const seen = await caches.match(event.request, { cacheName: SEEN });
  if (!seen) return Response.error();
  const headers = new Headers(seen.headers);
  headers.set(LAST_SEEN, '1');
  return new Response(seen.body, { status: seen.status, headers });
}

/** Pixels never change under their address. The oldest of very many go. */
async function picture(event: FetchEvent): Promise<Response> {
  const kept = await caches.match(event.request, { cacheName: PICTURES });
  if (kept) return kept;
  const answer = await fetch(event.request);
  if (answer.ok) {
    const copy = answer.clone();
    event.waitUntil(
      (async () => {
        const cache = await caches.open(PICTURES);
        await cache.put(event.request, copy);
        const keys = await cache.keys();
        for (const key of keys.slice(0, Math.max(0, keys.length - PICTURES_KEPT))) await cache.delete(key);
      })().catch(() => {}),
    );
  }
  return answer;
}

const LAST_SEEN_PATHS = [/^\/api\/projects$/, /^\/api\/projects\/[^/]+\/thumb$/, /^\/api\/shipped(\/|$)/];

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== worker.location.origin) return;
  if (ASSETS.has(url.pathname))
    event.respondWith(
      caches.match(url.pathname, { cacheName: BUILD }).then((kept) => kept ?? fetch(request)),
    );
  else if (url.pathname.startsWith('/_app/immutable/'))
    event.respondWith(caches.match(url.pathname).then((kept) => kept ?? fetch(request)));
  else if (request.mode === 'navigate')
    event.respondWith(
      ask(request).then(
        async (answer) => answer ?? (await caches.match(PAGE, { cacheName: BUILD })) ?? Response.error(),
      ),
    );
  else if (url.pathname.startsWith('/api/pictures/')) event.respondWith(picture(event));
  else if (LAST_SEEN_PATHS.some((path) => path.test(url.pathname))) event.respondWith(newest(event));
});
