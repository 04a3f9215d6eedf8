import { json } from '@sveltejs/kit';
import { body, route } from '$lib/server/answer';
import { changeCopy, deleteCopy, getCopy } from '$lib/server/copies';
import { patchCopyRequest } from '$lib/wire';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) =>
  json({ art: await getCopy(db, params.id, params.copy) }),
);

export const PATCH = route(async (event: RequestEvent, db) => {
  const { name, note } = await body(event, patchCopyRequest);
  const change = { ...(name === undefined ? {} : { name }), ...(note === undefined ? {} : { note }) };
  return json(await changeCopy(db, event.params.id, event.params.copy, change));
});

export const DELETE = route(async ({ params }: RequestEvent, db) => {
  await deleteCopy(db, params.id, params.copy);
  return json({ ok: true });
});
