import { applyPatches, checkChange, holdingsOf, patchDocument, type Art, type Patch } from '@mirrot/core';
import type { MadeChange } from './changes';
import { NOTHING_CHOSEN } from './choice';
import { isTooLarge, MOST_CHARACTERS, MOST_PATCHES, sizeOf } from './large-change';

/** Where a list of patches is parted, each part small enough, and a drawing after each. */
function partsOf(patches: readonly Patch[], before: Art): (readonly Patch[])[] {
  const parts: (readonly Patch[])[] = [];
  const holdings = holdingsOf(before);
  let art = before;
  let ids = holdings;
  let part: Patch[] = [];
  let size = 0;
  patches.forEach((patch, i) => {
    part.push(patch);
    size += sizeOf(patch);
    const last = i === patches.length - 1;
    const next = patches[i + 1];
    const full = part.length >= MOST_PATCHES || (next && size + sizeOf(next) > MOST_CHARACTERS);
    if (!last && !full) return;
    const after = applyPatches(art, part);
    try {
      ids = checkChange(art, after, ids);
    } catch {
      // In the middle of something that is a drawing again only a little later.
      if (!last) return;
    }
    parts.push(part);
    art = after;
    part = [];
    size = 0;
  });
  return parts;
}

/**
 * A change as the parts it is sent in: itself where it is small enough. Further parts say that they are more of the
 * first, so that they are one step.
 *
 * @param before the drawing that the change was made on
 */
export function splitChange(change: MadeChange, before: Art): MadeChange[] {
  const { patches, note } = change;
  if (!isTooLarge(change)) return [change];
  let art = before;
  return partsOf(patches, before).map((part, i): MadeChange => {
    const { document, inverse } = patchDocument(art, part);
    art = document;
    if (!note) return { patches: part, note };
    if (note.did !== 'undo')
      return { patches: part, note: { ...note, inverse, did: i === 0 ? note.did : 'more' } };
    // A step taken back says nothing of itself; in parts it is a step of its own.
    const looked = { choice: NOTHING_CHOSEN, live: null };
    return { patches: part, note: { did: i === 0 ? 'step' : 'more', label: 'Take back a step', inverse, before: looked, after: looked } }; // prettier-ignore
  });
}
