import { json } from '@sveltejs/kit';
import { checked, route } from '$lib/server/answer';
import { addPicture } from '$lib/server/pictures';
import { Refusal } from '$lib/server/refusal';
import { MOST_BYTES } from '$lib/limits';
import { pictureName } from '$lib/wire';
import type { RequestEvent } from './$types';

const tooLarge = (): Refusal =>
  new Refusal(413, 'too-large', 'This file has over 60 MB, the most a picture may have. Nothing was added.');

export const POST = route(async ({ params, request }: RequestEvent, db) => {
  // Said before the body is read; the server's own limit cuts off what lies about its length.
  if (Number(request.headers.get('content-length') ?? 0) > MOST_BYTES + 65_536) throw tooLarge();
  let file: FormDataEntryValue | null;
  try {
    file = (await request.formData()).get('file');
  } catch (error) {
    if (String(error).includes('exceeds limit')) throw tooLarge();
    throw new Refusal(
      400,
      'form',
      'The upload is cut short or is no form with a field "file". Nothing was added.',
    );
  }
  if (!(file instanceof File))
    throw new Refusal(400, 'form', 'The upload has no field "file". Nothing was added.');
  const name = checked(pictureName, file.name);
  const picture = await addPicture(db, params.id, name, Buffer.from(await file.arrayBuffer()));
  return json({ picture }, { status: 201 });
});
