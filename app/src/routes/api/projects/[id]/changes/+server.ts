import { json } from '@sveltejs/kit';
import type { Patch } from '@mirrot/core';
import { body, route } from '$lib/server/answer';
import { changeDocument } from '$lib/server/documents';
import { changesRequest } from '$lib/wire';
import type { RequestEvent } from './$types';

export const POST = route(async (event: RequestEvent, db) => {
  const { base, changes, batch, notes } = await body(event, changesRequest);
  return json(await changeDocument(db, event.params.id, base, changes as Patch[][], batch ?? null, notes));
});
