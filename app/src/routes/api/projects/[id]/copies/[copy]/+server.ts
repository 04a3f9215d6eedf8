import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { getCopy } from '$lib/server/copies';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) =>
  json({ art: await getCopy(db, params.id, params.copy) }),
);
