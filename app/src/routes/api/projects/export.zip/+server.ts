import { checked, route } from '$lib/server/answer';
import { zipProjects } from '$lib/server/several';
import { severalQuery } from '$lib/wire';
import type { RequestEvent } from './$types';

export const GET = route(async ({ url }: RequestEvent, db) => {
  const { of, as } = checked(severalQuery, Object.fromEntries(url.searchParams));
  const bytes = await zipProjects(db, of.split(','), as);
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': 'inline; filename="projects.zip"',
    },
  });
});
