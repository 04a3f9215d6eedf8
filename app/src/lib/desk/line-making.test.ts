import { emptyArt, PLAIN_LINES } from '@mirrot/core';
import { beforeEach, expect, it, vi } from 'vitest';
import type { LinesMade, LinesWish } from '$lib/workers/files';
import { LineMaking } from './line-making.svelte';
import type { ProgressPlace } from './progress';

const worker = vi.hoisted(() => ({ ask: vi.fn(), end: vi.fn() }));
vi.mock('$lib/workers/files', () => ({ fileWorker: worker }));

const art = emptyArt({ width: 10, height: 10, unit: 'mm' }, 'layer');
const wish = (only: readonly string[] = []): LinesWish => ({
  kind: 'curves',
  range: { area: 'sheet', ...(only.length > 0 && { only: new Set(only) }) },
  lines: PLAIN_LINES,
});
const made = (data: string) => ({ data }) as LinesMade;
const place: ProgressPlace = { progress: null, say: () => {} };
/** Answers of the worker, to be given when the test says. */
let answers: { give(value: LinesMade | null): void; fail(error: Error): void }[] = [];
beforeEach(() => {
  answers = [];
  worker.end.mockReset();
  worker.ask.mockReset().mockImplementation(
    () =>
      new Promise((resolve, reject) => {
        answers.push({ give: resolve, fail: reject });
      }),
  );
});

it('lines are made ready once for one wish', async () => {
  const making = new LineMaking();
  const both = [making.make(place, art, wish(['a'])), making.make(place, art, wish(['a']))];
  answers[0]!.give(made('one'));
  expect(await Promise.all(both)).toEqual([made('one'), made('one')]);
  expect(making.made).toEqual(made('one'));
  await making.make(place, art, wish(['a']));
  expect(worker.ask).toHaveBeenCalledTimes(1);
});

it('a newer wish ends what is under way, and only the newest is shown', async () => {
  const making = new LineMaking();
  const first = making.make(place, art, wish(['a']));
  const second = making.make(place, art, wish(['b']));
  expect(worker.end).toHaveBeenCalledTimes(1);
  answers[1]!.give(made('b'));
  await second;
  // What an ended worker leaves behind is null; it takes nothing away.
  answers[0]!.give(null);
  await first;
  expect([making.made, making.trouble]).toEqual([made('b'), null]);
  // Another drawing is another wish.
  void making.make(place, { ...art }, wish(['b']));
  expect(worker.ask).toHaveBeenCalledTimes(3);
});

it('why there is nothing is said, and it is tried again when asked again', async () => {
  const making = new LineMaking();
  const first = making.make(place, art, wish());
  answers[0]!.fail(new Error('There is no line to draw or cut.'));
  expect(await first).toBeNull();
  expect([making.made, making.trouble]).toEqual([null, 'There is no line to draw or cut.']);
  const second = making.make(place, art, wish());
  // The worker died.
  answers[1]!.give(null);
  await second;
  expect(making.trouble).toBe('The lines were not made ready.');
  const third = making.make(place, art, wish());
  answers[2]!.give(made('there'));
  await third;
  expect([making.made, making.trouble]).toEqual([made('there'), null]);
});
