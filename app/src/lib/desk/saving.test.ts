import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { addChip, applyForeignPatches, changeArt, emptyArt, type Art, type Patch } from '@mirrot/core';
import { createSaving, type Saving } from './saving.svelte';
import type { UnsentStore } from './unsent';

/** A server that does as the real one: one document, revisions, batches carried out once. */
class Server {
  art: Art = emptyArt({ width: 100, height: 100, unit: 'px' }, 'layer');
  revision = 3;
  down = false;
  loseAnswer = false;
  refuse = false;
  batches: string[] = [];
  #done = new Map<string, number>();
  answer(url: string, init?: RequestInit): Response {
    if (this.down) throw new TypeError('Failed to fetch');
    if (url.endsWith('/art')) return Response.json({ revision: this.revision, art: this.art });
    const { base, changes, batch } = JSON.parse(String(init!.body)) as {
      base: number;
      changes: Patch[][];
      batch: string;
    };
    this.batches.push(batch);
    if (this.refuse) return Response.json({ error: { code: 'art', message: 'Too large.' } }, { status: 422 });
    const done = this.#done.get(batch);
    if (done === undefined && base !== this.revision)
      return Response.json(
        { error: { code: 'old-revision', message: 'Changed.', revision: this.revision } },
        { status: 409 },
      );
    if (done === undefined) {
      this.art = applyForeignPatches(this.art, changes.flat());
      this.revision += changes.length;
      this.#done.set(batch, this.revision);
    }
    if (this.loseAnswer) {
      this.loseAnswer = false;
      throw new TypeError('Failed to fetch');
    }
    return Response.json({ revision: done ?? this.revision });
  }
}

function memory(): UnsentStore & { readonly kept: Map<string, number> } {
  const kept = new Map<string, number>();
  return {
    kept,
    added: async (_project, batch, changes) => void kept.set(batch, changes.length),
    acknowledged: async (_project, batch) => void kept.delete(batch),
    clear: async () => kept.clear(),
  };
}

let server: Server;
let store: ReturnType<typeof memory>;
let art: Art;
let saving: Saving;
const draw = (id: string): void => {
  const change = changeArt(art, addChip({ id, name: '', hex: '#112233' }));
  art = change.art;
  saving.push({ patches: change.patches, note: null }, art);
};
const chips = (): string[] => server.art.chips.map((c) => c.id);

beforeEach(() => {
  vi.useFakeTimers();
  server = new Server();
  store = memory();
  art = server.art;
  vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => server.answer(url, init));
  saving = createSaving('p', art, server.revision, store);
});
afterEach(() => {
  saving.stop();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const settle = (): Promise<unknown> => vi.advanceTimersByTimeAsync(50);

describe('saving', () => {
  it('sends changes in order, and says kept only when the server has them', async () => {
    expect(saving.state).toBe('kept');
    draw('a');
    draw('b');
    expect(saving.state).toBe('sending');
    expect(saving.waiting).toBe(2);
    await settle();
    draw('c');
    await settle();
    expect(chips()).toEqual(['a', 'b', 'c']);
    expect(saving).toMatchObject({ state: 'kept', waiting: 0 });
    expect(server.batches).toHaveLength(2);
    expect(store.kept.size).toBe(0);
  });

  it('goes on while the server is away, keeps changes in the browser, and sends them when it is back', async () => {
    server.down = true;
    draw('a');
    await settle();
    draw('b');
    await settle();
    expect(saving).toMatchObject({ state: 'away', waiting: 2 });
    expect([...store.kept.values()].reduce((s, n) => s + n, 0)).toBe(2);
    server.down = false;
    await vi.advanceTimersByTimeAsync(2500);
    expect(chips()).toEqual(['a', 'b']);
    expect(saving.state).toBe('kept');
  });

  it('carries a change out once when only its answer was lost', async () => {
    server.loseAnswer = true;
    draw('a');
    await vi.advanceTimersByTimeAsync(2500);
    expect(server.batches).toHaveLength(2);
    expect(server.batches[0]).toBe(server.batches[1]);
    expect(chips()).toEqual(['a']);
    expect(saving.state).toBe('kept');
  });

  it('stops at another tab’s changes, and brings both together when told to', async () => {
    server.art = changeArt(server.art, addChip({ id: 'theirs', name: '', hex: '#445566' })).art;
    server.revision++;
    draw('mine');
    await settle();
    expect(saving.state).toBe('conflict');
    draw('more');
    await settle();
    expect(chips()).toEqual(['theirs']);
    art = await saving.takeOver();
    await settle();
    expect(chips().sort()).toEqual(['mine', 'more', 'theirs']);
    expect(saving.state).toBe('kept');
    expect(store.kept.size).toBe(0);
  });

  it('says why the server refused, keeps the change, and can go on from the server’s drawing', async () => {
    server.refuse = true;
    draw('a');
    await settle();
    expect(saving).toMatchObject({ state: 'refused', refusal: 'Too large.' });
    expect(store.kept.size).toBe(1);
    expect((await saving.giveUp()).chips).toEqual([]);
    expect(saving).toMatchObject({ state: 'kept', waiting: 0 });
  });

  it('looks for newer drawings only while nothing waits here', async () => {
    expect(await saving.refresh()).toBeNull();
    server.art = changeArt(server.art, addChip({ id: 'theirs', name: '', hex: '#445566' })).art;
    server.revision++;
    expect((await saving.refresh())!.chips).toHaveLength(1);
    server.down = true;
    draw('a');
    await settle();
    server.down = false;
    server.revision++;
    expect(await saving.refresh()).toBeNull();
  });

  it('sends what an earlier page left', async () => {
    saving.stop();
    const change = changeArt(server.art, addChip({ id: 'left', name: '', hex: '#112233' }));
    saving = createSaving('p', server.art, server.revision, store, [
      { id: 'old', changes: [{ patches: change.patches, note: null }] },
    ]);
    expect(saving.state).toBe('sending');
    await settle();
    expect(chips()).toEqual(['left']);
    expect(await saving.settled(100)).toBe(true);
  });
});
