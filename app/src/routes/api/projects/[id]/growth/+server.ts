import { jsonBytes, route } from '$lib/server/answer';
import { growthOf } from '$lib/server/growing';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) =>
  jsonBytes(Buffer.from(await growthOf(db, params.id, null))),
);
