import { applyPatches, changeArt, mergeArt, recall, type Art } from '@mirrot/core';
import { newId } from '$lib/ids';
import type { ArtAnswer } from '$lib/wire';
import { getArt, getJournal, getProject } from './api';
import { Desk } from './desk.svelte';
import { createSaving, type Saving } from './saving.svelte';
import {
  announceTab,
  createUnsentStore,
  forgetLeftBehind,
  takeLeftBehind,
  type Unsent,
  type UnsentBatch,
} from './unsent';
import { Workplace } from './workplace.svelte';

const tab = newId();

/** What is still to send: one tab's changes as they were made where nothing has happened since, else what is merged of them. */
function pendingOf(left: readonly Unsent[], theirs: ArtAnswer, art: Art): readonly UnsentBatch[] {
  if (left.length === 0) return [];
  if (left.length === 1 && left[0]!.revision === theirs.revision) return left[0]!.batches;
  const { patches } = changeArt(theirs.art, (draft) => void Object.assign(draft, art));
  return patches.length > 0 ? [{ id: newId(), changes: [{ patches, note: null }] }] : [];
}

/**
 * Opens a project: the drawing as the server has it, with what closed tabs of this browser left unsent brought in.
 *
 * @throws ServerError when there is no such project or the server is away
 */
export async function openProject(id: string): Promise<Workplace> {
  announceTab(tab);
  const store = createUnsentStore(tab);
  const [project, theirs, journal, left] = await Promise.all([
    getProject(id),
    getArt(id),
    getJournal(id).catch(() => null),
    takeLeftBehind(id).catch(() => []),
  ]);
  let art: Art = theirs.art;
  for (const { art: base, batches } of left) {
    const mine = batches.flatMap((b) => b.changes).reduce((a, c) => applyPatches(a, c.patches), base);
    art = mergeArt(base, mine, art, newId);
  }
  const pending = pendingOf(left, theirs, art);
  for (const b of pending) await store.added(id, b.id, b.changes, theirs.revision, theirs.art);
  if (left.length > 0) await forgetLeftBehind(id);
  const saving: Saving = createSaving(id, theirs.art, theirs.revision, store, pending);
  const desk = new Desk(art, saving);
  // The steps go on where they were, unless something came in between that the journal does not know of.
  if (journal?.revision === theirs.revision)
    desk.history = recall([...journal.changes, ...pending.flatMap((b) => b.changes)]);
  if (pending.length > 0) desk.say('Changes that this browser had kept are in the drawing again.', 'good');
  return new Workplace(desk, saving, project);
}
