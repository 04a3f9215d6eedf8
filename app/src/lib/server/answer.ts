import { json, type RequestEvent } from '@sveltejs/kit';
import { MirrotError } from '@mirrot/core';
import type { z } from 'zod';
import { database, type Database } from './database';
import { Refusal } from './refusal';

/** An error in the form every route answers. */
export const errorAnswer = (status: number, code: string, message: string, extra: object = {}): Response =>
  json({ error: { code, message, ...extra } }, { status });

/** Makes a route of a function: refusals become error answers, anything else a plain 500 without details. */
export const route =
  <E extends RequestEvent>(work: (event: E, db: Database) => Promise<Response>) =>
  async (event: E): Promise<Response> => {
    try {
      return await work(event, await database());
    } catch (error) {
      if (error instanceof Refusal) return errorAnswer(error.status, error.code, error.message, error.extra);
      if (error instanceof MirrotError) return errorAnswer(422, error.code, error.message);
      console.error(error);
      return errorAnswer(
        500,
        'server',
        'The server could not do that. Nothing was changed. Please try again.',
      );
    }
  };

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

/** The request's JSON body, checked. */
export async function body<T>(event: RequestEvent, schema: z.ZodType<T>): Promise<T> {
  let value: unknown;
  try {
    value = await event.request.json();
  } catch {
    throw new Refusal(400, 'json', 'The request is not JSON. Nothing was changed.');
  }
  return checked(schema, value);
}
