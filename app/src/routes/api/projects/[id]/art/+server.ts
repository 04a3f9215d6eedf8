import { route } from '$lib/server/answer';
import { getArtText } from '$lib/server/documents';
import type { RequestEvent } from './$types';

export const GET = route(
  async ({ params }: RequestEvent, db) =>
    new Response(await getArtText(db, params.id), { headers: { 'content-type': 'application/json' } }),
);
