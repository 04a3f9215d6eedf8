import { checked, route } from '$lib/server/answer';
import { SIZES } from '$lib/server/decode';
import { pictureRendition } from '$lib/server/pictures';
import { z } from 'zod';
import type { RequestEvent } from './$types';

const query = z.object({ size: z.enum(SIZES).default('full') });

export const GET = route(async ({ params, url }: RequestEvent, db) => {
  const { size } = checked(query, Object.fromEntries(url.searchParams));
  const { type, bytes } = await pictureRendition(db, params.id, size);
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': type, 'cache-control': 'private, max-age=31536000, immutable' },
  });
});
