import { beforeEach, describe, expect, it, vi } from 'vitest';
import {
  apply,
  EDGE_BLUR,
  invert,
  fieldTiles,
  nearestOnPath,
  reach,
  reachMemory,
  segmentCubic,
  segmentIsLine,
  type Path,
  type Point,
  type Raster,
} from '@mirrot/core';
import type { ReachWish } from '$lib/workers/trace';
import type { BedPointer } from './behaviour';
import { takeBack, turnFollow } from './block-in';
import { askReach } from './block-in-target';
import { tickedAt } from './reaching';
import { foresee } from './foresight';
import { benchWith, withPicture, type Bench } from './testing';

/** A picture of a dark disc of 60 about (100, 100), and its outline. */
const picture: Raster = (() => {
  const data = new Uint8ClampedArray(200 * 200 * 4).fill(255);
  for (let y = 0; y < 200; y++)
    for (let x = 0; x < 200; x++) {
      const inside = Math.min(1, Math.max(0, 60.5 - Math.hypot(x + 0.5 - 100, y + 0.5 - 100)));
      data.fill(240 - 190 * inside, (y * 200 + x) * 4, (y * 200 + x) * 4 + 3);
    }
  return { width: 200, height: 200, data };
})();
const tiles = fieldTiles(picture, 'edge', EDGE_BLUR);
const off = (p: Point): number => Math.abs(Math.hypot(p.x - 100, p.y - 100) - 60);

// In the page a worker does this; here it is done at once, or when it is let.
let gate: Promise<void> = Promise.resolve();
let memory = reachMemory();
let asked = 0;
/** A thin stroke lies at the pointer; and what was asked for last. */
let onStroke = false;
let wished: ReachWish | null = null;
/** How many answers are put off. */
let put = 0;
vi.mock('$lib/workers/trace', () => ({
  reachWorker: {
    ask: (_key: string, _raster: unknown, question: (work: object) => Promise<unknown>) =>
      question({
        reach: async (_key: string, wish: ReachWish) => {
          asked++;
          await gate;
          const found = reach(
            { fine: tiles, coarse: tiles, ratio: 1 },
            wish.start,
            wish.pointer,
            wish.options,
            memory,
          );
          if (put > 0) return put-- > 0 ? 'later' : found;
          wished = wish;
          const follow = wish.follow ?? (onStroke ? 'middle' : 'edge');
          return found ? { ...found, follow, onStroke } : memory.open ? 'later' : null;
        },
      }),
  },
}));

let b: Bench;
beforeEach(() => {
  b = benchWith([], 'block-in', 2);
  withPicture(b, 200, 200);
  b.desk.habits.set({ reach: true, reachChain: true, reachWithin: 0.6, straightOnly: false, flowingClicks: false, pen: false, carry: true }); // prettier-ignore
  b.desk.picture.inks.raster = { key: 'src', pixels: picture, step: 1 };
  gate = Promise.resolve();
  memory = reachMemory();
  asked = 0;
  onStroke = false;
});
const pointer = (sheet: Point): BedPointer => ({ sheet, screen: { x: sheet.x * 2 + 20, y: sheet.y * 2 + 10 }, shift: false, alt: false, type: 'mouse', time: 0, again: false }); // prettier-ignore
/** What the page does when the pointer moves. */
async function hover(p: Point, hints = 0): Promise<void> {
  b.desk.picture.reaching.ask(askReach(b.desk, pointer(p), hints));
  await b.desk.picture.reaching.latest;
  // The tick comes a moment later.
  while (b.desk.picture.reaching.offer?.open) await Promise.resolve();
}
const path = (): Path => b.shapes[0]!.paths[0]!;
const steps = (): number => b.desk.history.done.length;

describe('Reach', () => {
  it('shows the next segment on the edge, and a click takes just what is shown', async () => {
    await hover({ x: 162, y: 101 });
    b.click({ x: 162, y: 101 });
    expect(off(path().anchors[0]!)).toBeLessThan(0.1);
    expect(path().anchors[0]!.kind).toBe('smooth');
    await hover({ x: 103, y: 162 });
    const seen = foresee(b.desk, pointer({ x: 103, y: 162 }));
    expect(seen.kind === 'add' && seen.reached?.holds).toBe(true);
    const before = steps();
    b.click({ x: 103, y: 162 });
    expect(steps()).toBe(before + 1);
    expect(seen.kind === 'add' && seen.cubics).toEqual([segmentCubic(path(), 0)]);
    for (let k = 0; k <= 10; k++)
      expect(off(nearestOnPath(path(), { x: 100 + 61 * Math.cos((k * Math.PI) / 22), y: 100 + 61 * Math.sin((k * Math.PI) / 22) })!.point)).toBeLessThan(0.4); // prettier-ignore
    expect(path().anchors[1]).toMatchObject({ kind: 'smooth', out: null });
    b.desk.undo();
    expect(path().anchors.length).toBe(1);
  });

  it('is overruled by a drag: the handles are the hand’s own', async () => {
    await hover({ x: 162, y: 101 });
    b.click({ x: 162, y: 101 });
    await hover({ x: 103, y: 162 });
    b.drag({ x: 103, y: 162 }, { x: 80, y: 190 });
    expect(path().anchors[0]!.out).toBeNull();
    expect(path().anchors[1]!.out!.x).toBeLessThan(-15);
  });

  it('gives the plain segment with C held, the switch off, Shift, or away from the edge', async () => {
    await hover({ x: 162, y: 101 });
    b.click({ x: 162, y: 101 });
    await hover({ x: 103, y: 162 });
    b.desk.pointing.hold('c', true);
    b.click({ x: 103, y: 162 });
    expect(segmentIsLine(path(), 0)).toBe(true);
    expect(path().anchors[1]).toMatchObject({ x: 103, y: 162, kind: 'corner' });
    expect(askReach(b.desk, pointer({ x: 60, y: 150 }))).toBeNull();
    b.desk.pointing.hold('c', false);
    await hover({ x: 100, y: 100 });
    expect(b.desk.picture.reaching.offer).toBeNull();
    expect(askReach(b.desk, { ...pointer({ x: 60, y: 150 }), shift: true })).toBeNull();
    b.desk.habits.set({ reach: false });
    expect(askReach(b.desk, pointer({ x: 60, y: 150 }))).toBeNull();
  });

  it('closes onto the first anchor along the edge', async () => {
    for (const p of [
      { x: 161, y: 100 },
      { x: 70, y: 153 },
      { x: 72, y: 47 },
    ]) {
      // prettier-ignore
      await hover(p);
      b.click(p);
    }
    expect(path().anchors.length).toBe(3);
    const first = path().anchors[0]!;
    await hover(first);
    expect(foresee(b.desk, pointer(first)).kind).toBe('close');
    b.click(first);
    expect(path().closed).toBe(true);
    expect(b.desk.live).toBeNull();
    for (let k = 0; k < 40; k++) {
      const a = (k * Math.PI) / 20;
      expect(off(nearestOnPath(path(), { x: 100 + 60 * Math.cos(a), y: 100 + 60 * Math.sin(a) })!.point)).toBeLessThan(0.8); // prettier-ignore
    }
    const { in: arriving, out } = path().anchors[0]!;
    expect(Math.abs(arriving!.x * out!.y - arriving!.y * out!.x)).toBeLessThan(1e-6 * Math.hypot(arriving!.x, arriving!.y) * Math.hypot(out!.x, out!.y)); // prettier-ignore
  });

  it('comes after a click that was quicker, as one step with it, unless something happened since', async () => {
    await hover({ x: 162, y: 101 });
    b.click({ x: 162, y: 101 });
    const before = steps();
    // Each at a place of its own: an offer that came stays one for as long as the path is as it was.
    for (const [meddle, at] of [
      [false, { x: 103, y: 162 }],
      [true, { x: 88, y: 161 }],
    ] as const) {
      let open = (): void => {};
      gate = new Promise((done) => (open = done));
      b.desk.picture.reaching.ask(askReach(b.desk, pointer(at)));
      const { latest } = b.desk.picture.reaching;
      b.click(at);
      expect(segmentIsLine(path(), 0)).toBe(true);
      if (meddle) b.click({ x: 30, y: 160 });
      open();
      await latest;
      await Promise.resolve();
      expect(segmentIsLine(path(), 0)).toBe(meddle);
      expect(steps()).toBe(before + (meddle ? 2 : 1));
      while (steps() > before) b.desk.undo();
      expect(path().anchors.length).toBe(1);
    }
  });

  it('asks for the newest place only, of many moves made while it works', async () => {
    let open = (): void => {};
    gate = new Promise((done) => (open = done));
    for (let k = 0; k < 20; k++)
      b.desk.picture.reaching.ask(askReach(b.desk, pointer({ x: 161, y: 80 + k })));
    open();
    await b.desk.picture.reaching.latest;
    expect(asked).toBe(2);
    expect(b.desk.picture.reaching.offer!.pointer).toEqual({ x: 161, y: 99 });
    // Turns ahead told at rest stay while the pointer goes on.
    b.desk.habits.set({ reachWithin: 0.04 });
    b.click({ x: 161, y: 99 });
    await hover({ x: 158, y: 118 }, 3);
    const { hints } = b.desk.picture.reaching.offer!;
    expect(hints.length).toBeGreaterThan(0);
    for (const h of hints) expect(off(h)).toBeLessThan(0.3);
    await hover({ x: 157, y: 121 });
    expect(b.desk.picture.reaching.offer!.hints).toEqual(hints);
  });

  it('keeps its tick until the next one is worked out', async () => {
    await hover({ x: 162, y: 101 });
    b.click({ x: 162, y: 101 });
    await hover({ x: 152, y: 132 });
    const before = b.desk.picture.reaching.offer!.farthest!;
    expect(before).not.toBeNull();
    // The other way round the edge is laid anew.
    b.desk.picture.reaching.ask(askReach(b.desk, pointer({ x: 152, y: 70 })));
    await b.desk.picture.reaching.latest;
    expect(b.desk.picture.reaching.offer).toMatchObject({ open: true, farthest: before });
    await hover({ x: 152, y: 70 });
    expect(b.desk.picture.reaching.offer!.open).toBe(false);
    expect(b.desk.picture.reaching.offer!.farthest).not.toEqual(before);
  });

  it('offers no segment that one cannot hold by far; its tick still says how far one does', async () => {
    b.desk.habits.set({ reachWithin: 0.03, reachChain: false });
    await hover({ x: 162, y: 101 });
    b.click({ x: 162, y: 101 });
    const far = { x: 39, y: 96 };
    await hover(far);
    expect(b.desk.picture.reaching.offer).toMatchObject({ holds: false, wild: true });
    expect(foresee(b.desk, pointer(far))).toMatchObject({ kind: 'add', reached: null });
    expect(tickedAt(b.desk, pointer(far), path())!.farthest).not.toBeNull();
    b.click(far);
    expect([path().anchors[0]!.out, path().anchors[1]!.in]).toEqual([null, null]);
  });

  it('offers a chain beyond the tick; a click takes it as one step, Take back gives its segments back one by one', async () => {
    b.desk.habits.set({ reachWithin: 0.15 });
    await hover({ x: 162, y: 101 });
    b.click({ x: 162, y: 101 });
    const far = { x: 39, y: 104 };
    await hover(far);
    const offer = b.desk.picture.reaching.offer!;
    expect(offer).toMatchObject({ holds: true, wild: false });
    expect(offer.segments.length).toBeGreaterThan(1);
    const seen = foresee(b.desk, pointer(far));
    const before = steps();
    b.click(far);
    expect(steps()).toBe(before + 1);
    const count = offer.segments.length;
    expect(path().anchors.length).toBe(1 + count);
    expect(seen.kind === 'add' && seen.cubics).toEqual(offer.segments.map((_, i) => segmentCubic(path(), i)));
    for (let k = 0; k <= 20; k++)
      expect(off(nearestOnPath(path(), { x: 100 + 60 * Math.cos((k * Math.PI) / 20), y: 100 + 60 * Math.sin((k * Math.PI) / 20) })!.point)).toBeLessThan(0.3); // prettier-ignore
    takeBack(b.desk);
    expect(path().anchors.length).toBe(count);
    // One undo each: what was taken back, then the whole chain.
    b.desk.undo();
    b.desk.undo();
    expect(path().anchors.length).toBe(1);
    b.desk.habits.set({ reachChain: false });
    await hover({ x: 39, y: 100 });
    expect(b.desk.picture.reaching.offer!.segments.length).toBe(1);
  });

  it('closes by a chain where one segment cannot', async () => {
    b.desk.habits.set({ reachWithin: 0.1 });
    for (const p of [{ x: 161, y: 100 }, { x: 103, y: 161 }, { x: 39, y: 101 }]) await hover(p).then(() => b.click(p)); // prettier-ignore
    const before = path().anchors.length;
    await hover(path().anchors[0]!);
    const { segments } = b.desk.picture.reaching.offer!;
    expect(segments.length).toBeGreaterThan(1);
    b.click(path().anchors[0]!);
    expect(path()).toMatchObject({ closed: true });
    expect(path().anchors.length).toBe(before + segments.length - 1);
    for (let k = 0; k < 40; k++)
      expect(off(nearestOnPath(path(), { x: 100 + 60 * Math.cos((k * Math.PI) / 20), y: 100 + 60 * Math.sin((k * Math.PI) / 20) })!.point)).toBeLessThan(0.4); // prettier-ignore
  });

  it('follows the middle of a thin stroke that it begins on, and drift does; a key turns that for this path', async () => {
    onStroke = true;
    await hover({ x: 162, y: 101 });
    expect(b.desk.picture.reaching.asked!.wish.follow).toBeNull();
    b.click({ x: 162, y: 101 });
    expect(b.shapes[0]!.follow).toBe('middle');
    await hover({ x: 103, y: 162 });
    expect(wished!.follow).toBe('middle');
    turnFollow(b.desk);
    expect(b.shapes[0]!.follow).toBe('edge');
    await hover({ x: 103, y: 161 });
    expect(wished!.follow).toBe('edge');
    b.desk.undo();
    b.desk.undo();
    // Turned before it begins, it begins so, and the one after it is told by the picture again.
    await hover({ x: 162, y: 101 });
    turnFollow(b.desk);
    await hover({ x: 162, y: 101 });
    expect(wished!.follow).toBe('edge');
    b.click({ x: 162, y: 101 });
    expect(b.shapes[0]!.follow).toBe('edge');
    expect(b.desk.next.follow).toBeNull();
  });

  it('takes what a click quicker than the offer begins on, as one step with it', async () => {
    onStroke = true;
    b.click({ x: 162, y: 101 }, { type: 'touch' });
    expect(b.shapes[0]!.follow).toBeUndefined();
    await b.desk.picture.reaching.latest;
    await Promise.resolve();
    expect(b.shapes[0]!.follow).toBe('middle');
    b.desk.undo();
    expect(b.shapes).toHaveLength(0);
  });

  it('keeps still while a border is offered: that is the next segment', async () => {
    await hover({ x: 162, y: 101 });
    b.click({ x: 162, y: 101 });
    b.desk.makeOffer({ from: 'border', text: 'Close along the border', label: 'x', recipe: () => {} });
    expect(askReach(b.desk, pointer({ x: 103, y: 162 }))).toBeNull();
    b.desk.leaveOffer();
    expect(askReach(b.desk, pointer({ x: 103, y: 162 }))).not.toBeNull();
  });

  it('comes to a finger that did not point before', async () => {
    b.click({ x: 162, y: 101 }, { type: 'touch' });
    expect(path().anchors[0]).toMatchObject({ x: 162, y: 101, kind: 'corner' });
    await b.desk.picture.reaching.latest;
    await Promise.resolve();
    expect(off(path().anchors[0]!)).toBeLessThan(0.1);
    expect(path().anchors[0]!.kind).toBe('smooth');
    b.click({ x: 103, y: 162 }, { type: 'touch' });
    expect(segmentIsLine(path(), 0)).toBe(true);
    await b.desk.picture.reaching.latest;
    await Promise.resolve();
    expect(segmentIsLine(path(), 0)).toBe(false);
    expect(off(path().anchors[1]!)).toBeLessThan(0.1);
    // Each was one step.
    b.desk.undo();
    expect(path().anchors).toHaveLength(1);
    b.desk.undo();
    expect(b.shapes).toHaveLength(0);
  });

  it('goes on with what is put off, unless the pointer has gone on', async () => {
    put = 3;
    await hover({ x: 162, y: 101 });
    expect(asked).toBe(4);
    expect(b.desk.picture.reaching.offer!.pointer).toEqual({ x: 162, y: 101 });
    put = 100;
    b.desk.picture.reaching.ask(askReach(b.desk, pointer({ x: 161, y: 90 })));
    const { latest } = b.desk.picture.reaching;
    put = 1;
    await hover({ x: 161, y: 104 });
    expect(await latest).toBeNull();
    expect(b.desk.picture.reaching.offer!.pointer).toEqual({ x: 161, y: 104 });
  });

  it('ends where something drawn attracts, along the edge all the same', async () => {
    b.desk.habits.set({ snapOn: true });
    await hover({ x: 162, y: 101 });
    b.click({ x: 162, y: 101 });
    b.desk.change('guide', (draft) => void draft.guides.lines.push({ id: 'g', x: 100, y: 0, angle: Math.PI / 2 }), { live: b.desk.live }); // prettier-ignore
    await hover({ x: 101.5, y: 160.5 });
    b.click({ x: 101.5, y: 160.5 });
    expect(path().anchors[1]!.x).toBeCloseTo(100, 6);
    expect(segmentIsLine(path(), 0)).toBe(false);
  });

  it('lies on the edge where the picture is turned and scaled unevenly, smooth on the sheet', async () => {
    const placement = [1.2, 0.5, -0.3, 0.7, 60, -20] as const;
    b.desk.change('place', (draft) => void (draft.pictures[0]!.placement = [...placement]));
    const back = invert(placement)!;
    const on = (a: number, r = 60): Point =>
      apply(placement, { x: 100 + r * Math.cos(a), y: 100 + r * Math.sin(a) });
    for (const a of [0, 1.4, 2.8]) {
      await hover(on(a, 61));
      b.click(on(a, 61));
    }
    expect(path().anchors.length).toBe(3);
    for (let k = 0; k <= 20; k++)
      expect(off(apply(back, nearestOnPath(path(), on((2.8 * k) / 20))!.point))).toBeLessThan(0.7);
    const { kind, in: arriving, out } = path().anchors[1]!;
    expect(kind).toBe('smooth');
    expect(Math.abs(arriving!.x * out!.y - arriving!.y * out!.x)).toBeLessThan(1e-6 * Math.hypot(arriving!.x, arriving!.y) * Math.hypot(out!.x, out!.y)); // prettier-ignore
  });
});
