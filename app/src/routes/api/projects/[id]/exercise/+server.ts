import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { getPractised } from '$lib/server/exercises';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => json(await getPractised(db, params.id)));
