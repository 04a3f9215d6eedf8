import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { MOST_BUNDLE_BYTES } from '$lib/limits';
import { readHandedIn } from '$lib/server/class';
import { fileOf } from '$lib/server/form';
import type { ClassAnswer } from '$lib/wire-practice';
import type { RequestEvent } from './$types';

export const POST = route(async ({ request }: RequestEvent) => {
  const { file } = await fileOf(request, 'a bundle', MOST_BUNDLE_BYTES);
  const entries = await readHandedIn(new Uint8Array(await file.arrayBuffer()));
  return json({ entries } satisfies ClassAnswer);
});
