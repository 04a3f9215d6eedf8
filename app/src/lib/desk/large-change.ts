import type { MadeChange } from './changes';

/** A change of more patches or characters than this travels in parts: a request takes 2,000 patches and 8 MB. */
export const MOST_PATCHES = 1000;
export const MOST_CHARACTERS = 2_000_000;

export const sizeOf = (value: unknown): number => JSON.stringify(value)?.length ?? 0;

/** Whether a change travels in parts. */
export const isTooLarge = (change: MadeChange): boolean =>
  change.patches.length > MOST_PATCHES || sizeOf(change) > MOST_CHARACTERS;
