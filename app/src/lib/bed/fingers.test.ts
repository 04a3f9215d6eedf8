import { expect, it } from 'vitest';
import { createFingers } from './fingers';
import { benchWith } from './testing';

const touch = (pointerId: number, clientX: number, clientY: number, more: object = {}): PointerEvent =>
  ({ pointerType: 'touch', pointerId, clientX, clientY, width: 20, height: 20, timeStamp: 10_000, ...more }) as PointerEvent; // prettier-ignore

it('two fingers move and scale the view about their middle; the one left over does nothing until it is lifted', () => {
  const { desk } = benchWith([], 'refine', 1);
  const fingers = createFingers(desk, () => ({ left: 100, top: 50 }));
  expect(fingers.down(touch(1, 200, 150))).toBe(false);
  expect(fingers.move(touch(1, 210, 150))).toBe(false);
  expect(fingers.down(touch(2, 310, 150))).toBe(true);
  const { scale, tx } = desk.looking.view;
  // Twice as far apart: twice as large, and what lay under the middle goes with it.
  const before = (160 - tx) / scale;
  expect(fingers.move(touch(2, 410, 150))).toBe(true);
  expect(desk.looking.view.scale).toBeCloseTo(2 * scale, 9);
  expect((210 - desk.looking.view.tx) / desk.looking.view.scale).toBeCloseTo(before, 9);
  expect(fingers.up(touch(1, 210, 150))).toBe(true);
  const view = desk.looking.view;
  expect([fingers.spent, fingers.move(touch(2, 500, 300))]).toEqual([true, true]);
  expect(desk.looking.view).toBe(view);
  fingers.up(touch(2, 500, 300));
  expect(fingers.spent).toBe(false);
});

it('a palm is known by its width, or by a pen seen just before; a mouse is no finger', () => {
  const fingers = createFingers(benchWith([], 'refine').desk, () => ({ left: 0, top: 0 }));
  expect(fingers.isPalm(touch(1, 0, 0))).toBe(false);
  expect(fingers.isPalm(touch(1, 0, 0, { width: 60 }))).toBe(true);
  fingers.penSeen(touch(9, 0, 0, { pointerType: 'pen', timeStamp: 9_000 }));
  expect(fingers.isPalm(touch(1, 0, 0))).toBe(true);
  expect(fingers.isPalm(touch(1, 0, 0, { timeStamp: 12_000 }))).toBe(false);
  const mouse = touch(3, 0, 0, { pointerType: 'mouse' });
  expect([fingers.down(mouse), fingers.move(mouse), fingers.up(mouse)]).toEqual([false, false, false]);
});
