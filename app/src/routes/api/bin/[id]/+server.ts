import { route } from '$lib/server/answer';
import { clearFromBin } from '$lib/server/bin';
import type { RequestEvent } from './$types';

export const DELETE = route(async ({ params }: RequestEvent, db) => {
  await clearFromBin(db, params.id);
  return new Response(null, { status: 204 });
});
