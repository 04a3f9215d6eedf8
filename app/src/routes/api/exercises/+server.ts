import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { listExercises } from '$lib/server/exercises';

export const GET = route(async (_event, db) => json(await listExercises(db)));
