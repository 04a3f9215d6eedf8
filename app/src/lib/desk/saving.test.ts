import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import {
  addChip,
  addNode,
  ART_VERSION,
  changeArt,
  setNode,
  together,
  type Art,
  type Recipe,
} from '@mirrot/core';
import { shapeWith, square } from '$lib/bed/testing';
import { NOTHING_CHOSEN } from './choice';
import { createSaving, type Replacement, type Saving } from './saving.svelte';
import { FakeServer, memoryStore, type MemoryStore } from './testing';

let server: FakeServer;
let store: MemoryStore;
let art: Art;
let saving: Saving;
let replacements: Replacement[];
const push = (recipe: Recipe, label = 'Draw'): void => {
  const change = changeArt(art, recipe);
  art = change.art;
  const looked = { choice: NOTHING_CHOSEN, live: null };
  saving.push({ patches: change.patches, note: { did: 'step', label, inverse: change.inverse, before: looked, after: looked } }, art); // prettier-ignore
};
const draw = (id: string): void => push(addChip({ id, name: '', hex: '#112233' }), `Draw ${id}`);
const chips = (): string[] => server.art.chips.map((c) => c.id);
const open = (pending: Parameters<typeof createSaving>[0]['pending'] = []): Saving =>
  createSaving({
    projectId: 'p',
    acknowledged: server.art,
    revision: server.revision,
    store,
    pending,
    replaced: (now, replacement) => {
      art = now;
      replacements.push(replacement);
    },
  });

beforeEach(() => {
  vi.useFakeTimers();
  server = new FakeServer();
  store = memoryStore();
  art = server.art;
  replacements = [];
  vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => server.answer(url, init));
  saving = open();
});
afterEach(() => {
  saving.stop();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const settle = (time = 50): Promise<unknown> => vi.advanceTimersByTimeAsync(time);

// What parts large changes is fetched when it is wanted; with the clock in hand nothing else would fetch it in time.
beforeAll(() => import('./split'));

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
    expect(store.unsent.size).toBe(0);
  });

  it('keeps the whole drawing in the browser once, not with every change', async () => {
    for (let k = 0; k < 200; k++) {
      draw(`c${k}`);
      await settle(10);
    }
    expect(store.begun).toBe(1);
    for (let k = 200; k < 2400; k++) {
      push(setNode('layer', { name: `Layer ${k}` }));
      await settle(1);
    }
    expect(store.begun).toBe(2);
  });

  it('goes on while the server is away, keeps changes in the browser, and sends them when it is back', async () => {
    server.down = true;
    draw('a');
    await settle();
    draw('b');
    await settle();
    expect(saving).toMatchObject({ state: 'away', waiting: 2 });
    expect(store.unsent.size).toBe(2);
    server.down = false;
    await settle(5000);
    expect(chips()).toEqual(['a', 'b']);
    expect(saving.state).toBe('kept');
  });

  it('tries again after growing pauses up to a minute, and at once when told that the network is back', async () => {
    server.down = true;
    draw('a');
    await settle(10 * 60_000);
    // 1, 2, 4, 8, 16, 32 seconds, then a minute each; a quarter more or less.
    expect(server.asked).toBeGreaterThan(12);
    expect(server.asked).toBeLessThan(22);
    server.down = false;
    saving.retry();
    await settle(1);
    expect(saving.state).toBe('kept');
  });

  it.each([502, 503, 504, 507, 429])(
    'waits where the server says %i, and sets nothing aside',
    async (status) => {
      server.status = status;
      draw('a');
      await settle(60_000);
      expect(saving.state).toBe(status === 507 ? 'full' : 'away');
      server.status = null;
      await settle(80_000);
      expect(saving.state).toBe('kept');
      expect(chips()).toEqual(['a']);
      expect(replacements).toEqual([]);
    },
  );

  it('carries a change out once when only its answer was lost', async () => {
    server.loseAnswer = true;
    draw('a');
    await settle(5000);
    expect(server.batches).toHaveLength(2);
    expect(server.batches[0]).toBe(server.batches[1]);
    expect(chips()).toEqual(['a']);
    expect(saving.state).toBe('kept');
  });

  it('goes on where the browser’s store fails, and says so for as long as it does', async () => {
    store.fails = true;
    draw('a');
    await settle();
    draw('b');
    await settle();
    expect(chips()).toEqual(['a', 'b']);
    expect(saving).toMatchObject({ state: 'kept', waiting: 0, storeFails: true });
    expect(server.batches).toHaveLength(2);
    store.fails = false;
    draw('c');
    await settle();
    expect(saving.storeFails).toBe(false);
  });

  it('stops at another page’s changes, and brings both together when told to', async () => {
    server.change(changeArt(server.art, addChip({ id: 'theirs', name: '', hex: '#445566' })).patches);
    draw('mine');
    await settle();
    expect(saving.state).toBe('conflict');
    draw('more');
    await settle();
    expect(chips()).toEqual(['theirs']);
    await saving.takeOver();
    await settle();
    expect(chips().sort()).toEqual(['mine', 'more', 'theirs']);
    expect(art).toEqual(server.art);
    expect(saving.state).toBe('kept');
    expect(store.unsent.size).toBe(0);
    expect(replacements).toEqual([{ why: 'taken-over', conflicts: [] }]);
  });

  it('keeps a change that is made while it takes over', async () => {
    server.change(changeArt(server.art, addChip({ id: 'theirs', name: '', hex: '#445566' })).patches);
    draw('mine');
    await settle();
    server.meanwhile = () => draw('late');
    await saving.takeOver();
    server.meanwhile = () => {};
    await settle();
    expect(chips().sort()).toEqual(['late', 'mine', 'theirs']);
    expect(art).toEqual(server.art);
  });

  it('sets a change aside that the server does not take, with why, and goes on with the rest', async () => {
    server.refuses = '"bad"';
    draw('a');
    draw('bad');
    draw('c');
    push(setNode('layer', { name: 'Later' }));
    await settle(3000);
    expect(chips()).toEqual(['a', 'c']);
    expect(art).toEqual(server.art);
    expect(saving).toMatchObject({ state: 'kept', waiting: 0 });
    expect(store.asides).toMatchObject([{ label: 'Draw bad', reason: 'Too large.', project: 'p' }]);
    expect(replacements).toMatchObject([{ why: 'set-aside' }]);
    draw('d');
    await settle();
    expect(chips()).toEqual(['a', 'c', 'd']);
  });

  it('tries what the server cannot carry out three times, then sets it aside', async () => {
    server.status = 500;
    draw('a');
    await settle(60_000);
    expect(server.batches).toHaveLength(3);
    expect(store.asides).toHaveLength(1);
    expect(saving).toMatchObject({ state: 'kept', waiting: 0 });
    server.status = null;
    draw('b');
    await settle();
    expect(chips()).toEqual(['b']);
  });

  it('keeps everything where it has to sign in, and goes on then', async () => {
    server.status = 401;
    draw('a');
    await settle();
    expect(saving).toMatchObject({ state: 'signed-out', waiting: 1 });
    server.status = null;
    saving.retry();
    await settle();
    expect(chips()).toEqual(['a']);
  });

  it('keeps everything and sets nothing aside where the server has documents of a newer version than the page', async () => {
    draw('a');
    await settle();
    server.version = ART_VERSION + 1;
    draw('b');
    await settle();
    expect(saving).toMatchObject({ state: 'outdated', waiting: 1 });
    // It would be refused again: it is not tried, and what is drawn on is kept too.
    const { asked } = server;
    draw('c');
    saving.retry();
    await settle(70_000);
    expect(server.asked).toBe(asked);
    expect(store.unsent.size).toBe(2);
    expect(replacements).toEqual([]);
    expect(chips()).toEqual(['a']);
  });

  it('takes no drawing in that it cannot read', async () => {
    draw('a');
    await settle();
    server.change(changeArt(server.art, addChip({ id: 'theirs', name: '', hex: '#445566' })).patches);
    server.version = ART_VERSION + 1;
    await saving.refresh();
    expect(saving.state).toBe('outdated');
    expect(replacements).toEqual([]);
    await expect(saving.takeOver()).rejects.toThrow(/older than the server/);
  });

  it('looks for newer drawings only while nothing waits here', async () => {
    await saving.refresh();
    expect(replacements).toEqual([]);
    server.change(changeArt(server.art, addChip({ id: 'theirs', name: '', hex: '#445566' })).patches);
    await saving.refresh();
    expect(replacements).toEqual([{ why: 'refreshed', conflicts: [] }]);
    expect(art.chips).toHaveLength(1);
    server.down = true;
    draw('a');
    await settle();
    server.down = false;
    server.revision++;
    await saving.refresh();
    expect(replacements).toHaveLength(1);
  });

  it('sends what an earlier page left', async () => {
    saving.stop();
    const change = changeArt(server.art, addChip({ id: 'left', name: '', hex: '#112233' }));
    saving = open([{ seq: 4, batch: 'old', change: { patches: change.patches, note: null } }]);
    expect(saving.state).toBe('sending');
    await settle();
    expect(chips()).toEqual(['left']);
    expect(await saving.settled(100)).toBe(true);
  });

  it('sends what is left when the page closes, and when the project is left', async () => {
    const sent = vi.fn(async (url: string, init?: RequestInit) => server.answer(url, init));
    vi.stubGlobal('fetch', sent);
    draw('a');
    saving.flush();
    expect(sent.mock.calls[0]![1]).toMatchObject({ keepalive: true });
    await settle();
    expect(chips()).toEqual(['a']);
    draw('b');
    const left = saving.leave(1000);
    await settle(200);
    expect(await left).toBe(true);
    expect(chips()).toEqual(['a', 'b']);
  });

  it('parts a change that is too large for one request; it stays one step', async () => {
    const many = Array.from({ length: 400 }, (_, i) =>
      shapeWith(
        `s${i}`,
        [0, 20, 40].map((y) => square(`p${i}-${y}`, i, y, 10)),
      ),
    );
    for (const shape of many) push(addNode('layer', shape));
    await settle(500);
    server.notes = [];
    push((draft) => {
      for (const node of draft.layers[0]!.children)
        if (node.type === 'shape') for (const path of node.paths) for (const a of path.anchors) a.x += 1;
    }, 'Move all');
    await settle(500);
    expect(saving.state).toBe('kept');
    expect(server.art).toEqual(art);
    expect(server.notes.map((n) => (n as { did: string }).did)).toEqual(['step', 'more']);
    push(setNode('layer', { name: 'x'.repeat(400) }));
    push((draft) => {
      draft.layers[0]!.children = draft.layers[0]!.children.map((c) => ({ ...c, name: 'n'.repeat(500), id: `${c.id}n`, paths: (c as never as { paths: { id: string }[] }).paths.map((p) => ({ ...p, id: `${p.id}n` })) })) as never; // prettier-ignore
    });
    await settle(3000);
    expect(saving.state).toBe('kept');
    expect(server.art).toEqual(art);
  });

  it('keeps in the browser just the parts of a large change that the server has not, should it fall in the middle', async () => {
    const many = Array.from({ length: 1500 }, (_, i) => shapeWith(`s${i}`, [square(`p${i}`, i, 0, 10)]));
    let taken = 0;
    vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => {
      server.down = ++taken > 1;
      return server.answer(url, init);
    });
    push(together(...many.map((shape) => addNode('layer', shape))), 'Add many');
    draw('after');
    await settle(500);
    expect(saving).toMatchObject({ state: 'away', waiting: 2 });
    expect(server.art.layers[0]!.children).toHaveLength(1000);
    const left = [...store.unsent.values()].sort((a, b) => a.seq - b.seq);
    expect(left.map(({ change }) => change.patches.length)).toEqual([500, 1]);
    saving.stop();
    server.down = false;
    vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => server.answer(url, init));
    saving = open(left);
    await settle();
    expect(saving.state).toBe('kept');
    expect(server.art).toEqual(art);
  });
});
