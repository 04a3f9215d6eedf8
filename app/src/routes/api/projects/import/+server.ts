import { json } from '@sveltejs/kit';
import { checked, route } from '$lib/server/answer';
import { fileOf } from '$lib/server/form';
import { importSvg } from '$lib/server/importing';
import { importName } from '$lib/wire';
import type { RequestEvent } from './$types';

export const POST = route(async ({ request }: RequestEvent, db) => {
  const { file, form } = await fileOf(request, 'an SVG');
  const name = form.get('name');
  const wished = typeof name === 'string' ? checked(importName, name) : null;
  return json(await importSvg(db, file, wished), { status: 201 });
});
