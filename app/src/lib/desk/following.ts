import { shapesOf, type Art, type Following } from '@mirrot/core';

// What keeps poured areas up with their lines finds areas anew, which takes much of the core: it is fetched where a drawing has
// such areas, before it opens or when the first is poured, and weighs on no other page.

let following: Following | null = null;

const isPoured = (art: Art): boolean => shapesOf(art).some(({ shape }) => shape.poured);

export const fetchFollowing = async (): Promise<void> =>
  void (following ??= (await import('./follow')).followLines);

/** Fetches it where a drawing needs it. Where that fails, the server being away, areas stay as they are until it comes. */
export const fetchIfPoured = async (art: Art): Promise<void> => {
  if (isPoured(art)) await fetchFollowing().catch(() => {});
};

/** What follows from a change. */
export const follow: Following = (before, after) => {
  if (following) return following(before, after);
  // Poured elsewhere, or pasted: from the next change on it is there.
  if (isPoured(after)) void fetchIfPoured(after);
  return after;
};
