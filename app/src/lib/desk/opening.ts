import { applyPatches, changeArt, mergeArt, type Art, type Patch } from '@mirrot/core';
import { newId } from '$lib/ids';
import { getArt, getProject } from './api';
import { Desk } from './desk.svelte';
import { createSaving, type Saving } from './saving.svelte';
import { announceTab, createUnsentStore, forgetLeftBehind, takeLeftBehind } from './unsent';
import { Workplace } from './workplace.svelte';

const tab = newId();

/**
 * Opens a project: the drawing as the server has it, with what closed tabs of this browser left unsent brought in.
 *
 * @throws ServerError when there is no such project or the server is away
 */
export async function openProject(id: string): Promise<Workplace> {
  announceTab(tab);
  const store = createUnsentStore(tab);
  const [project, theirs, left] = await Promise.all([
    getProject(id),
    getArt(id),
    takeLeftBehind(id).catch(() => []),
  ]);
  let art: Art = theirs.art;
  for (const { art: base, batches } of left) {
    const mine = batches.flatMap((b) => b.changes).reduce((a, p) => applyPatches(a, p), base);
    art = mergeArt(base, mine, art, newId);
  }
  const patches: readonly Patch[] =
    art === theirs.art ? [] : changeArt(theirs.art, (draft) => void Object.assign(draft, art)).patches;
  const pending = patches.length > 0 ? [{ id: newId(), changes: [patches] }] : [];
  for (const b of pending) await store.added(id, b.id, b.changes, theirs.revision, theirs.art);
  if (left.length > 0) await forgetLeftBehind(id);
  const saving: Saving = createSaving(id, theirs.art, theirs.revision, store, pending);
  const desk = new Desk(art, saving);
  if (pending.length > 0) desk.say('Changes that this browser had kept are in the drawing again.', 'good');
  return new Workplace(desk, saving, project);
}
