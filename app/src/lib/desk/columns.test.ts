import { expect, it } from 'vitest';
import { Columns } from './columns.svelte';
import { createHabits } from './habits.svelte';

it('columns fold and are remembered on wide pages; on narrow ones they lie over the bed, one at a time', () => {
  const habits = createHabits();
  const columns = new Columns(habits);
  expect([columns.shown('stack'), columns.shown('eye')]).toEqual([true, true]);
  columns.turn('stack');
  expect([habits.stackOpen, columns.shown('stack')]).toEqual([false, false]);
  columns.turn('stack');

  columns.width = 999;
  expect([columns.folds('eye'), columns.folds('stack')]).toEqual([true, false]);
  expect([columns.shown('stack'), columns.shown('eye')]).toEqual([true, false]);
  columns.turn('eye');
  expect([columns.shown('eye'), habits.eyeOpen]).toEqual([true, true]);

  columns.width = 390;
  columns.turn('stack');
  expect([columns.shown('stack'), columns.shown('eye')]).toEqual([true, false]);
  expect(columns.clear()).toBe(true);
  expect([columns.shown('stack'), columns.clear()]).toEqual([false, false]);

  columns.width = 1280;
  expect([columns.shown('stack'), columns.shown('eye')]).toEqual([true, true]);
});
