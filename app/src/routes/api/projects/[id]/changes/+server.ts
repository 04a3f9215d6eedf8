import { OUTDATED, OUTDATED_TEXT } from '$lib/outdated';
import { json } from '@sveltejs/kit';
import { ART_VERSION, type Patch } from '@mirrot/core';
import { body, route } from '$lib/server/answer';
import { changeDocument } from '$lib/server/documents';
import { Refusal } from '$lib/server/refusal';
import { changesRequest } from '$lib/wire';
import type { RequestEvent } from './$types';

export const POST = route(async (event: RequestEvent, db) => {
  const { base, version, changes, batch, notes } = await body(event, changesRequest);
  if (version !== undefined && version !== ART_VERSION)
    throw new Refusal(OUTDATED, 'outdated', OUTDATED_TEXT);
  return json(await changeDocument(db, event.params.id, base, changes as Patch[][], batch ?? null, notes));
});
