// Long because what is sent, stored and taken in is one machine: parted, each part would hold all of its state.

import { OUTDATED } from '$lib/outdated';
import { applyPatches, artDifference, ART_VERSION, type Art, type Merge } from '@mirrot/core';
import { newId } from '$lib/ids';
import { getArt, sendChanges, ServerError } from './api';
import type { ChangeSink, MadeChange } from './changes';
import { NOTHING_CHOSEN } from './choice';
import type { ChangeStore, KeptChange, SetAside } from './kept-changes';
import { fetchMerge } from './merging';
import { isTooLarge } from './large-change';

/** How a project's changes stand. `kept`: all are on the server. */
export type SavingState = 'kept' | 'sending' | 'away' | 'full' | 'signed-out' | 'conflict' | 'outdated';

/** Why the page's drawing became another one than the hand made. */
export type Replacement =
  | { readonly why: 'taken-over' | 'refreshed'; readonly conflicts: readonly string[] }
  | { readonly why: 'set-aside'; readonly aside: SetAside };

export interface Saving extends ChangeSink {
  readonly state: SavingState;
  /** Changes made here that the server has not acknowledged. */
  readonly waiting: number;
  /** The revision that the server is known to have. */
  readonly revision: number;
  /** The browser does not keep what is unsent: a closed page would lose it. */
  readonly storeFails: boolean;
  /** Joins what this page drew with what another has changed meanwhile, and goes on from there. */
  takeOver(): Promise<void>;
  /** Looks whether another page has moved the project on, and takes that in when nothing waits here. */
  refresh(): Promise<void>;
  /** Waits until the server has everything; false when it has not within `within` milliseconds. */
  settled(within: number): Promise<boolean>;
  /** Tries again now. */
  retry(): void;
  /** The page is being closed: what still can be sent is. */
  flush(): void;
  /** Resolves when the browser's store has all it was given, whether it could keep it or not. */
  stored(): Promise<unknown>;
  /** The project is left: what waits is sent, then nothing more is done. True when the server has everything. */
  leave(within: number): Promise<boolean>;
  stop(): void;
}

export interface SavingOptions {
  readonly projectId: string;
  /** The document at `revision`, as the server has it. */
  readonly acknowledged: Art;
  readonly revision: number;
  readonly store: ChangeStore;
  /** Changes an earlier page left unsent, contained in the page's document already and in the store. */
  readonly pending?: readonly KeptChange[];
  /** Told, at the very moment, that the drawing has become another one. */
  readonly replaced: (art: Art, replacement: Replacement) => void;
}

/** Changes that travel in one request at most. */
const MOST_TOGETHER = 200;
/** Patches of them, at most: a request takes 2,000. */
const MOST_PATCHES_TOGETHER = 1500;
/** Characters of them, about: a request takes 8 MB. */
const MOST_CHARACTERS_TOGETHER = 3_000_000;
/** The store begins within this, milliseconds, or with the first change. */
const BEGUN_WITHIN_MS = 2000;
/** Pauses between tries, milliseconds: twice as long each time, up to a minute. */
const FIRST_PAUSE = 1000;
const LONGEST_PAUSE = 60_000;
/** How often a request that the server itself cannot carry out is tried. */
const TRIES = 3;
/** Changes and characters after which the browser's store keeps the drawing anew. */
const CHANGES_BETWEEN = 2000;
const CHARACTERS_BETWEEN = 4_000_000;
/** Bytes that a browser sends for a page that is closing (Fetch standard, keepalive: 64 KiB). */
const MOST_LAST_BYTES = 60_000;

/** Answers that mean "not now": the network, a proxy, a full disk, too much at once. */
const NOT_NOW = new Set([0, 408, 425, 429, 502, 503, 504, 507]);

/** Answers that say nothing of what was sent: all of it is kept as it is. */
const KEEPS_ALL = new Set([...NOT_NOW, 401, 409, OUTDATED]);

/** Why a request failed. */
interface Failure {
  readonly status: number;
  readonly message: string;
}

interface Batch {
  readonly id: string;
  readonly changes: KeptChange[];
  patches: number;
  characters: number;
  /** It has left once; its answer may be lost, so nothing may be added to it. */
  sent: boolean;
  tries: number;
}

const batchOf = (id: string, changes: readonly KeptChange[] = [], sent = false): Batch => ({
  id,
  changes: [...changes],
  patches: changes.reduce((n, { change }) => n + change.patches.length, 0),
  characters: 0,
  sent,
  tries: 0,
});

const applied = (art: Art, changes: readonly KeptChange[]): Art =>
  changes.reduce((a, { change }) => applyPatches(a, change.patches), art);

const labelOf = (changes: readonly KeptChange[]): string =>
  changes.map(({ change: { note } }) => (note && note.did !== 'undo' ? note.label : '')).find(Boolean) ??
  'A change';

/**
 * Sends changes to the server in order, one request at a time; what is not acknowledged is also kept in the browser.
 * A request whose answer is lost is sent again under the same name, so it is carried out once.
 */
export function createSaving({
  projectId,
  acknowledged,
  revision: startRevision,
  store,
  pending = [],
  replaced,
}: SavingOptions): Saving {
  let state: SavingState = $state(pending.length > 0 ? 'sending' : 'kept');
  let waiting = $state(pending.length);
  let storeFails = $state(false);
  let revision = $state(startRevision);
  /** The document as the server has it, and as it is here. */
  let base = acknowledged;
  let latest = applied(acknowledged, pending);
  let queue: Batch[] = [];
  let inFlight: Batch | null = null;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let pause = FIRST_PAUSE;
  let stopped = false;
  let seq = Math.max(0, ...pending.map((c) => c.seq));
  let [keptSince, charactersSince] = [0, 0];

  for (const change of pending) {
    const last = queue.at(-1);
    if (last?.id === change.batch) {
      last.changes.push(change);
      last.patches += change.change.patches.length;
    } else queue.push(batchOf(change.batch, [change], true));
  }

  const unsent = (): KeptChange[] => [...(inFlight ? [inFlight] : []), ...queue].flatMap((b) => b.changes);
  const counted = (): void => {
    waiting = queue.reduce((n, b) => n + b.changes.length, inFlight?.changes.length ?? 0);
  };

  // The store's work is done in order. Where it fails, sending goes on: what is lost then is only the second place.
  let storing: Promise<unknown> = Promise.resolve();
  const keep = (work: () => Promise<void>): void => {
    storing = storing.then(work).then(
      () => (storeFails = false),
      () => (storeFails = true),
    );
  };
  let begun = false;
  /** Begins the store anew with what the server has. */
  const beginStore = (): void => {
    begun = true;
    const [at, art, left] = [revision, base, unsent()];
    [keptSince, charactersSince] = [0, 0];
    keep(() => store.begin(at, art, left));
  };

  const wait = (): void => {
    if (timer) clearTimeout(timer);
    // A little by chance, so that many pages do not come back at one moment.
    timer = setTimeout(() => void send(), pause * (0.75 + 0.5 * Math.random()));
    pause = Math.min(LONGEST_PAUSE, 2 * pause);
  };

  /** Goes on from the server's drawing with everything of this page's that it can take. */
  function goOnFrom(
    theirs: { readonly revision: number; readonly art: Art },
    merged: Art,
    note: string,
  ): void {
    const patches = artDifference(theirs.art, merged);
    revision = theirs.revision;
    base = theirs.art;
    latest = merged;
    queue = [];
    inFlight = null;
    if (patches.length > 0) {
      const looked = { choice: NOTHING_CHOSEN, live: null };
      const inverse = artDifference(merged, theirs.art);
      enqueue({ patches, note: { did: 'step', label: note, inverse, before: looked, after: looked } });
    }
    beginStore();
    counted();
    state = queue.length > 0 ? 'sending' : 'kept';
  }

  /** Takes out of the drawing what the server does not take, keeps it aside, and goes on with the rest. */
  function setAside(batch: Batch, reason: string, mergeArt: Merge): void {
    const refused = applied(base, batch.changes);
    const aside = (after: Art, changes: readonly KeptChange[]): SetAside => ({
      id: newId(),
      project: projectId,
      at: new Date().toISOString(),
      label: labelOf(changes),
      reason,
      version: ART_VERSION,
      changes: changes.map((c) => c.change),
      before: base,
      after,
    });
    let record = aside(refused, batch.changes);
    let rest: Art;
    try {
      rest = mergeArt(refused, latest, base).art;
    } catch {
      // What came after it cannot be without it: all of it goes aside.
      record = aside(latest, [...batch.changes, ...queue.flatMap((b) => b.changes)]);
      rest = base;
    }
    keep(() => store.setAside(record));
    goOnFrom({ revision, art: base }, rest, 'Changes after one set aside');
    replaced(rest, { why: 'set-aside', aside: record });
  }

  /** @param merge where the server may have refused the batch for what is in it */
  function failed(batch: Batch, { status, message }: Failure, merge: Merge | null): void {
    if (status === 409) state = 'conflict';
    else if (status === OUTDATED) state = 'outdated';
    else if (status === 401) {
      state = 'signed-out';
      wait();
    } else if (!merge) {
      state = status === 507 ? 'full' : 'away';
      wait();
    } else if (status >= 500 && ++batch.tries < TRIES) {
      state = 'away';
      wait();
    } else if (batch.changes.length > 1) {
      // One of several is at fault: each goes by itself.
      queue.shift();
      queue.unshift(...batch.changes.map((c) => batchOf(newId(), [c])));
      void send();
    } else {
      queue.shift();
      // What the server says of itself is not so of the page any more.
      setAside(batch, message.replace(/ Nothing was changed\.$/, ''), merge);
      void send();
    }
  }

  async function send(): Promise<void> {
    if (inFlight || stopped || state === 'conflict' || state === 'outdated') return;
    if (timer) clearTimeout(timer);
    const batch = queue.shift();
    if (!batch) {
      state = 'kept';
      return;
    }
    inFlight = batch;
    batch.sent = true;
    if (state === 'kept') state = 'sending';
    if (batch.changes.some(({ change }) => isTooLarge(change))) return partAndSend(batch);
    let answer: { revision: number };
    try {
      answer = await sendChanges(
        projectId,
        revision,
        batch.changes.map((c) => c.change),
        batch.id,
      );
    } catch (error) {
      const failure = error instanceof ServerError ? error : { status: 0, message: String(error) };
      // Without it nothing can be set aside: then it is tried again later.
      const merge = KEEPS_ALL.has(failure.status) ? null : await fetchMerge().catch(() => null);
      if (inFlight !== batch) return;
      queue.unshift(batch);
      inFlight = null;
      counted();
      return failed(batch, failure, merge);
    }
    // Taken over meanwhile: what was in flight is part of that.
    if (inFlight !== batch) return;
    revision = answer.revision;
    base = applied(base, batch.changes);
    inFlight = null;
    state = 'sending';
    pause = FIRST_PAUSE;
    const last = batch.changes.at(-1)!.seq;
    keep(() => store.acknowledged(last, answer.revision));
    if (keptSince > CHANGES_BETWEEN || charactersSince > CHARACTERS_BETWEEN) beginStore();
    counted();
    void send();
  }

  /** Parts the batch in flight into requests the server takes, and sends the first. */
  async function partAndSend(batch: Batch): Promise<void> {
    const { splitChange } = await import('./split').catch(() => ({ splitChange: null }));
    if (inFlight !== batch || stopped) return;
    inFlight = null;
    if (!splitChange) {
      queue.unshift(batch);
      state = 'away';
      return wait();
    }
    let art = base;
    const parts = batch.changes.flatMap(({ change }) => {
      const before = art;
      art = applyPatches(art, change.patches);
      return splitChange(change, before);
    });
    const later = queue;
    queue = parts.map((part) => batchOf(newId(), [{ seq: 0, batch: '', change: part }]));
    // Numbered anew, so that what the server has of it can be told from what it has not.
    for (const held of [...queue, ...later])
      held.changes.splice(
        0,
        Infinity,
        ...held.changes.map((kept) => ({ ...kept, batch: held.id, seq: ++seq })),
      );
    queue.push(...later);
    beginStore();
    counted();
    return send();
  }

  function enqueue(change: MadeChange): KeptChange {
    const characters = JSON.stringify(change).length;
    // What has not left yet travels together; the batch in flight keeps its contents and its name.
    let batch = queue.at(-1);
    const full =
      batch &&
      (batch.changes.length >= MOST_TOGETHER ||
        batch.patches + change.patches.length > MOST_PATCHES_TOGETHER ||
        batch.characters + characters > MOST_CHARACTERS_TOGETHER);
    if (!batch || batch.sent || full) queue.push((batch = batchOf(newId())));
    const kept = { seq: ++seq, batch: batch.id, change };
    batch.changes.push(kept);
    batch.patches += change.patches.length;
    batch.characters += characters;
    keptSince++;
    charactersSince += characters;
    return kept;
  }

  const beginStoreOnce = (): void => {
    if (!begun) beginStore();
  };

  const saving: Saving = {
    get state() {
      return state;
    },
    get revision() {
      return revision;
    },
    get waiting() {
      return waiting;
    },
    get storeFails() {
      return storeFails;
    },
    push(change, art) {
      beginStoreOnce();
      const kept = enqueue(change);
      keep(() => store.added(kept));
      latest = art;
      if (state === 'kept') state = 'sending';
      counted();
      // Not now: a pause is kept, and what is in flight comes first.
      if (state === 'sending') queueMicrotask(() => void send());
    },
    async takeOver() {
      const [theirs, mergeArt] = await Promise.all([getArt(projectId), fetchMerge()]);
      if (stopped) return;
      // What was changed while that was fetched is in `latest`: nothing is awaited from here on.
      const { art, conflicts } = mergeArt(base, latest, theirs.art);
      goOnFrom(theirs, art, 'Take over');
      replaced(art, { why: 'taken-over', conflicts });
      void send();
    },
    async refresh() {
      if (inFlight || queue.length > 0 || stopped) return;
      const theirs = await getArt(projectId).catch((error: unknown) => {
        if (error instanceof ServerError && error.status === OUTDATED) state = 'outdated';
        return null;
      });
      // Steps made before are merged into what the others drew when they are taken back.
      if (theirs && theirs.revision > revision && !(await fetchMerge().catch(() => null))) return;
      if (!theirs || theirs.revision <= revision || inFlight || queue.length > 0 || stopped) return;
      revision = theirs.revision;
      base = latest = theirs.art;
      beginStore();
      replaced(theirs.art, { why: 'refreshed', conflicts: [] });
    },
    async settled(within) {
      for (let waited = 0; state !== 'kept' && waited < within; waited += 50)
        await new Promise((done) => setTimeout(done, 50));
      return state === 'kept';
    },
    retry() {
      pause = FIRST_PAUSE;
      void send();
    },
    flush() {
      const batch = queue[0];
      if (!batch || inFlight || stopped || state === 'conflict') return;
      const changes = batch.changes.map((c) => c.change);
      if (JSON.stringify(changes).length > MOST_LAST_BYTES) return;
      batch.sent = true;
      // The page may be gone before the answer; under its name it is carried out once, should it be sent again.
      void sendChanges(projectId, revision, changes, batch.id, true).catch(() => {});
    },
    stored() {
      beginStoreOnce();
      return storing;
    },
    async leave(within) {
      // Away, or where someone has to decide, waiting helps nothing: it is in the store.
      for (let waited = 0; state === 'sending' && waited < within; waited += 50)
        await new Promise((done) => setTimeout(done, 50));
      const all = state === 'kept';
      await saving.stored();
      saving.stop();
      return all;
    },
    stop() {
      stopped = true;
      if (timer) clearTimeout(timer);
    },
  };

  // Writing a large drawing takes the page a while: with nothing left unsent it may be drawn first.
  if (pending.length > 0 || !('requestIdleCallback' in globalThis)) beginStore();
  else requestIdleCallback(beginStoreOnce, { timeout: BEGUN_WITHIN_MS });
  if (queue.length > 0) queueMicrotask(() => void send());
  return saving;
}
