import { route } from '$lib/server/answer';
import { readShipped } from '$lib/server/shipped';
import type { RequestEvent } from './$types';

export const GET = route(
  async ({ params }: RequestEvent) =>
    new Response(new Uint8Array(await readShipped(params.name)), {
      headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=3600' },
    }),
);
