import { json } from '@sveltejs/kit';
import { body, route } from '$lib/server/answer';
import { handIn } from '$lib/server/attempts';
import { handInRequest } from '$lib/wire-practice';
import type { RequestEvent } from './$types';

export const POST = route(async (event: RequestEvent, db) =>
  json(await handIn(db, event.params.id, await body(event, handInRequest)), { status: 201 }),
);
