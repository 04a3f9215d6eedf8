import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { listBin } from '$lib/server/bin';

export const GET = route(async (_event, db) => json(await listBin(db)));
