import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { practiseAgain } from '$lib/server/exercises';
import type { RequestEvent } from './$types';

export const POST = route(async ({ params }: RequestEvent, db) =>
  json(await practiseAgain(db, params.id), { status: 201 }),
);
