// Long because all that touches the browser's store stands together, with the forms it had in earlier versions.

import { ART_VERSION, applyPatches, migrateArt, type Art } from '@mirrot/core';
import type { ProjectAnswer } from '$lib/wire';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { MadeChange } from './changes';

// What the browser keeps of projects, so that nothing is lost when the page closes or the server is away. A visit is one
// opening of a project in one page. Kept are the drawing as the server had it when the visit began, once, and every
// change since, each by itself: a change costs what it changes. The drawing is kept anew when many have gathered.

/** A change in the order it was made, with the name of the request it travels in. */
export interface KeptChange {
  readonly seq: number;
  readonly batch: string;
  readonly change: MadeChange;
}

/** What a visit that has ended left unsent: the drawing the server had, and the changes on it, oldest first. */
export interface LeftBehind {
  readonly visit: string;
  readonly revision: number;
  readonly art: Art;
  readonly changes: readonly KeptChange[];
}

/** A change that the server did not take, with why, and the drawing before and after it. */
export interface SetAside {
  readonly id: string;
  readonly project: string;
  /** ISO 8601. */
  readonly at: string;
  readonly label: string;
  readonly reason: string;
  readonly version: number;
  readonly changes: readonly MadeChange[];
  readonly before: Art;
  readonly after: Art;
}

/** Where one visit keeps its changes until the server has them. Every function may fail: the browser decides. */
export interface ChangeStore {
  /** Keeps the drawing as the server has it; what was kept before it goes. `unsent` is what it has not. */
  begin(revision: number, art: Art, unsent: readonly KeptChange[]): Promise<void>;
  added(change: KeptChange): Promise<void>;
  /** The server has everything up to a change and is at a revision. */
  acknowledged(seq: number, revision: number): Promise<void>;
  setAside(aside: SetAside): Promise<void>;
}

interface VisitRecord {
  visit: string;
  project: string;
  answer: ProjectAnswer | null;
  /** Version of the document that the drawing and the patches fit. */
  version: number;
  art: Art;
  /** Revision of `art`. */
  revision: number;
  /** Milliseconds since 1970. */
  at: number;
}

interface ChangeRecord extends KeptChange {
  visit: string;
}

/** How far the server is with a visit's changes: it has those up to one, and is at a revision. */
interface ProgressRecord {
  visit: string;
  acknowledged: number;
  revision: number;
}

/** What versions of the page before this one kept. */
interface OldBase {
  key: string;
  project: string;
  tab: string;
  revision: number;
  art: Art;
}
interface OldBatch {
  id: string;
  owner: string;
  order: number;
  changes: readonly (MadeChange | MadeChange['patches'])[];
}

interface Schema extends DBSchema {
  visits: { key: string; value: VisitRecord; indexes: { project: string } };
  changes: { key: [string, number]; value: ChangeRecord };
  progress: { key: string; value: ProgressRecord };
  aside: { key: string; value: SetAside; indexes: { project: string } };
}

type Store = IDBPDatabase<Schema>;

let opened: Promise<Store> | null = null;
function open(): Promise<Store> {
  opened ??= openStore();
  opened.catch(() => (opened = null));
  return opened;
}

/** Opens the store; fails at once where a page of an older build holds it and will not let go. */
const openStore = (): Promise<Store> =>
  new Promise((resolve, reject) => {
    openNewest(() => reject(new Error('An older page holds the store.'))).then(resolve, reject);
  });

const openNewest = (blocked: () => void): Promise<Store> =>
  openDB<Schema>('mirrot', 2, {
    blocked,
    async upgrade(db, from, _to, tx) {
      const visits = db.createObjectStore('visits', { keyPath: 'visit' });
      visits.createIndex('project', 'project');
      const changes = db.createObjectStore('changes', { keyPath: ['visit', 'seq'] });
      db.createObjectStore('progress', { keyPath: 'visit' });
      db.createObjectStore('aside', { keyPath: 'id' }).createIndex('project', 'project');
      if (from !== 1) return;
      const old = tx as unknown as {
        objectStore(name: 'bases' | 'batches'): { getAll(): Promise<unknown[]> };
      };
      const bases = (await old.objectStore('bases').getAll()) as OldBase[];
      const batches = (await old.objectStore('batches').getAll()) as OldBatch[];
      for (const { key, project, tab, revision, art } of bases) {
        const visit = `${tab} ${project}`;
        await visits.put({
          visit,
          project,
          answer: null,
          version: art.version,
          art,
          revision,
          at: Date.now(),
        });
        let seq = 1;
        for (const batch of batches.filter((b) => b.owner === key).sort((a, b) => a.order - b.order))
          for (const made of batch.changes)
            await changes.put({
              visit,
              seq: seq++,
              batch: batch.id,
              change: 'patches' in made ? made : { patches: made, note: null },
            });
      }
      const raw = db as unknown as { deleteObjectStore(name: string): void };
      raw.deleteObjectStore('bases');
      raw.deleteObjectStore('batches');
    },
    blocking() {
      // A newer page wants to bring the store up to date.
      void opened?.then((db) => db.close()).catch(() => {});
      opened = null;
    },
  });

const changesOf = (visit: string): IDBKeyRange => IDBKeyRange.bound([visit, 0], [visit, Infinity]);

/** JSON through and through: patches may hold proxies of the page's state, which cannot be cloned. */
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** The store of one visit to a project. */
export function createChangeStore(visit: string, project: ProjectAnswer): ChangeStore {
  return {
    async begin(revision, art, unsent) {
      const tx = (await open()).transaction(['visits', 'changes', 'progress'], 'readwrite', {
        durability: 'strict',
      });
      await tx.objectStore('changes').delete(changesOf(visit));
      await tx.objectStore('progress').delete(visit);
      await tx.objectStore('visits').put({
        visit,
        project: project.id,
        answer: project,
        version: ART_VERSION,
        art,
        revision,
        at: Date.now(),
      });
      for (const one of unsent) await tx.objectStore('changes').put({ visit, ...plain(one) });
      await tx.done;
    },
    async added(change) {
      const tx = (await open()).transaction('changes', 'readwrite', { durability: 'strict' });
      await tx.store.put({ visit, ...plain(change) });
      await tx.done;
    },
    async acknowledged(acknowledged, revision) {
      await (await open()).put('progress', { visit, acknowledged, revision });
    },
    async setAside(aside) {
      await (await open()).put('aside', plain(aside));
    },
  };
}

const lockName = (visit: string): string => `mirrot-visit-${visit}`;
/** Visits that this page holds, where the browser has no locks. */
const ownVisits = new Set<string>();

/** Says that a visit goes on, so that others leave its changes alone, until the function returned is called. */
export function announceVisit(visit: string): () => void {
  ownVisits.add(visit);
  let release = (): void => {};
  const over = new Promise<void>((done) => (release = done));
  void navigator.locks?.request(lockName(visit), () => over).catch(() => {});
  return () => {
    ownVisits.delete(visit);
    release();
  };
}

async function visitsGoingOn(): Promise<(visit: string) => boolean> {
  // Not there on a page that is not secure (another machine's, without TLS): then only this page's visits are known.
  if (!navigator.locks) return (visit) => ownVisits.has(visit);
  const held = new Set((await navigator.locks.query()).held?.map((l) => l.name));
  return (visit) => held.has(lockName(visit));
}

interface KeptVisit extends LeftBehind {
  readonly answer: ProjectAnswer | null;
  readonly at: number;
}

/** A visit as it stands: the drawing the server has, and what it has not. Of an older version, brought up to this one. */
async function visitOf(db: Store, record: VisitRecord): Promise<KeptVisit> {
  const rows = await db.getAll('changes', changesOf(record.visit));
  const progress = await db.get('progress', record.visit);
  const acknowledged = progress?.acknowledged ?? 0;
  const done = rows.filter((r) => r.seq <= acknowledged);
  const left = rows.filter((r) => r.seq > acknowledged);
  const bring = (art: Art, changes: readonly KeptChange[]): Art =>
    changes.reduce((a, { change }) => applyPatches(a, change.patches), art);
  let art = bring(record.art, done);
  let changes: readonly KeptChange[] = left.map(({ seq, batch, change }) => ({ seq, batch, change }));
  if (record.version !== ART_VERSION && changes.length > 0) {
    // Patches of an older version do not fit this one: what they made of the drawing is one change.
    const value = migrateArt(bring(art, changes)) as Art;
    const patches = Object.entries(value).flatMap(([key, part]) =>
      key === 'version' ? [] : [{ op: 'replace' as const, path: `/${key}`, value: part as unknown }],
    );
    changes = [{ seq: left[0]!.seq, batch: left[0]!.batch, change: { patches, note: null } }];
  }
  art = migrateArt(art) as Art;
  const { visit, answer, at } = record;
  return { visit, answer, at, revision: progress?.revision ?? record.revision, art, changes };
}

/** What visits that have ended left unsent of a project, oldest first. */
export async function leftBehind(project: string): Promise<LeftBehind[]> {
  const db = await open();
  const goesOn = await visitsGoingOn();
  const records = (await db.getAllFromIndex('visits', 'project', project)).filter((r) => !goesOn(r.visit));
  const found = await Promise.all(records.sort((a, b) => a.at - b.at).map((r) => visitOf(db, r)));
  return found.filter(({ changes }) => changes.length > 0);
}

/** A project as it was last seen here, for when the server is away; null when it never was. */
export async function lastSeen(project: string): Promise<(LeftBehind & { answer: ProjectAnswer }) | null> {
  const db = await open();
  const goesOn = await visitsGoingOn();
  const records = await db.getAllFromIndex('visits', 'project', project);
  const visits = await Promise.all(records.map((r) => visitOf(db, r)));
  // One that goes on in another page keeps what it has not sent to itself.
  const known = visits.map((v) => (goesOn(v.visit) ? { ...v, changes: [] } : v)).filter((v) => v.answer);
  const newest = known.sort((a, b) => b.revision - a.revision || b.changes.length - a.changes.length)[0];
  return newest ? { ...newest, answer: newest.answer! } : null;
}

/** Projects kept for when the server is away. */
const PROJECTS_KEPT = 8;

/** Forgets visits whose changes are in hand now, and of visits with nothing unsent all but the newest of each project. */
export async function forgetVisits(taken: readonly string[]): Promise<void> {
  const db = await open();
  const goesOn = await visitsGoingOn();
  const kept: KeptVisit[] = [];
  const projects = new Map<string, number>();
  const gone: string[] = [];
  for (const record of await db.getAll('visits')) {
    if (goesOn(record.visit)) {
      projects.set(record.project, Infinity);
      continue;
    }
    if (taken.includes(record.visit)) {
      gone.push(record.visit);
      continue;
    }
    const visit = await visitOf(db, record);
    if (visit.changes.length > 0) continue;
    kept.push(visit);
    projects.set(record.project, Math.max(projects.get(record.project) ?? 0, record.at));
  }
  const lately = new Set(
    [...projects].sort((a, b) => b[1] - a[1]).slice(0, PROJECTS_KEPT).map(([id]) => id), // prettier-ignore
  );
  for (const visit of kept) {
    const project = visit.answer?.id;
    if (!project || !lately.has(project) || projects.get(project) !== visit.at) gone.push(visit.visit);
  }
  for (const visit of gone) {
    const tx = db.transaction(['visits', 'changes', 'progress'], 'readwrite');
    await tx.objectStore('changes').delete(changesOf(visit));
    await tx.objectStore('progress').delete(visit);
    await tx.objectStore('visits').delete(visit);
    await tx.done;
  }
}

/** Changes of a project that the server did not take, oldest first. */
export async function listSetAside(project: string): Promise<SetAside[]> {
  return (await (await open()).getAllFromIndex('aside', 'project', project)).sort((a, b) =>
    a.at.localeCompare(b.at),
  );
}

export async function forgetSetAside(id: string): Promise<void> {
  await (await open()).delete('aside', id);
}
