import { jsonBytes, route } from '$lib/server/answer';
import { getJournalJson } from '$lib/server/documents';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) =>
  jsonBytes(await getJournalJson(db, params.id)),
);
