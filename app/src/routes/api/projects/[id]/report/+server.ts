import { json } from '@sveltejs/kit';
import { checked, route } from '$lib/server/answer';
import { reportOf } from '$lib/server/reporting';
import { reportQuery } from '$lib/wire';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params, url }: RequestEvent, db) => {
  const { use } = checked(reportQuery, Object.fromEntries(url.searchParams));
  return json((await reportOf(db, params.id, use)).report);
});
