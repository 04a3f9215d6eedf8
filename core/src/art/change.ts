import { create, isDraft, original, type Draft } from 'mutative';
import { checkChange } from './check';
import { artDifference } from './difference';
import { holdingsOf, type Holdings } from './holdings';
import { patchDocument, type Patch } from './patch';
import type { Art } from './schema';
import { MirrotError } from '../error';

export type { Patch };

/** What a change did: the new document, and the patches there and back. */
export interface Change {
  readonly art: Art;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
}

/** A recipe changes a draft of the document in place; the original stays. */
export type Recipe = (draft: Draft<Art>) => void;

/** The document that a draft was made of. */
export const artOfDraft = (draft: Draft<Art>): Art => (isDraft(draft) ? original(draft) : draft) as Art;

/** Whether every number in a value is one: JSON has no word for the others, and no document can hold them. */
function isFiniteThroughout(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value);
  if (typeof value !== 'object' || value === null) return true;
  return Object.values(value).every(isFiniteThroughout);
}

/** What follows from a change, as a part of it: given the drawings before and after, the one that is to be. */
export type Following = (before: Art, after: Art) => Art;
const nothingFollows: Following = (_, after) => after;

/**
 * Carries out a recipe. Nothing changed gives no patches and the same document.
 *
 * @param follow what follows from it (`followLines` where shapes are poured between lines); nothing when left out
 * @throws MirrotError `not-finite` where it would put a number into the document that is none
 */
export function changeArt(art: Art, recipe: Recipe, follow: Following = nothingFollows): Change {
  const next = follow(art, create(art, recipe));
  const patches = artDifference(art, next);
  if (patches.length === 0) return { art, patches, inverse: [] };
  if (!patches.every((patch) => isFiniteThroughout(patch.value)))
    throw new MirrotError('not-finite', 'That cannot be worked out here: it leads beyond all numbers. Nothing was changed.'); // prettier-ignore
  return { art: next, patches, inverse: artDifference(next, art) };
}

/** The document that a recipe would make, without patches: for what is shown and not yet kept. */
export const previewArt = (art: Art, recipe: Recipe, follow: Following = nothingFollows): Art =>
  follow(art, create(art, recipe));

/**
 * Applies patches that were checked before (the page's own, the journal's).
 *
 * @throws MirrotError `change` when a patch names a place that is not there
 */
export const applyPatches = (art: Art, patches: readonly Patch[]): Art =>
  patches.length === 0 ? art : patchDocument(art, patches).document;

/** Places that no change may touch. */
const FIXED = /^\/version(?:\/|$)/;

/** A document that foreign patches made, and what it holds. */
export interface CheckedArt {
  readonly art: Art;
  readonly holdings: Holdings;
}

/**
 * Applies patches from outside and checks the document where they changed it.
 *
 * @param holdings of `art`, when known; its set of ids goes over into the result
 * @throws MirrotError `change` when a patch names a place that is not there or may not be touched, `art` when the
 *   result is no drawing; nothing is changed then
 */
export function applyChecked(
  art: Art,
  patches: readonly Patch[],
  holdings: Holdings = holdingsOf(art),
): CheckedArt {
  if (patches.some(({ path }) => FIXED.test(path)))
    throw new MirrotError('change', 'A change cannot set the version of a drawing. Nothing was changed.');
  const { document } = patchDocument(art, patches);
  return { art: document, holdings: checkChange(art, document, holdings) };
}

/** As `applyChecked`, for when only the document is wanted. */
export const applyForeignPatches = (art: Art, patches: readonly Patch[]): Art =>
  applyChecked(art, patches).art;
