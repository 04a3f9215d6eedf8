import { route } from '$lib/server/answer';
import { projectThumb } from '$lib/server/thumbs';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params, request }: RequestEvent, db) => {
  const { revision, bytes } = await projectThumb(db, params.id);
  const tag = `"${params.id}-${revision}"`;
  const headers = { etag: tag, 'cache-control': 'private, no-cache' };
  if (request.headers.get('if-none-match') === tag) return new Response(null, { status: 304, headers });
  return new Response(new Uint8Array(bytes), { headers: { ...headers, 'content-type': 'image/png' } });
});
