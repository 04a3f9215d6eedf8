import { redirect, type Handle, type ServerInit } from '@sveltejs/kit';
import { dev } from '$app/environment';
import { accessKey, COOKIE, isCookie, isOwnHost, needsKey } from '$lib/server/access';
import { errorAnswer } from '$lib/server/answer';
import { keepBinClear } from '$lib/server/bin';
import { database, handleOf } from '$lib/server/database';
import { storeAllDocuments } from '$lib/server/documents';
import { EXIT_CODES, StartFailure } from '$lib/server/start-failure';

// Nothing is listened to before the database is open; where it cannot be, the process ends with a sentence.
export const init: ServerInit = async () => {
  try {
    const db = await database();
    keepBinClear(db);
    process.on('sveltekit:shutdown' as 'exit', () => {
      void storeAllDocuments(db)
        .catch(() => {})
        .finally(() => {
          handleOf(db).close();
          process.exit(0);
        });
    });
    if (needsKey() && !process.env.MIRROT_KEY) console.log(`The access key is ${accessKey()}`);
  } catch (error) {
    if (!(error instanceof StartFailure)) throw error;
    console.error(error.message);
    process.exit(EXIT_CODES[error.reason]);
  }
};

/** What may be asked for without the key: signing in, and whether the server is there. */
const OPEN = ['/api/sign-in', '/api/health', '/sign-in'];

/** Sentences for refusals that no route of ours has worded. */
const WORDS: Readonly<Record<number, readonly [code: string, message: string]>> = {
  400: ['request', 'The request is not right. Nothing was changed.'],
  404: ['no-address', 'There is nothing at this address.'],
  405: ['method', 'That cannot be done at this address. Nothing was changed.'],
  413: ['too-large', 'The request is too large. Nothing was changed.'],
  415: ['type', 'The request is of a type that is not read here. Nothing was changed.'],
};

/** What a page asks for first: asked while its scripts are still being fetched. */
function askedFirst(path: string): readonly string[] {
  const project = /^\/projects\/([\w-]+)$/.exec(path)?.[1];
  if (project) return ['', '/art', '/journal'].map((of) => `/api/projects/${project}${of}`);
  return path === '/' ? ['/api/projects', '/api/shipped'] : [];
}

export const handle: Handle = async ({ event, resolve }) => {
  const { request, url } = event;
  const isApi = url.pathname.startsWith('/api/');
  const host = request.headers.get('host');
  // Another site's page must neither read nor write here, even where a browser would let it (DNS rebinding).
  if (!isOwnHost(host, dev))
    return errorAnswer(
      421,
      'host',
      'This server does not answer to that name. Open it at the address it printed.',
    );
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const foreign = isApi && (site === 'cross-site' || site === 'same-site');
  if (foreign || (origin !== null && origin !== `http://${host}` && origin !== `https://${host}`))
    return errorAnswer(403, 'origin', 'Requests from other sites are refused. Nothing was changed.');
  if (needsKey() && !OPEN.includes(url.pathname) && !isCookie(event.cookies.get(COOKIE))) {
    if (isApi) return errorAnswer(401, 'key', 'This server wants its access key. Open the page and sign in.');
    redirect(303, `/sign-in?to=${encodeURIComponent(url.pathname)}`);
  }
  const early = askedFirst(url.pathname)
    .map((address) => `<link rel="preload" href="${address}" as="fetch" crossorigin="anonymous" />`)
    .join('');
  const response = await resolve(event, {
    transformPageChunk: ({ html }) => html.replace('</head>', `${early}</head>`),
  });
  if (!isApi) return response;
  if (response.status >= 400 && !response.headers.get('content-type')?.startsWith('application/json')) {
    const [code, message] = WORDS[response.status] ?? [
      'server',
      'The server could not do that. Nothing was changed.',
    ];
    const answer = errorAnswer(response.status, code, message);
    const allow = response.headers.get('allow');
    if (allow) answer.headers.set('allow', allow);
    answer.headers.set('cache-control', 'no-store');
    return answer;
  }
  // Drawings are told anew each time; what may be kept says so itself.
  if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store');
  return response;
};
