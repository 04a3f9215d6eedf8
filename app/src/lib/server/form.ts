import { MOST_BYTES } from '$lib/limits';
import { Refusal } from './refusal';

/** What a form has room for beside its file, bytes. */
const AROUND_FILE = 65_536;

/**
 * Says that a file is too large.
 *
 * @param what it is, with its article
 * @param most bytes it may have
 */
export const tooLargeFor = (what: string, most: number): Refusal =>
  new Refusal(413, 'too-large', `This file has over ${most / 1024 / 1024} MB, the most ${what} may have. Nothing was added.`); // prettier-ignore

/**
 * The file of a form that was sent, and the form.
 *
 * @param what it is, with its article: said when it is too large
 * @param most bytes it may have
 */
export async function fileOf(
  request: Request,
  what: string,
  most = MOST_BYTES,
): Promise<{ file: File; form: FormData }> {
  const tooLarge = (): Refusal => tooLargeFor(what, most);
  // Said before the body is read; the server's own limit cuts off what lies about its length.
  if (Number(request.headers.get('content-length') ?? 0) > most + AROUND_FILE) throw tooLarge();
  let form: FormData;
  try {
    form = await request.formData();
  } catch (error) {
    if (String(error).includes('exceeds limit')) throw tooLarge();
    throw new Refusal(
      400,
      'form',
      'The upload is cut short or is no form with a field "file". Nothing was added.',
    );
  }
  const file = form.get('file');
  if (!(file instanceof File))
    throw new Refusal(400, 'form', 'The upload has no field "file". Nothing was added.');
  if (file.size > most) throw tooLarge();
  return { file, form };
}
