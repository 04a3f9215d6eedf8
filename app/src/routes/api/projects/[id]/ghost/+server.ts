import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { getGhost } from '$lib/server/attempts';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => json(await getGhost(db, params.id)));
