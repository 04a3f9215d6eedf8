import { json } from '@sveltejs/kit';
import { checked, route } from '$lib/server/answer';
import { MOST_BUNDLE_BYTES } from '$lib/limits';
import { fileOf } from '$lib/server/form';
import { importFile } from '$lib/server/importing';
import { importName } from '$lib/wire';
import type { RequestEvent } from './$types';

export const POST = route(async ({ request }: RequestEvent, db) => {
  const { file, form } = await fileOf(request, 'a bundle', MOST_BUNDLE_BYTES);
  const name = form.get('name');
  const wished = typeof name === 'string' ? checked(importName, name) : null;
  return json(await importFile(db, file, wished), { status: 201 });
});
