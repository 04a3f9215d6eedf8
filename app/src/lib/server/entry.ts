import type { Noted } from '@mirrot/core';
import { promisify } from 'node:util';
import { deflateRaw, deflateRawSync, inflateRaw, inflateRawSync } from 'node:zlib';
import type { contextSchema } from '$lib/wire';
import type { z } from 'zod';

/** A change as the journal keeps it. */
export type Entry = Noted<z.infer<typeof contextSchema>>;

/** A journal entry's bytes: JSON, deflated (RFC 1951). The same names stand in it over and over: a fifth is left. */
export const encodeEntry = (entry: Entry): Buffer => deflateRawSync(JSON.stringify(entry));

/** A journal entry as JSON in UTF-8. */
export const entryText = (bytes: Buffer): Buffer => inflateRawSync(bytes);

export const decodeEntry = (bytes: Buffer): Entry => JSON.parse(entryText(bytes).toString()) as Entry;

const deflate = promisify<Buffer, { level: number }, Buffer>(deflateRaw);
const inflate = promisify<Buffer, Buffer>(inflateRaw);

/** Little effort: a document is written often, and half the work finds nine tenths of what there is to find. */
const LEVEL = 3;

/** A document's text as it is stored: deflated, away from what the server does meanwhile. */
export const packText = (text: string): Promise<Buffer> => deflate(Buffer.from(text), { level: LEVEL });

/** The text of a stored document, in UTF-8; those of before were stored as they are. */
export const unpackText = async (stored: string | Buffer): Promise<Buffer> =>
  typeof stored === 'string' ? Buffer.from(stored) : inflate(stored);
