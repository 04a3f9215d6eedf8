import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { listShipped } from '$lib/server/shipped';

export const GET = route(async () => json(await listShipped()));
