import { route } from '$lib/server/answer';
import { exerciseThumb } from '$lib/server/exercises';
import type { RequestEvent } from './$types';

export const GET = route(
  async ({ params }: RequestEvent) =>
    new Response(new Uint8Array(await exerciseThumb(params.id)), {
      headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=3600' },
    }),
);
