import type { Noted } from '@mirrot/core';
import { deflateRawSync, inflateRawSync } from 'node:zlib';
import type { contextSchema } from '$lib/wire';
import type { z } from 'zod';

/** A change as the journal keeps it. */
export type Entry = Noted<z.infer<typeof contextSchema>>;

/** A journal entry's bytes: JSON, deflated (RFC 1951). The same names stand in it over and over: a fifth is left. */
export const encodeEntry = (entry: Entry): Buffer => deflateRawSync(JSON.stringify(entry));

export const decodeEntry = (bytes: Buffer): Entry => JSON.parse(inflateRawSync(bytes).toString()) as Entry;
