import type { Art, Patch } from '@mirrot/core';
import type { MadeChange } from './changes';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A batch of changes the server has not acknowledged, with the document and revision they build on. */
export interface UnsentBatch {
  readonly id: string;
  readonly changes: readonly MadeChange[];
}

export interface Unsent {
  readonly revision: number;
  readonly art: Art;
  readonly batches: readonly UnsentBatch[];
}

/** Where changes are kept in the browser until the server has them. */
export interface UnsentStore {
  added(
    projectId: string,
    batch: string,
    changes: readonly MadeChange[],
    revision: number,
    base: Art,
  ): Promise<void>;
  acknowledged(projectId: string, batch: string, revision: number, base: Art): Promise<void>;
  clear(projectId: string): Promise<void>;
}

interface Schema extends DBSchema {
  bases: { key: string; value: { key: string; project: string; tab: string; revision: number; art: Art } };
  batches: {
    key: string;
    value: { id: string; owner: string; order: number; changes: readonly (MadeChange | readonly Patch[])[] };
    indexes: { owner: string };
  };
}

const open = (): Promise<IDBPDatabase<Schema>> =>
  openDB<Schema>('mirrot', 1, {
    upgrade(db) {
      db.createObjectStore('bases', { keyPath: 'key' });
      db.createObjectStore('batches', { keyPath: 'id' }).createIndex('owner', 'owner');
    },
  });

/** Keeps what `tab` has not sent. Every record names its tab, so that tabs do not send for each other. */
export function createUnsentStore(tab: string): UnsentStore {
  const db = open();
  const keyOf = (project: string): string => `${project} ${tab}`;
  let order = Date.now();
  const orders = new Map<string, number>();
  return {
    async added(project, id, changes, revision, base) {
      if (!orders.has(id)) orders.set(id, order++);
      const tx = (await db).transaction(['bases', 'batches'], 'readwrite', { durability: 'strict' });
      const owner = keyOf(project);
      if ((await tx.objectStore('bases').count(owner)) === 0)
        await tx.objectStore('bases').put({ key: owner, project, tab, revision, art: base });
      // JSON through and through: patches may hold proxies of the page's state, which cannot be cloned.
      const plain = JSON.parse(JSON.stringify(changes)) as MadeChange[];
      await tx.objectStore('batches').put({ id, owner, order: orders.get(id)!, changes: plain });
      await tx.done;
    },
    async acknowledged(project, id, revision, base) {
      orders.delete(id);
      const tx = (await db).transaction(['bases', 'batches'], 'readwrite');
      const owner = keyOf(project);
      await tx.objectStore('batches').delete(id);
      if ((await tx.objectStore('batches').index('owner').count(owner)) === 0)
        await tx.objectStore('bases').delete(owner);
      else await tx.objectStore('bases').put({ key: owner, project, tab, revision, art: base });
      await tx.done;
    },
    async clear(project) {
      await clearOwner(await db, keyOf(project));
    },
  };
}

async function clearOwner(db: IDBPDatabase<Schema>, owner: string): Promise<void> {
  const tx = db.transaction(['bases', 'batches'], 'readwrite');
  for (const id of await tx.objectStore('batches').index('owner').getAllKeys(owner))
    await tx.objectStore('batches').delete(id);
  await tx.objectStore('bases').delete(owner);
  await tx.done;
}

/** Changes kept by an earlier version of the page said nothing of the history. */
const noted = ({ id, changes }: Schema['batches']['value']): UnsentBatch => ({
  id,
  changes: changes.map((c) => ('patches' in c ? c : { patches: c, note: null })),
});

const lockName = (tab: string): string => `mirrot-tab-${tab}`;

/** Holds a lock for as long as the page lives, so that others know its unsent changes have someone to send them. */
export const announceTab = (tab: string): void => {
  void navigator.locks?.request(lockName(tab), () => new Promise(() => {}));
};

/** Takes over what closed tabs left unsent of a project, oldest first. It is gone from the store afterwards. */
export async function takeLeftBehind(project: string): Promise<Unsent[]> {
  const db = await open();
  const alive = new Set((await navigator.locks?.query())?.held?.map((l) => l.name));
  const found: (Unsent & { order: number })[] = [];
  for (const base of await db.getAll('bases')) {
    if (base.project !== project || alive.has(lockName(base.tab))) continue;
    const batches = (await db.getAllFromIndex('batches', 'owner', base.key)).sort(
      (a, b) => a.order - b.order,
    );
    if (batches.length > 0)
      found.push({
        revision: base.revision,
        art: base.art,
        batches: batches.map(noted),
        order: batches[0]!.order,
      });
  }
  return found.sort((a, b) => a.order - b.order);
}

/** Forgets what closed tabs left of a project, once it has been brought into this page. */
export async function forgetLeftBehind(project: string): Promise<void> {
  const db = await open();
  const alive = new Set((await navigator.locks?.query())?.held?.map((l) => l.name));
  for (const base of await db.getAll('bases'))
    if (base.project === project && !alive.has(lockName(base.tab))) await clearOwner(db, base.key);
}
