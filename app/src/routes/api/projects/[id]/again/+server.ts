import { json } from '@sveltejs/kit';
import { projectFrom } from '$lib/server/again';
import { body, route } from '$lib/server/answer';
import { againRequest } from '$lib/wire';
import type { RequestEvent } from './$types';

export const POST = route(async (event: RequestEvent, db) => {
  const wish = await body(event, againRequest);
  return json(await projectFrom(db, event.params.id, wish), { status: 201 });
});
