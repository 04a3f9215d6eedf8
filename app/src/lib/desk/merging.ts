import type { Merge } from '@mirrot/core';

// Bringing drawings together is wanted only where another page had a hand in one: it is fetched then, and until then
// weighs on no page that opens.

let merge: Merge | null = null;

/** Fetches what brings drawings together. */
export const fetchMerge = async (): Promise<Merge> => (merge ??= (await import('./merge')).mergeArt);

/** Brings drawings together, once it was fetched: whoever puts another drawing in the place of one has fetched it. */
export const mergeFetched: Merge = (base, mine, theirs) => {
  if (!merge) throw new Error('What brings drawings together was not fetched.');
  return merge(base, mine, theirs);
};
