import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { getAnswer } from '$lib/server/attempts';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => json(await getAnswer(db, params.id)));
