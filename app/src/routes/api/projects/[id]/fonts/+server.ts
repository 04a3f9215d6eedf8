import { fitName } from '@mirrot/core';
import { json } from '@sveltejs/kit';
import { route } from '$lib/server/answer';
import { addFont, listFonts } from '$lib/server/fonts';
import { fileOf } from '$lib/server/form';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => json(await listFonts(db, params.id)));

export const POST = route(async ({ params, request }: RequestEvent, db) => {
  const { file } = await fileOf(request, 'a font');
  const name = fitName(file.name.replace(/\.\w+$/, ''), 'Font');
  const font = await addFont(db, params.id, name, Buffer.from(await file.arrayBuffer()));
  return json(font, { status: 201 });
});
