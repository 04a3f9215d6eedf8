import { checked, route } from '$lib/server/answer';
import { readShipped, SHIPPED_SIZES } from '$lib/server/shipped';
import { z } from 'zod';
import type { RequestEvent } from './$types';

const query = z.object({ size: z.enum(SHIPPED_SIZES).default('full') });

export const GET = route(async ({ params, url }: RequestEvent) => {
  const { size } = checked(query, Object.fromEntries(url.searchParams));
  return new Response(new Uint8Array(await readShipped(params.name, size)), {
    headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=3600' },
  });
});
