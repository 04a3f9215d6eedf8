import { body, route } from '$lib/server/answer';
import { keepLeft } from '$lib/server/projects';
import { leftRequest } from '$lib/wire';
import type { RequestEvent } from './$types';

export const PUT = route(async (event: RequestEvent, db) => {
  await keepLeft(db, event.params.id, await body(event, leftRequest));
  return new Response(null, { status: 204 });
});
