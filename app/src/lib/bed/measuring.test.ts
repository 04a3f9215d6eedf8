import { beforeEach, describe, expect, it, vi } from 'vitest';
import { crossedEdges, fieldTiles, type Point, type Raster } from '@mirrot/core';
import { measureText } from './measuring';
import { benchWith, shapeWith, square, withPicture, type Bench } from './testing';

/** A picture of an upright dark bar 12 px wide. */
const picture: Raster = (() => {
  const data = new Uint8ClampedArray(200 * 100 * 4).fill(255);
  for (let y = 0; y < 100; y++)
    for (let x = 80; x < 92; x++) data.fill(40, (y * 200 + x) * 4, (y * 200 + x) * 4 + 3);
  return { width: 200, height: 100, data };
})();
const tiles = fieldTiles(picture, 'edge', 1.2);
vi.mock('$lib/workers/trace', () => ({
  reachWorker: {
    ask: (_key: string, _raster: unknown, question: (work: object) => Promise<unknown>) =>
      question({ across: async (_key: string, from: Point, to: Point) => crossedEdges(tiles, from, to) }),
  },
}));

let b: Bench;
beforeEach(() => {
  b = benchWith([shapeWith('s', [square('p', 20, 20, 40)])], 'refine', 2);
  withPicture(b, 200, 100);
  b.desk.picture.inks.raster = { key: 'src', pixels: picture, step: 1 };
  b.desk.pointing.task = { kind: 'measure', line: null, crossed: null };
});
const said = (): string =>
  b.desk.pointing.task?.kind === 'measure' ? measureText(b.desk, b.desk.pointing.task) : 'no task';
const soon = async (): Promise<void> => {
  for (let k = 0; k < 10; k++) await Promise.resolve();
};

describe('measuring by a drag', () => {
  it('tells distance, angle and the width of the stroke drawn over, and changes nothing', async () => {
    const { art } = b.desk;
    b.drag({ x: 70, y: 50 }, { x: 102, y: 50 });
    await soon();
    expect(said()).toMatch(/^32\.0 px, 0\.0° · 32\.0 px · stroke 1[12]\.\d px, 1[12]\.\d px$/);
    const { task } = b.desk.pointing;
    expect(task?.kind === 'measure' && Math.abs(task.crossed!.width! - 12)).toBeLessThan(0.3);
    b.drag({ x: 70, y: 50 }, { x: 100, y: 20 });
    await soon();
    expect(said()).toContain('42.4 px, 45.0° · 42.4 px');
    expect(b.desk.art).toBe(art);
    b.drag({ x: 100, y: 10 }, { x: 150, y: 13 }, { shift: true });
    await soon();
    expect(said()).toMatch(/, 0\.0° · /);
    b.click({ x: 10, y: 90 });
    expect(said()).toBe('');
  });

  it('goes from thing to thing where those attract, and takes a drag back', async () => {
    b.desk.habits.set({ snapOn: true });
    b.drag({ x: 21, y: 21 }, { x: 59, y: 61 });
    await soon();
    expect(said()).toContain('56.6 px');
    const before = said();
    b.press({ x: 10, y: 10 });
    b.move({ x: 50, y: 90 });
    expect(said()).not.toBe(before);
    b.machine.cancel();
    expect(said()).toBe(before);
  });
});
