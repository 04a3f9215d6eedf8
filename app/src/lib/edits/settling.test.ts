import { beforeEach, describe, expect, it, vi } from 'vitest';
import {
  addNode,
  corner,
  driftFigures,
  EDGE_BLUR,
  fieldTiles,
  measureDrift,
  measureWeight,
  removePicture,
  restack,
  setFollow,
  setNode,
  setPath,
  settle,
  type Path,
  type Raster,
} from '@mirrot/core';
import { chooseAnchors, chooseShapes } from '$lib/desk/choice';
import { rasterMap, wishesOf } from '$lib/desk/drifts.svelte';
import type { TraceWish } from '$lib/workers/trace';
import { meanSo } from './meaning';
import { offerSettle, worstSpots, type Settler } from './settling';
import { benchWith, darkSquare, shapeWith, withPicture, type Bench } from '$lib/bed/testing';
import { weigh, type Weigher } from './weighing';
import { whiskersOf } from '$lib/bed/whiskers';

const picture = darkSquare();
const tiles = fieldTiles(picture, 'edge', EDGE_BLUR);

// In the page a worker does this; here the same is done at once.
let endings = 0;
vi.mock('$lib/workers/trace', () => ({
  measureWorker: {
    // Now and then the worker is ended before it answers.
    ask: async (_key: string, _raster: Raster, question: (work: object) => Promise<unknown>) =>
      endings-- > 0
        ? null
        : question({
            drift: async (_key: string, wishes: readonly TraceWish[]) =>
              wishes.map((w) => ({ follow: 'edge', drift: measureDrift(w.path, tiles, w) })),
          }),
  },
}));
const here: Settler = async (_by, wishes) => wishes.map((w) => settle(w.path, tiles, w.options));

const rough: Path = {
  id: 'p',
  closed: true,
  anchors: [corner(62, 57), corner(143, 61), corner(138, 142), corner(59, 137)],
};
let b: Bench;
beforeEach(() => {
  b = benchWith([shapeWith('s', [rough])], 'refine', 2);
  withPicture(b, 200, 200);
  b.desk.habits.set({ driftReach: 16, driftWithin: 1, settleAnchors: true });
  b.desk.picture.inks.raster = { key: 'src', pixels: picture, step: 1 };
  b.desk.choose(chooseShapes(['s'], 'path'));
});
const off = (): number => driftFigures([measureDrift(b.shapes[0]!.paths[0]!, tiles, { reach: 8 })], 1).mean;

describe('Settle', () => {
  it('is offered with figures before and after, taken as one step and undone as one', async () => {
    expect(off()).toBeGreaterThan(1);
    await offerSettle(b.desk, here);
    expect(b.desk.offer!.text).toMatch(/^Settle .*: mean drift \d\.\d\d → 0\.\d\d px, worst/);
    expect(b.shapes[0]!.paths[0]).toEqual(rough);
    b.desk.takeOffer();
    expect(off()).toBeLessThan(0.15);
    for (const [i, [x, y]] of (
      [
        [60, 60],
        [140, 60],
        [140, 140],
        [60, 140],
      ] as const
    ).entries()) {
      // prettier-ignore
      const a = b.shapes[0]!.paths[0]!.anchors[i]!;
      expect(Math.hypot(a.x - x, a.y - y)).toBeLessThan(0.3);
    }
    expect(b.desk.history.done.at(-1)!.label).toBe('Settle');
    b.desk.undo();
    expect(b.shapes[0]!.paths[0]).toEqual(rough);
  });

  it('keeps to the segment between two chosen anchors', async () => {
    b.desk.choose(chooseAnchors([0, 1].map((index) => ({ shape: 's', path: 'p', index }))));
    await offerSettle(b.desk, here);
    b.desk.takeOffer();
    const { anchors } = b.shapes[0]!.paths[0]!;
    expect(anchors[2]).toEqual(rough.anchors[2]);
    expect(anchors[3]).toEqual(rough.anchors[3]);
  });

  it('says of chosen segments what is theirs: words and figures', async () => {
    b.desk.choose(chooseAnchors([0, 1, 2].map((index) => ({ shape: 's', path: 'p', index }))));
    await offerSettle(b.desk, here);
    const drift = measureDrift(rough, tiles, { reach: 8 });
    const [first, second] = [0, 1].map((segment) => driftFigures([drift], 1, segment));
    const own = (first!.mean * first!.measured + second!.mean * second!.measured) / (first!.measured + second!.measured); // prettier-ignore
    expect(b.desk.offer!.text).toMatch(/^Settle 2 segments of /);
    expect(b.desk.offer!.text).toContain(`mean drift ${own.toFixed(2)} →`);
    b.desk.takeOffer();
    const { anchors } = b.shapes[0]!.paths[0]!;
    expect([anchors[0], anchors[2], anchors[3]]).toEqual([
      rough.anchors[0],
      rough.anchors[2],
      rough.anchors[3],
    ]);
    expect(anchors[1]).not.toEqual(rough.anchors[1]);
  });

  it('says why when nothing can be gained: meant so, locked, covered, no edge', async () => {
    const { desk } = b;
    const says = async (text: string): Promise<void> => {
      const before = desk.art;
      await offerSettle(desk, here);
      expect(desk.notice!.text).toContain(text);
      expect(desk.offer).toBeNull();
      expect(desk.art).toBe(before);
    };
    meanSo(desk);
    await says('is meant so');
    meanSo(desk);
    desk.change('Lock', setNode('s', { locked: true }), { choice: desk.choice });
    await says('is locked');
    desk.change('Unlock', setNode('s', { locked: false }), { choice: desk.choice });
    const lid: Path = {
      ...rough,
      id: 'q',
      anchors: [corner(0, 0), corner(200, 0), corner(200, 200), corner(0, 200)],
    };
    desk.change(
      'Cover',
      addNode(desk.art.layers[0]!.id, { ...shapeWith('lid', [lid]), fill: { hex: '#2f6b4f' } }),
    );
    desk.choose(chooseShapes(['s'], 'path'));
    await says('Shapes above cover it');
    desk.undo();
    const far = { ...rough, anchors: rough.anchors.map((a) => ({ ...a, x: a.x / 8, y: a.y / 8 })) };
    desk.change('Move', setPath('s', far), { choice: desk.choice });
    await says('no edge in reach');
  });

  it('says when it cannot help, and leaves what was edited meanwhile', async () => {
    await offerSettle(b.desk, here);
    b.desk.takeOffer();
    await offerSettle(b.desk, here);
    expect(b.desk.offer).toBeNull();
    expect(b.desk.notice!.text).toContain('as near to the edge');
    b.desk.undo();
    await offerSettle(b.desk, async (by, wishes) => {
      b.desk.change('Say what drift follows', setFollow(['s'], 'edge'), { choice: b.desk.choice });
      return here(by, wishes);
    });
    expect(b.desk.offer).toBeNull();
    b.desk.picture.inks.raster = null;
    await offerSettle(b.desk, here);
    expect(b.desk.notice!.text).toContain('pixels are not here yet');
    b.desk.change('Remove the picture', removePicture(b.desk.picture.traced!.id));
    await offerSettle(b.desk, here);
    expect(b.desk.notice!.text).toContain('no picture');
  });

  it('finds the edge of a picture that lies turned and larger', async () => {
    const placement = [1.2, 0.5, -0.5, 1.2, 90, 20] as const;
    b.desk.change('Place', (d) => void Object.assign(d.pictures[0]!, { placement }), {
      choice: b.desk.choice,
    });
    const by = b.desk.picture.driftSettings!;
    const [wish] = wishesOf(b.shapes[0]!, by, b.desk.art);
    expect(wish!.path.anchors).toHaveLength(4);
    const onSheet = { ...rough, anchors: rough.anchors.map((a) => ({ ...a, x: 1.2 * a.x - 0.5 * a.y + 90, y: 0.5 * a.x + 1.2 * a.y + 20 })) }; // prettier-ignore
    b.desk.change('Put', (d) => void Object.assign((d.layers[0]!.children[0] as { paths: object[] }).paths, [onSheet]), { choice: b.desk.choice }); // prettier-ignore
    await offerSettle(b.desk, here);
    b.desk.takeOffer();
    const map = rasterMap(b.desk.picture.driftSettings!);
    const a = b.shapes[0]!.paths[0]!.anchors[0]!;
    expect(Math.hypot(a.x - (map[0] * 60 + map[2] * 60 + map[4]), a.y - (map[1] * 60 + map[3] * 60 + map[5]))).toBeLessThan(0.5); // prettier-ignore
  });
});

describe('Measure weight', () => {
  // A bar of 12 px, from 40 to 160 along y = 100, drawn on with a thinner line aside of its middle.
  const bar: Raster = (() => {
    const data = new Uint8ClampedArray(200 * 200 * 4).fill(255);
    for (let y = 94; y < 106; y++)
      for (let x = 40; x < 160; x++) data.fill(60, (y * 200 + x) * 4, (y * 200 + x) * 4 + 3);
    return { width: 200, height: 200, data };
  })();
  const weigher: Weigher = async (_by, paths) =>
    paths.map((p) => measureWeight(p, fieldTiles(bar, 'edge', 1.2), 40));
  const line: Path = { id: 'l', closed: false, anchors: [corner(50, 101), corner(150, 101)] };

  it('gives the line the width and colour of the stroke under it, one undo', async () => {
    b = benchWith([shapeWith('line', [line], { fill: null })], 'refine', 2);
    withPicture(b, 200, 200);
    b.desk.picture.inks.raster = { key: 'src', pixels: bar, step: 1 };
    b.desk.choose(chooseShapes(['line'], 'path'));
    await weigh(b.desk, weigher);
    expect(b.shapes[0]!.stroke!.width).toBeGreaterThan(12 * 0.97);
    expect(b.shapes[0]!.stroke!.width).toBeLessThan(12 * 1.03);
    expect(b.shapes[0]!.stroke!.paint).toEqual({ hex: '#3c3c3c' });
    b.desk.undo();
    expect(b.shapes[0]!.stroke).toBeNull();
  });

  it('says when there is no stroke, and changes nothing', async () => {
    await weigh(b.desk, async (_by, paths) => paths.map(() => null));
    expect(b.desk.notice!.text).toContain('Nothing was changed');
    expect(b.desk.history.done).toHaveLength(1);
  });
});

describe('drift on the desk', () => {
  const measured = async (): Promise<void> => {
    b.desk.picture.drifts.measure(b.desk.art, b.desk.picture.driftSettings!, ['s']);
    await vi.waitFor(() => expect(b.desk.picture.drifts.of('s')?.shape).toBe(b.shapes[0]));
  };

  it('is measured for what is there, and again for what has changed', async () => {
    await measured();
    const first = b.desk.picture.drifts.of('s')!.figures.mean;
    expect(first).toBeCloseTo(off(), 1);
    expect(b.desk.picture.drifts.all!.mean).toBeCloseTo(first, 9);
    b.drag({ x: 62, y: 57 }, { x: 60, y: 60 });
    await measured();
    expect(b.desk.picture.drifts.of('s')!.figures.mean).toBeLessThan(first);
  });

  it('is summed up again when a shape goes', async () => {
    await measured();
    expect(b.desk.picture.drifts.all!.measured).toBeGreaterThan(100);
    b.desk.change('Delete', (d) => void (d.layers[0]!.children = []));
    b.desk.picture.drifts.measure(b.desk.art, b.desk.picture.driftSettings!, []);
    expect(b.desk.picture.drifts.all!.measured).toBe(0);
  });

  it('is asked for again when the worker was ended meanwhile', async () => {
    endings = 2;
    await measured();
    expect(b.desk.picture.drifts.of('s')!.figures.mean).toBeCloseTo(off(), 1);
  });

  it('leaves out what a shape above covers, at once when that is hidden, restacked or shown; Settle too', async () => {
    // Filled, over the right half of the picture's square.
    const lid = shapeWith('lid', [{ id: 'lid-p', closed: true, anchors: [corner(100, 0), corner(200, 0), corner(200, 200), corner(100, 200)] }], { fill: { hex: '#2f6b4f' } }); // prettier-ignore
    b.desk.change('Cover', addNode(b.desk.art.layers[0]!.id, lid));
    const share = (): number => {
      const { covered, length } = b.desk.picture.drifts.of('s')!.figures;
      return covered / length;
    };
    const measure = (): void => b.desk.picture.drifts.measure(b.desk.art, b.desk.picture.driftSettings!, ['s']); // prettier-ignore
    await measured();
    expect(share()).toBeCloseTo(0.5, 1);
    const { parts, step } = b.desk.picture.drifts.of('s')!;
    expect(whiskersOf(parts[0]!, step, { scale: 2, tx: 0, ty: 0 }, 1, 800, 600).covered).not.toBe('');
    b.desk.change('Hide', setNode('lid', { shown: false }));
    measure();
    await vi.waitFor(() => expect(share()).toBe(0));
    b.desk.change('Show', setNode('lid', { shown: true }));
    measure();
    await vi.waitFor(() => expect(share()).toBeGreaterThan(0.4));
    b.desk.habits.set({ driftCovered: true });
    measure();
    await vi.waitFor(() => expect(share()).toBe(0));
    b.desk.habits.set({ driftCovered: false });
    // Settled, what is covered stays where it is, and the rest comes home.
    await offerSettle(b.desk, here);
    b.desk.takeOffer();
    const { anchors } = b.shapes[0]!.paths[0]!;
    expect(Math.hypot(anchors[0]!.x - 60, anchors[0]!.y - 60)).toBeLessThan(0.4);
    b.desk.change('Restack', restack(['s'], 'up'));
    measure();
    await vi.waitFor(() => expect(share()).toBe(0));
  });

  it('names the worst spots, worst first, each beyond the tolerance', async () => {
    await measured();
    const spots = worstSpots(b.desk);
    expect(spots.length).toBeGreaterThan(2);
    expect(spots.map((s) => s.size)).toEqual(spots.map((s) => s.size).toSorted((x, y) => y - x));
    expect(spots.every((s) => s.size > 1)).toBe(true);
  });

  it('shows as whiskers four times as long as it is, thinner within the tolerance, none off the bed', async () => {
    await measured();
    const { parts, step } = b.desk.picture.drifts.of('s')!;
    const { beyond, within } = whiskersOf(parts[0]!, step, { scale: 2, tx: 0, ty: 0 }, 1, 800, 600);
    const lengths = [...beyond.matchAll(/M([\d.-]+) ([\d.-]+)L([\d.-]+) ([\d.-]+)/g)].map(([, a, c, d, e]) =>
      Math.hypot(Number(d) - Number(a), Number(e) - Number(c)),
    );
    expect(lengths.length).toBeGreaterThan(10);
    expect(Math.min(...lengths)).toBeGreaterThan(4 * 2 * 0.95);
    expect(Math.max(...lengths)).toBeLessThan(4 * 2 * 4.5);
    expect(within).not.toBe('');
    const away = whiskersOf(parts[0]!, step, { scale: 2, tx: 5000, ty: 0 }, 1, 800, 600);
    expect(away).toEqual({ beyond: '', within: '', none: '', covered: '' });
  });
});
