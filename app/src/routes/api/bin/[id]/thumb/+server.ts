import { route } from '$lib/server/answer';
import { binThumb } from '$lib/server/bin';
import { noProject } from '$lib/server/refusal';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => {
  const bytes = await binThumb(db, params.id);
  if (!bytes) throw noProject();
  const headers = { 'content-type': 'image/png', 'cache-control': 'private, max-age=3600' };
  return new Response(new Uint8Array(bytes), { headers });
});
