import { jsonBytes, route } from '$lib/server/answer';
import { getArtJson } from '$lib/server/documents';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => jsonBytes(await getArtJson(db, params.id)));
