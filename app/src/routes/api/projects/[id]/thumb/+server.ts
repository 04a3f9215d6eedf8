import { route } from '$lib/server/answer';
import { getArt } from '$lib/server/documents';
import { outputThumb } from '$lib/server/output';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params, request }: RequestEvent, db) => {
  const { art, revision } = await getArt(db, params.id);
  const tag = `"${params.id}-${revision}"`;
  const headers = { etag: tag, 'cache-control': 'private, no-cache' };
  if (request.headers.get('if-none-match') === tag) return new Response(null, { status: 304, headers });
  const png = await outputThumb(db, art, 480);
  return new Response(new Uint8Array(png), { headers: { ...headers, 'content-type': 'image/png' } });
});
