import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { getArt } from '$lib/server/documents';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => json(await getArt(db, params.id)));
