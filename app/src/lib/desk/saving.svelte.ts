import { applyPatches, changeArt, mergeArt, type Art } from '@mirrot/core';
import { newId } from '$lib/ids';
import { getArt, sendChanges, ServerError } from './api';
import type { ChangeSink, MadeChange } from './changes';
import type { UnsentBatch, UnsentStore } from './unsent';

/** How a project's changes stand. `kept`: all are on the server. */
export type SavingState = 'kept' | 'sending' | 'away' | 'conflict' | 'refused';

export interface Saving extends ChangeSink {
  readonly state: SavingState;
  /** Changes made here that the server has not acknowledged. */
  readonly waiting: number;
  /** Why the server refused, in state "refused". */
  readonly refusal: string | null;
  /** Joins what this tab drew with what another has changed meanwhile, and goes on from there. */
  takeOver(): Promise<Art>;
  /** Looks whether another tab has moved the project on; returns the newer document when nothing waits here. */
  refresh(): Promise<Art | null>;
  /** Drops what the server refused and goes on from its drawing. */
  giveUp(): Promise<Art>;
  /** Waits until the server has everything; false when it has not within `within` milliseconds. */
  settled(within: number): Promise<boolean>;
  retry(): void;
  stop(): void;
}

interface Batch {
  readonly id: string;
  readonly changes: MadeChange[];
  /** It has left once; its answer may be lost, so nothing may be added to it. */
  sent?: boolean;
}

/**
 * Sends changes to the server in order, one request at a time; what is not acknowledged is also kept in the browser.
 * A request whose answer is lost is sent again under the same name, so it is carried out once.
 *
 * @param acknowledged the document at `revision`, as the server has it
 * @param pending batches an earlier page left unsent, already contained in the page's document
 */
export function createSaving(
  projectId: string,
  acknowledged: Art,
  revision: number,
  store: UnsentStore,
  pending: readonly UnsentBatch[] = [],
  retryAfter = 2000,
): Saving {
  let state: SavingState = $state(pending.length > 0 ? 'sending' : 'kept');
  let waiting = $state(pending.reduce((n, b) => n + b.changes.length, 0));
  let refusal: string | null = $state(null);
  let base = acknowledged;
  let latest = pending.reduce(
    (art, b) => b.changes.reduce((a, c) => applyPatches(a, c.patches), art),
    acknowledged,
  );
  let queue: Batch[] = pending.map(({ id, changes }) => ({ id, changes: [...changes], sent: true }));
  let inFlight: Batch | null = null;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let stopped = false;

  const counted = (): void => {
    waiting = queue.reduce((n, b) => n + b.changes.length, inFlight?.changes.length ?? 0);
  };

  async function send(): Promise<void> {
    if (inFlight || stopped || state === 'conflict' || state === 'refused') return;
    const batch = queue.shift();
    if (!batch) {
      state = 'kept';
      return;
    }
    inFlight = batch;
    batch.sent = true;
    state = state === 'away' ? 'away' : 'sending';
    try {
      const answer = await sendChanges(projectId, revision, batch.changes, batch.id);
      revision = answer.revision;
      base = batch.changes.reduce((a, c) => applyPatches(a, c.patches), base);
      inFlight = null;
      state = 'sending';
      await store.acknowledged(projectId, batch.id, revision, base);
      counted();
      void send();
    } catch (error) {
      queue.unshift(batch);
      inFlight = null;
      counted();
      const status = error instanceof ServerError ? error.status : 0;
      if (status === 409) state = 'conflict';
      else if (status >= 400 && status < 500) {
        state = 'refused';
        refusal = (error as ServerError).message;
      } else {
        state = 'away';
        timer = setTimeout(() => void send(), retryAfter);
      }
    }
  }

  if (queue.length > 0) void send();

  return {
    get state() {
      return state;
    },
    get waiting() {
      return waiting;
    },
    get refusal() {
      return refusal;
    },
    push(change, art) {
      latest = art;
      // What has not left yet travels together; the batch in flight keeps its contents and its name.
      let batch = queue.at(-1);
      if (!batch || batch.sent || batch.changes.length >= 200)
        queue.push((batch = { id: newId(), changes: [] }));
      batch.changes.push(change);
      if (state === 'kept') state = 'sending';
      counted();
      void store.added(projectId, batch.id, [...batch.changes], revision, base);
      queueMicrotask(() => void send());
    },
    async takeOver() {
      const theirs = await getArt(projectId);
      const merged = mergeArt(base, latest, theirs.art, newId);
      const { patches } = changeArt(theirs.art, (draft) => void Object.assign(draft, merged));
      await store.clear(projectId);
      revision = theirs.revision;
      base = theirs.art;
      latest = merged;
      queue = patches.length > 0 ? [{ id: newId(), changes: [{ patches, note: null }] }] : [];
      for (const batch of queue) await store.added(projectId, batch.id, batch.changes, revision, base);
      refusal = null;
      state = 'sending';
      counted();
      void send();
      return merged;
    },
    async refresh() {
      if (inFlight || queue.length > 0) return null;
      const theirs = await getArt(projectId).catch(() => null);
      if (!theirs || theirs.revision <= revision || inFlight || queue.length > 0) return null;
      revision = theirs.revision;
      base = latest = theirs.art;
      return theirs.art;
    },
    async giveUp() {
      const theirs = await getArt(projectId);
      await store.clear(projectId);
      revision = theirs.revision;
      base = latest = theirs.art;
      queue = [];
      refusal = null;
      state = 'kept';
      counted();
      return theirs.art;
    },
    async settled(within) {
      for (let waited = 0; state !== 'kept' && waited < within; waited += 50)
        await new Promise((done) => setTimeout(done, 50));
      return state === 'kept';
    },
    retry() {
      if (timer) clearTimeout(timer);
      void send();
    },
    stop() {
      stopped = true;
      if (timer) clearTimeout(timer);
    },
  };
}
