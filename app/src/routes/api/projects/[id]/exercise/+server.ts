import { json } from '@sveltejs/kit';
import { body, route } from '$lib/server/answer';
import { getPractised } from '$lib/server/attempts';
import { makeExercise } from '$lib/server/exercises';
import { newExerciseRequest } from '$lib/wire-practice';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => json(await getPractised(db, params.id)));

export const POST = route(async (event: RequestEvent, db) =>
  json(await makeExercise(db, event.params.id, await body(event, newExerciseRequest)), { status: 201 }),
);
