import { json } from '@sveltejs/kit';
import { body, route } from '$lib/server/answer';
import { keepCopy, listCopies } from '$lib/server/copies';
import { newCopyRequest } from '$lib/wire';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => json(await listCopies(db, params.id)));

export const POST = route(async (event: RequestEvent, db) => {
  const { name, note } = await body(event, newCopyRequest);
  const kept = note === undefined ? { name } : { name, note };
  return json(await keepCopy(db, event.params.id, kept), { status: 201 });
});
