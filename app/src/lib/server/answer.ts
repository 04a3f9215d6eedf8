import { json, type RequestEvent } from '@sveltejs/kit';
import { MirrotError } from '@mirrot/core';
import type { z } from 'zod';
import { MOST_JSON_BYTES } from '$lib/limits';
import { database, type Database } from './database';
import { Refusal } from './refusal';
import { storageTrouble } from './start-failure';

/** An error in the form every route answers. */
export const errorAnswer = (status: number, code: string, message: string, extra: object = {}): Response =>
  json({ error: { code, message, ...extra } }, { status });

/** Answers to what storing can run into. */
const STORAGE_ANSWERS = {
  full: {
    status: 507,
    code: 'disk-full',
    message:
      'There is no room left on the server’s disk. Nothing was changed. Make room there; then it goes on.',
  },
  'read-only': {
    status: 503,
    code: 'read-only',
    message: 'The server cannot write its data. Nothing was changed. Look at its folder’s permissions.',
  },
  damaged: {
    status: 500,
    code: 'damaged',
    message: 'The server’s database is damaged. Nothing was changed. Stop it and put a backup in its place.',
  },
} as const;

/** The answer to an error: refusals as they say, storage that fails with its cause, anything else without details. */
export function answerError(error: unknown): Response {
  if (error instanceof Refusal) return errorAnswer(error.status, error.code, error.message, error.extra);
  if (error instanceof MirrotError) return errorAnswer(422, error.code, error.message);
  const trouble = storageTrouble(error);
  if (trouble) {
    const { status, code, message } = STORAGE_ANSWERS[trouble];
    return errorAnswer(status, code, message);
  }
  // A call stack that ran out or a list that would be too long: what came in was too large, not the server at fault.
  if (error instanceof RangeError)
    return errorAnswer(
      422,
      'too-large',
      'That is too large or too deep to be carried out. Nothing was changed.',
    );
  // Who asked has gone in the middle of asking: nobody reads an answer, and nothing is wrong here.
  if (error instanceof Error && 'code' in error && error.code === 'ECONNRESET')
    return errorAnswer(400, 'gone', 'The request was broken off. Nothing was changed.');
  console.error(error);
  return errorAnswer(500, 'server', 'The server could not do that. Nothing was changed. Please try again.');
}

/** Makes a route of a function. */
export const route =
  <E extends RequestEvent>(work: (event: E, db: Database) => Promise<Response>) =>
  async (event: E): Promise<Response> => {
    try {
      return await work(event, await database());
    } catch (error) {
      return answerError(error);
    }
  };

/** An answer that is JSON already, in UTF-8. */
export const jsonBytes = (bytes: Buffer): Response =>
  new Response(new Uint8Array(bytes), { headers: { 'content-type': 'application/json' } });

/** Checks a value with Zod; the first thing wrong becomes the sentence. */
export function checked<T>(schema: z.ZodType<T>, value: unknown): T {
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  const issue = read.error.issues[0];
  const where = issue?.path.join('/');
  throw new Refusal(
    400,
    'request',
    `The request is not right${where ? ` at ${where}` : ''}: ${(issue?.message ?? 'unknown').replace(/\.$/, '')}. Nothing was changed.`,
  );
}

/** Lists and objects in each other at most in a request: groups 64 deep, each two levels, and what stands in them. */
const DEEPEST_JSON = 200;

/** Whether JSON text nests deeper than it may, told before it is parsed: a parser takes seconds over 60 MB of "[". */
export function nestsTooDeep(bytes: Uint8Array): boolean {
  let depth = 0;
  let inText = false;
  for (let i = 0; i < bytes.length; i++) {
    const c = bytes[i];
    if (inText) {
      if (c === 0x5c) i++;
      else if (c === 0x22) inText = false;
    } else if (c === 0x22) inText = true;
    else if (c === 0x5b || c === 0x7b) {
      if (++depth > DEEPEST_JSON) return true;
    } else if (c === 0x5d || c === 0x7d) depth--;
  }
  return false;
}

const tooMuch = (): Refusal =>
  new Refusal(413, 'too-large', 'The request has over 8 MB, the most one may have. Nothing was changed.');

async function bytesOf(request: Request): Promise<Uint8Array> {
  if (Number(request.headers.get('content-length') ?? 0) > MOST_JSON_BYTES) throw tooMuch();
  const parts: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  for (let part = await reader?.read(); part && !part.done; part = await reader!.read()) {
    length += part.value.length;
    if (length > MOST_JSON_BYTES) {
      void reader!.cancel();
      throw tooMuch();
    }
    parts.push(part.value);
  }
  return Buffer.concat(parts);
}

/** The request's JSON body, checked. */
export async function body<T>(event: Pick<RequestEvent, 'request'>, schema: z.ZodType<T>): Promise<T> {
  const type = event.request.headers.get('content-type')?.split(';')[0]?.trim().toLowerCase();
  if (type !== 'application/json')
    throw new Refusal(415, 'type', 'The request has to be JSON and say so (content-type: application/json). Nothing was changed.'); // prettier-ignore
  const bytes = await bytesOf(event.request);
  if (nestsTooDeep(bytes)) throw new Refusal(400, 'json', 'The request nests too deep. Nothing was changed.');
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    throw new Refusal(400, 'json', 'The request is not JSON. Nothing was changed.');
  }
  return checked(schema, value);
}
