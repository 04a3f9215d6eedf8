import { apply, create, type Draft, type Patches } from 'mutative';
import { MirrotError } from '../error';
import { readArt, type Art } from './schema';

/** One operation of a JSON Patch (RFC 6902): add, replace or remove. */
export type Patch = Patches<{ pathAsArray: false; arrayLengthAssignment: false }>[number];

/** What a change did: the new document, and the patches there and back. */
export interface Change {
  readonly art: Art;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
}

/** A recipe changes a draft of the document in place; the original stays. */
export type Recipe = (draft: Draft<Art>) => void;

/** Carries out a recipe. Nothing changed gives no patches and the same document. */
export function changeArt(art: Art, recipe: Recipe): Change {
  const [next, patches, inverse] = create(art, recipe, {
    enablePatches: { pathAsArray: false, arrayLengthAssignment: false },
  });
  return { art: next, patches, inverse };
}

/** Applies patches that are known to fit (the page's own). */
export const applyPatches = (art: Art, patches: readonly Patch[]): Art =>
  patches.length === 0 ? art : apply(art, patches as Patch[]);

/**
 * Applies patches from outside and checks the whole document after them.
 *
 * @throws MirrotError `change` when a patch names a place that is not there, `art` when the result is no drawing
 */
export function applyForeignPatches(art: Art, patches: readonly Patch[]): Art {
  let next: unknown;
  try {
    next = applyPatches(art, patches);
  } catch {
    throw new MirrotError(
      'change',
      'The change names a place that the drawing does not have. Nothing was changed.',
    );
  }
  return readArt(next);
}
