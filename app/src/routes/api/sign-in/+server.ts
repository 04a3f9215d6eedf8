import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { COOKIE, cookieValue, countTry, isKey, secondsToWait } from '$lib/server/access';
import { body, route } from '$lib/server/answer';
import { Refusal } from '$lib/server/refusal';
import type { RequestEvent } from './$types';

const request = z.strictObject({ key: z.string().max(200) });
const YEAR = 365 * 86_400;

export const POST = route(async (event: RequestEvent) => {
  const { key } = await body(event, request);
  const address = event.getClientAddress();
  const wait = secondsToWait(address);
  if (wait > 0)
    throw new Refusal(429, 'too-often', `Too many wrong keys. Try again in ${wait} seconds.`, { wait });
  if (!isKey(key)) {
    countTry(address);
    throw new Refusal(403, 'wrong-key', 'That is not the key. It was printed where the server was started.');
  }
  event.cookies.set(COOKIE, cookieValue(), {
    path: '/',
    httpOnly: true,
    sameSite: 'strict',
    secure: event.url.protocol === 'https:',
    maxAge: YEAR,
  });
  return json({ ok: true });
});
