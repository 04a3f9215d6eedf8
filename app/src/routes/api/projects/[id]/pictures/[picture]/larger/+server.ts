import { json } from '@sveltejs/kit';
import { body, route } from '$lib/server/answer';
import { enlargePicture } from '$lib/server/pictures';
import { largerRequest } from '$lib/wire';
import type { RequestEvent } from './$types';

export const POST = route(async (event: RequestEvent, db) => {
  const { factor } = await body(event, largerRequest);
  const picture = await enlargePicture(db, event.params.id, event.params.picture, factor);
  return json({ picture }, { status: 201 });
});
