import { json } from '@sveltejs/kit';
import { checked, route } from '$lib/server/answer';
import { fileOf } from '$lib/server/form';
import { addPicture } from '$lib/server/pictures';
import { pictureName } from '$lib/wire';
import type { RequestEvent } from './$types';

export const POST = route(async ({ params, request }: RequestEvent, db) => {
  const { file } = await fileOf(request, 'a picture');
  const name = checked(pictureName, file.name);
  const picture = await addPicture(db, params.id, name, Buffer.from(await file.arrayBuffer()));
  return json({ picture }, { status: 201 });
});
