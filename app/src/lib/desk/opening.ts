import { applyPatches, ART_VERSION, artDifference, recall, type Art, type History } from '@mirrot/core';
import { newId } from '$lib/ids';
import type { ArtAnswer, JournalAnswer, LeftRequest, ProjectAnswer } from '$lib/wire';
import { getArt, getJournal, getProject, ServerError } from './api';
import type { ChangeSink, Context } from './changes';
import { Desk } from './desk.svelte';
import {
  announceVisit,
  createChangeStore,
  forgetVisits,
  lastSeen,
  leftBehind,
  type KeptChange,
  type LeftBehind,
  type SetAside,
} from './kept-changes';
import { fetchIfPoured } from './following';
import { createHabits } from './habits.svelte';
import { fetchMerge } from './merging';
import { goOnWhereLeft, takeFromTab } from './left';
import { rememberedHabits } from './remembered-habits';
import { createSaving, type Replacement, type Saving } from './saving.svelte';
import { Workplace } from './workplace.svelte';

/** What a project is opened with. */
interface Opening {
  readonly project: ProjectAnswer;
  /** The drawing as the server has it, as far as is known. */
  readonly theirs: ArtAnswer;
  readonly journal: JournalAnswer | null;
  readonly place: LeftRequest | null;
  readonly left: readonly LeftBehind[];
  /** The server is away: this is what the browser last saw. */
  readonly away: boolean;
}

const ofChanges = (art: Art, changes: readonly KeptChange[]): Art =>
  changes.reduce((a, { change }) => applyPatches(a, change.patches), art);

/**
 * What is still to send of what ended visits left: their changes as they were made where nothing has happened since,
 * else what is merged of them. What cannot be merged any more is set aside.
 */
async function pendingOf(
  left: readonly LeftBehind[],
  theirs: ArtAnswer,
  setAside: (visit: LeftBehind, after: Art) => void,
): Promise<readonly KeptChange[]> {
  const [only] = left;
  if (!only) return [];
  if (left.length === 1 && only.revision === theirs.revision) return only.changes;
  const mergeArt = await fetchMerge();
  const art = left.reduce((now, visit) => {
    const mine = ofChanges(visit.art, visit.changes);
    try {
      return mergeArt(visit.art, mine, now).art;
    } catch {
      setAside(visit, mine);
      return now;
    }
  }, theirs.art);
  const patches = artDifference(theirs.art, art);
  return patches.length > 0 ? [{ seq: 1, batch: newId(), change: { patches, note: null } }] : [];
}

/** What the server says of a project; where it is away, what this browser saw last. */
async function whatIsKnown(id: string): Promise<Opening> {
  try {
    const [project, theirs, journal, left] = await Promise.all([
      getProject(id),
      getArt(id),
      getJournal(id).catch(() => null),
      leftBehind(id).catch(() => []),
    ]);
    return { project, theirs, journal, place: project.left, left, away: false };
  } catch (error) {
    const away = error instanceof ServerError && (error.status === 0 || error.status >= 502);
    const seen = away ? await lastSeen(id).catch(() => null) : null;
    if (!seen) throw error;
    const { answer: project, revision, art } = seen;
    return { project, theirs: { revision, art }, journal: null, place: null, left: [seen], away: true };
  }
}

/** The steps go on where they were, as far as the journal tells them and nothing came in between that it does not know of. */
function historyOf({ journal, theirs }: Opening, pending: readonly KeptChange[], art: Art): History<Context> {
  const known = journal?.revision === theirs.revision ? journal.changes : [];
  return recall([...known, ...pending.map((p) => p.change)], art);
}

/** Visits of this page that are being left and still send. */
const leaving = new Map<string, Promise<unknown>>();
/** How long a project that is left goes on sending, and one that is opened again waits for it, milliseconds. */
const LEAVING_TIME = 10_000;

/**
 * Opens a project: the drawing as the server has it, with what ended visits of this browser left unsent brought in.
 *
 * @throws ServerError when there is no such project, or the server is away and this browser never saw it
 */
export async function openProject(id: string): Promise<Workplace> {
  await leaving.get(id);
  const [opening, habits] = await Promise.all([whatIsKnown(id), rememberedHabits()]);
  const { project, theirs, left, away } = opening;
  const visit = newId();
  const visitOver = announceVisit(visit);
  const store = createChangeStore(visit, project);
  const pending = await pendingOf(left, theirs, ({ art: before, changes }, after) => {
    const aside: SetAside = {
      id: newId(),
      project: id,
      at: new Date().toISOString(),
      label: 'Changes that were not sent',
      reason: 'They do not fit the drawing as it is now.',
      version: ART_VERSION,
      changes: changes.map((c) => c.change),
      before,
      after,
    };
    void store.setAside(aside).catch(() => {});
  });
  let hear: ((art: Art, replacement: Replacement) => void) | null = null;
  const saving: Saving = createSaving({
    projectId: id,
    acknowledged: theirs.art,
    revision: theirs.revision,
    store,
    pending,
    replaced: (art, replacement) => hear?.(art, replacement),
  });
  const drawn = ofChanges(theirs.art, pending);
  await fetchIfPoured(drawn);
  const desk = new Desk(drawn, saving satisfies ChangeSink, createHabits(habits));
  const place = takeFromTab(id) ?? opening.place;
  if (place) goOnWhereLeft(desk, place);
  desk.drawing.history = historyOf(opening, pending, desk.art);
  // Only now: what was left is in this visit's hands, in the store too.
  if (left.length > 0)
    void saving
      .stored()
      .then(() => (saving.storeFails ? undefined : forgetVisits(left.map((l) => l.visit))))
      .catch(() => {});
  if (away)
    desk.say('The server is away. This is the drawing as it was last seen here; what you draw is kept and sent later.', 'plain'); // prettier-ignore
  else if (pending.length > 0)
    desk.say('Changes that this browser had kept are in the drawing again.', 'good');
  const leave = (): void => {
    const sending = Promise.all([saving.leave(LEAVING_TIME), workplace.rememberLeft()]).finally(() => {
      visitOver();
      if (leaving.get(id) === sending) leaving.delete(id);
    });
    leaving.set(id, sending);
  };
  const workplace = new Workplace(desk, saving, project, leave);
  hear = (art, replacement) => workplace.replaceDrawing(art, replacement);
  return workplace;
}
