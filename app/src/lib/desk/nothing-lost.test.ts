import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import {
  addNode,
  changeArt,
  findShape,
  removeNodes,
  seeded,
  setNode,
  setPath,
  shapesOf,
  styleShapes,
  type Art,
  type Recipe,
} from '@mirrot/core';
import { shapeWith, square } from '$lib/bed/testing';
import type { Gesture } from './changes';
import type { openProject } from './opening';
import { FakeServer } from './testing';
import type { Workplace } from './workplace.svelte';

// Pages of one browser on one project, with the real store of the browser (fake-indexeddb, an independent implementation
// of the W3C's Indexed Database API), and a server that does as the real one.

let server: FakeServer;
let heldLocks: Map<string, () => void>;

beforeEach(async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'Date'] });
  vi.resetModules();
  vi.stubGlobal('indexedDB', new IDBFactory());
  server = new FakeServer();
  heldLocks = new Map();
  vi.stubGlobal('navigator', {
    locks: {
      request: (name: string, work: () => Promise<void>) => {
        heldLocks.set(name, () => {});
        return work().then(() => void heldLocks.delete(name));
      },
      query: async () => ({ held: [...heldLocks.keys()].map((name) => ({ name })) }),
    },
  });
  vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => server.answer(url, init));
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** Lets everything that waits for nothing but its turn, and for so many milliseconds, happen. */
async function pass(time = 20): Promise<void> {
  for (let k = 0; k < 4; k++) {
    await vi.advanceTimersByTimeAsync(time / 4);
    for (let i = 0; i < 12; i++) await new Promise((done) => setImmediate(done));
  }
}

interface PageOf {
  readonly open: (id: string) => Promise<Workplace>;
  workplace: Workplace;
  gesture: Gesture | null;
  locks: string[];
}

/** A page is a world of modules of its own over the one store. */
async function openPage(): Promise<PageOf> {
  vi.resetModules();
  const { openProject: open } = (await import('./opening')) as { openProject: typeof openProject };
  const before = new Set(heldLocks.keys());
  const opening = open('p');
  await pass();
  const workplace = await opening;
  const page = { open, workplace, gesture: null, locks: [...heldLocks.keys()].filter((l) => !before.has(l)) };
  await pass();
  return page;
}

/** The page is gone at once, as when its process is killed. */
function kill(page: PageOf): void {
  page.workplace.saving.stop();
  for (const lock of page.locks) heldLocks.delete(lock);
}

const idsIn = (art: Art): string[] => shapesOf(art).map(({ shape }) => shape.id);
const draw = ({ workplace: { desk } }: PageOf, id: string): boolean => desk.change(`Draw ${id}`, addNode('layer', shapeWith(id, [square(`${id}-p`, 0, 0, 9)]))); // prettier-ignore

/** Brings everything to rest: the server is there, every page has sent what it has, and seen the others'. */
async function comeToRest(pages: readonly PageOf[]): Promise<void> {
  server.down = false;
  server.status = null;
  for (let round = 0; round < 8; round++)
    for (const { workplace: w, gesture } of pages) {
      gesture?.keep();
      w.saving.retry();
      await pass(2000);
      if (w.saving.state === 'conflict') await w.takeOver();
      await pass(2000);
      await w.saving.refresh();
      await pass();
    }
}

describe('a project in one browser', () => {
  it('is there again with what was unsent when the page was killed, once', async () => {
    const page = await openPage();
    draw(page, 'a');
    await pass(100);
    server.down = true;
    draw(page, 'b');
    draw(page, 'c');
    await pass(100);
    kill(page);
    server.down = false;
    const again = await openPage();
    expect(idsIn(again.workplace.desk.art)).toEqual(['a', 'b', 'c']);
    await comeToRest([again]);
    expect(idsIn(server.art)).toEqual(['a', 'b', 'c']);
    again.workplace.desk.undo();
    await pass(100);
    expect(idsIn(server.art)).toEqual(['a', 'b']);
    kill(again);
    const third = await openPage();
    expect(idsIn(third.workplace.desk.art)).toEqual(['a', 'b']);
  });

  it('is there again when it is left and opened at once, in the same page', async () => {
    const page = await openPage();
    server.down = true;
    draw(page, 'a');
    await pass(100);
    page.workplace.leave();
    server.down = false;
    const opening = page.open('p');
    await pass(12_000);
    const again = await opening;
    await pass(3000);
    expect(idsIn(again.desk.art)).toEqual(['a']);
    expect(idsIn(server.art)).toEqual(['a']);
    again.desk.change('Name it', setNode('a', { name: 'Leaf' }));
    await pass(100);
    expect(findShape(server.art, 'a')!.name).toBe('Leaf');
    expect(again.saving.state).toBe('kept');
  });

  it('opens as last seen while the server is away, and sends later what is drawn then', async () => {
    const page = await openPage();
    for (const id of ['a', 'b', 'c']) draw(page, id);
    await pass(100);
    page.workplace.leave();
    await pass(12_000);
    server.down = true;
    const offline = await openPage();
    expect(idsIn(offline.workplace.desk.art)).toEqual(['a', 'b', 'c']);
    expect(offline.workplace.desk.notice?.text).toContain('The server is away');
    draw(offline, 'd');
    await pass(100);
    kill(offline);
    const more = await openPage();
    expect(idsIn(more.workplace.desk.art)).toEqual(['a', 'b', 'c', 'd']);
    draw(more, 'e');
    await comeToRest([more]);
    expect(idsIn(server.art)).toEqual(['a', 'b', 'c', 'd', 'e']);
    vi.resetModules();
    server.down = true;
    vi.stubGlobal('indexedDB', new IDBFactory());
    const { openProject: open } = await import('./opening');
    await expect(Promise.all([open('p'), pass()])).rejects.toThrow('cannot be reached');
  });

  it('brings in what an older page kept in the store’s first form', async () => {
    const { openDB } = await import('idb');
    const db = await openDB('mirrot', 1, {
      upgrade(d) {
        d.createObjectStore('bases', { keyPath: 'key' });
        d.createObjectStore('batches', { keyPath: 'id' }).createIndex('owner', 'owner');
      },
    });
    const change = changeArt(server.art, addNode('layer', shapeWith('old', [square('o', 0, 0, 9)])));
    await db.put('bases', {
      key: 'p tab',
      project: 'p',
      tab: 'tab',
      revision: server.revision,
      art: server.art,
    });
    await db.put('batches', { id: 'b', owner: 'p tab', order: 1, changes: [JSON.parse(JSON.stringify(change.patches))] }); // prettier-ignore
    db.close();
    const page = await openPage();
    await comeToRest([page]);
    expect(idsIn(server.art)).toEqual(['old']);
  });

  it('brings in what was kept by an older version of the document', async () => {
    const page = await openPage();
    server.down = true;
    draw(page, 'a');
    await pass(100);
    kill(page);
    const { openDB } = await import('idb');
    const db = await openDB('mirrot', 2);
    for (const visit of (await db.getAll('visits')) as { version: number; art: { version: number } }[])
      await db.put('visits', { ...visit, version: 4, art: { ...visit.art, version: 4 } });
    db.close();
    server.down = false;
    const again = await openPage();
    await comeToRest([again]);
    expect(idsIn(server.art)).toEqual(['a']);
    expect(again.workplace.desk.art).toEqual(server.art);
  });
});

describe('one gesture over whatever the document is', () => {
  const named = (name: string): Recipe => setNode('a', { name });

  it('keeps what lands while it is open, on the page as on the server', async () => {
    const page = await openPage();
    const { desk } = page.workplace;
    draw(page, 'a');
    const gesture = desk.gesture('Rename');
    gesture.show(named('One'));
    // An upload ends, a slider somewhere is let go, another key is pressed.
    draw(page, 'b');
    expect(findShape(desk.art, 'a')!.name).toBe('One');
    gesture.show(named('Two'));
    expect(idsIn(desk.art)).toEqual(['a', 'b']);
    await pass(100);
    // Another page's change, seen when the window has the focus again.
    server.change(changeArt(server.art, addNode('layer', shapeWith('t', [square('tp', 0, 0, 9)]))).patches);
    await page.workplace.saving.refresh();
    expect(idsIn(desk.art)).toEqual(['a', 'b', 't']);
    gesture.show(named('Three'));
    gesture.keep();
    await pass(100);
    expect(desk.art).toEqual(server.art);
    expect(findShape(server.art, 'a')!.name).toBe('Three');
    desk.undo();
    await pass(100);
    expect(findShape(server.art, 'a')!.name).toBe('a');
    expect(idsIn(server.art)).toEqual(['a', 'b', 't']);
  });

  it('is taken back by undo, and its further frames do nothing', async () => {
    const page = await openPage();
    const { desk } = page.workplace;
    draw(page, 'a');
    const gesture = desk.gesture('Rename');
    gesture.show(named('One'));
    desk.undo();
    gesture.show(named('Two'));
    gesture.keep();
    await pass(100);
    expect(findShape(desk.art, 'a')!.name).toBe('a');
    expect(desk.art).toEqual(server.art);
    expect(desk.history.done).toHaveLength(1);
  });

  it('ends with a word where what it was about is gone', async () => {
    const page = await openPage();
    const { desk } = page.workplace;
    draw(page, 'a');
    await pass(100);
    const gesture = desk.gesture('Rename');
    gesture.show(named('One'));
    server.change(changeArt(server.art, removeNodes(['a'])).patches);
    await page.workplace.saving.refresh();
    gesture.show(named('Two'));
    gesture.keep();
    await pass(100);
    expect(idsIn(desk.art)).toEqual([]);
    expect(desk.art).toEqual(server.art);
  });
});

// "Page equals server in the end, every change that conflicts with none is there": by chance, from seeds that come back.
describe('random interleavings', () => {
  const SEEDS = Number(process.env.MIRROT_INTERLEAVINGS ?? 40);

  it(`of gestures, undo, refreshes, ${SEEDS} times over, with pages killed and the server away`, async () => {
    for (let seed = 1; seed <= SEEDS; seed++) {
      const random = seeded(seed);
      vi.stubGlobal('indexedDB', new IDBFactory());
      server = new FakeServer();
      heldLocks.clear();
      const pages: PageOf[] = [await openPage()];
      const gone = new Set<string>();
      const drawn = new Set<string>();
      let n = 0;
      for (let k = 0; k < 40; k++) {
        const page = pages[Math.floor(random() * pages.length)]!;
        const { desk, saving } = page.workplace;
        const before = new Set(idsIn(desk.art));
        const shape = shapesOf(desk.art)[Math.floor(random() * before.size)]?.shape;
        const pick = random();
        if (pick < 0.2) draw(page, `s${seed}n${n++}`);
        else if (pick < 0.3 && shape) {
          page.gesture ??= desk.gesture('Move');
          const path = shape.paths[0]!;
          const anchors = path.anchors.map((a) => ({ ...a, x: a.x + random() }));
          page.gesture.show(setPath(shape.id, { ...path, anchors }));
        } else if (pick < 0.38) {
          if (random() < 0.7) page.gesture?.keep();
          else page.gesture?.drop();
          page.gesture = null;
        } else if (pick < 0.44 && shape) desk.change('Take away', removeNodes([shape.id]));
        else if (pick < 0.52 && shape)
          desk.change('Colour', styleShapes([shape.id], { opacity: Math.round(random() * 100) / 100 }));
        else if (pick < 0.6) desk.undo();
        else if (pick < 0.64) desk.redo();
        else if (pick < 0.7) {
          saving.retry();
          void saving.refresh();
        } else if (pick < 0.74) server.down = !server.down;
        else if (pick < 0.76) server.loseAnswer = true;
        else if (pick < 0.82) await pass(random() * 3000);
        else if (pick < 0.87 && saving.state === 'conflict' && !server.down) await page.workplace.takeOver();
        else if (pick < 0.92 && pages.length < 3 && !server.down) pages.push(await openPage());
        else if (pick < 0.96 && pages.length > 1) {
          // Killed: a gesture is lost with its page, nothing else is.
          page.gesture?.drop();
          await pass(20);
          kill(page);
          pages.splice(pages.indexOf(page), 1);
        } else await pass(30);
        const after = new Set(idsIn(desk.art));
        for (const id of before) if (!after.has(id)) gone.add(id);
        for (const id of after) {
          drawn.add(id);
          // Back by this hand; one that only comes into sight here may be gone elsewhere.
          if (!before.has(id) && pick < 0.64) gone.delete(id);
        }
      }
      server.down = false;
      // What killed pages left comes in by the next one that opens.
      pages.push(await openPage());
      await comeToRest(pages);
      for (const { workplace } of pages) {
        expect(workplace.saving.state, `seed ${seed}`).toBe('kept');
        expect(workplace.desk.art, `seed ${seed}`).toEqual(server.art);
        expect(workplace.asides).toEqual([]);
      }
      const there = new Set(idsIn(server.art));
      const lost = [...drawn].filter((id) => !gone.has(id) && !there.has(id));
      expect(lost, `seed ${seed}`).toEqual([]);
      pages.forEach(kill);
    }
  });

  it('lead back by undo to the identical drawing, where one page has it alone', async () => {
    for (let seed = 1; seed <= 12; seed++) {
      const random = seeded(100 + seed);
      vi.stubGlobal('indexedDB', new IDBFactory());
      server = new FakeServer();
      heldLocks.clear();
      const page = await openPage();
      const { desk } = page.workplace;
      const start = desk.art;
      let n = 0;
      for (let k = 0; k < 25; k++) {
        const shape = shapesOf(desk.art)[0]?.shape;
        if (random() < 0.4 || !shape) draw(page, `u${n++}`);
        else if (random() < 0.5) desk.change('Colour', styleShapes([shape.id], { opacity: random() }));
        else {
          const gesture = desk.gesture('Rename');
          gesture.show(setNode(shape.id, { name: `Name ${k}` }));
          if (random() < 0.5) draw(page, `u${n++}`);
          gesture.keep();
        }
        if (random() < 0.2) server.down = !server.down;
        if (random() < 0.3) await pass(100);
      }
      while (desk.history.done.length > 0) desk.undo();
      expect(desk.art).toEqual(start);
      await comeToRest([page]);
      expect(server.art).toEqual(start);
      kill(page);
    }
  });
});
