import { OUTDATED, OUTDATED_TEXT } from '$lib/outdated';
import { ART_VERSION, applyChecked, emptyArt, type Art, type Holdings, type Patch } from '@mirrot/core';
import { changesRequest } from '$lib/wire';
import type { ChangeStore, KeptChange, SetAside } from './kept-changes';

// Shared by tests only: a server that does as the real one, and a store of one visit in memory.

/** One document, revisions, requests carried out once; it can be down, lose answers, refuse. */
export class FakeServer {
  art: Art = emptyArt({ width: 100, height: 100, unit: 'px' }, 'layer');
  revision = 3;
  down = false;
  loseAnswer = false;
  /** The version of its documents. */
  version: number = ART_VERSION;
  /** The status it answers changes with, or null for what is right. */
  status: number | null = null;
  /** Changes that hold this text are refused. */
  refuses: string | null = null;
  batches: string[] = [];
  asked = 0;
  /** Told before a drawing is answered. */
  meanwhile: () => void = () => {};
  notes: unknown[] = [];
  #holdings: Holdings | undefined;
  #done = new Map<string, number>();

  change(patches: readonly Patch[]): void {
    ({ art: this.art, holdings: this.#holdings } = applyChecked(this.art, patches, this.#holdings));
    this.revision++;
  }

  answer(url: string, init?: RequestInit): Response {
    this.asked++;
    if (this.down) throw new TypeError('Failed to fetch');
    if (url.endsWith('/art')) {
      this.meanwhile();
      return Response.json({ revision: this.revision, art: { ...this.art, version: this.version } });
    }
    if (url.endsWith('/journal'))
      return Response.json({ error: { code: 'x', message: 'x' } }, { status: 404 });
    if (!url.endsWith('/changes'))
      return Response.json({ id: 'p', name: 'P', createdAt: '', updatedAt: '', revision: this.revision, sheet: { width: 1, height: 1, unit: 'px' }, shapes: 0, painted: 0, anchors: 0 }); // prettier-ignore
    const { base, version, changes, batch, notes } = changesRequest.parse(JSON.parse(String(init!.body)));
    this.batches.push(batch!);
    const refusal = (status: number, message: string): Response =>
      Response.json({ error: { code: 'x', message, revision: this.revision } }, { status });
    if (version !== this.version) return refusal(OUTDATED, OUTDATED_TEXT);
    if (this.status) return refusal(this.status, 'The server could not do that.');
    if (this.refuses && String(init!.body).includes(this.refuses)) return refusal(422, 'Too large.');
    const done = this.#done.get(batch!);
    if (done === undefined && base !== this.revision) return refusal(409, 'Changed.');
    if (done === undefined) {
      for (const patches of changes) this.change(patches as Patch[]);
      this.notes.push(...(notes ?? []));
      this.#done.set(batch!, this.revision);
    }
    if (this.loseAnswer) {
      this.loseAnswer = false;
      throw new TypeError('Failed to fetch');
    }
    return Response.json({ revision: done ?? this.revision });
  }
}

export interface MemoryStore extends ChangeStore {
  fails: boolean;
  /** Changes kept that the server does not have. */
  readonly unsent: Map<number, KeptChange>;
  readonly asides: SetAside[];
  /** How often a whole drawing was kept. */
  begun: number;
}

export function memoryStore(): MemoryStore {
  const may = (): void => {
    if (store.fails) throw new DOMException('full', 'QuotaExceededError');
  };
  const store: MemoryStore = {
    fails: false,
    unsent: new Map(),
    asides: [],
    begun: 0,
    async begin(_revision, _art, unsent) {
      may();
      store.begun++;
      store.unsent.clear();
      for (const change of unsent) store.unsent.set(change.seq, change);
    },
    async added(change) {
      may();
      store.unsent.set(change.seq, change);
    },
    async acknowledged(seq) {
      may();
      for (const key of store.unsent.keys()) if (key <= seq) store.unsent.delete(key);
    },
    async setAside(aside) {
      may();
      store.asides.push(aside);
    },
  };
  return store;
}
