import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { getJournal } from '$lib/server/documents';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => json(await getJournal(db, params.id)));
