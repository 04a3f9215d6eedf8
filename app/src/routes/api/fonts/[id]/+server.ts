import { route } from '$lib/server/answer';
import { fontBytes } from '$lib/server/fonts';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => {
  const bytes = await fontBytes(db, params.id);
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/octet-stream',
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
});
