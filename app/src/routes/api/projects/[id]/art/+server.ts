import { route } from '$lib/server/answer';
import { getArtJson } from '$lib/server/documents';
import type { RequestEvent } from './$types';

export const GET = route(
  async ({ params }: RequestEvent, db) =>
    new Response(new Uint8Array(await getArtJson(db, params.id)), {
      headers: { 'content-type': 'application/json' },
    }),
);
