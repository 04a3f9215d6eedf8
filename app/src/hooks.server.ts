import type { Handle } from '@sveltejs/kit';
import { dev } from '$app/environment';
import { errorAnswer } from '$lib/server/answer';

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

/** Hosts this server answers to: itself by any loopback name, and the one it was told to listen on. */
function isOwnHost(host: string | null): boolean {
  if (!host) return false;
  const [, name, port] = /^(.*?)(?::(\d+))?$/.exec(host)!;
  const names = [...LOOPBACK, process.env.HOST ?? '127.0.0.1'];
  return names.includes(name!.toLowerCase()) && (dev || (port ?? '80') === (process.env.PORT ?? '4310'));
}

// Another site's page must neither read nor write here, even where a browser would let it (DNS rebinding).
export const handle: Handle = async ({ event, resolve }) => {
  const host = event.request.headers.get('host');
  if (!isOwnHost(host))
    return errorAnswer(
      421,
      'host',
      'This server does not answer to that name. Open it at the address it printed.',
    );
  const origin = event.request.headers.get('origin');
  if (origin !== null && origin !== `http://${host}` && origin !== `https://${host}`)
    return errorAnswer(403, 'origin', 'Requests from other sites are refused. Nothing was changed.');
  const response = await resolve(event);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'no-referrer');
  response.headers.set('cross-origin-opener-policy', 'same-origin');
  response.headers.set('cross-origin-resource-policy', 'same-origin');
  if (event.url.pathname.startsWith('/api/') && !response.headers.has('content-security-policy'))
    response.headers.set('content-security-policy', "default-src 'none'; frame-ancestors 'none'");
  return response;
};
