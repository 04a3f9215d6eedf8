import { route } from '$lib/server/answer';
import { copyThumb } from '$lib/server/thumbs';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => {
  const bytes = await copyThumb(db, params.id, params.copy);
  // A kept copy never changes.
  const headers = { 'cache-control': 'private, max-age=604800, immutable', 'content-type': 'image/png' };
  return new Response(new Uint8Array(bytes), { headers });
});
