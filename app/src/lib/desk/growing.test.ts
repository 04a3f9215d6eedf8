import { emptyArt } from '@mirrot/core';
import { beforeEach, expect, it, vi } from 'vitest';
import { Growing } from './growing.svelte';

const worker = vi.hoisted(() => ({ ask: vi.fn(), end: vi.fn(), generation: 1 }));
vi.mock('$lib/workers/growth', () => ({ growthWorker: worker }));

const art = emptyArt({ width: 10, height: 10, unit: 'mm' }, 'layer');
const known = { count: 9, anchors: new Int32Array(10), workMs: new Float64Array(10) };
const place = { progress: null, say: vi.fn() };
const settled = () => new Promise((done) => setTimeout(done));
let answers: ((answer: unknown) => void)[] = [];
beforeEach(() => {
  answers = [];
  worker.generation = 1;
  worker.end.mockReset();
  worker.ask.mockReset().mockImplementation(() => new Promise((resolve) => answers.push(resolve)));
});

async function opened(): Promise<Growing> {
  const growing = new Growing();
  const opening = growing.open('p', place);
  answers.shift()!(known);
  await opening;
  return growing;
}

it('a replay begins at its end; of moments wished for in a row only the newest is worked out next', async () => {
  const growing = await opened();
  expect([growing.at, worker.ask.mock.calls.length]).toEqual([9, 2]);
  for (const at of [3, 4, 5]) growing.goTo(at);
  growing.goTo(-2);
  expect(growing.at).toBe(0);
  answers.shift()!(art);
  await settled();
  expect(growing.art).toBe(art);
  expect(worker.ask).toHaveBeenCalledTimes(3);
});

it('a worker that dies, or is another one by now, is told of, and what was seen stays', async () => {
  const growing = await opened();
  answers.shift()!(art);
  await settled();
  growing.goTo(4);
  answers.shift()!(null);
  await settled();
  expect([growing.trouble, growing.art]).toEqual(['The replay was broken off. Open it again.', art]);
  const again = growing.open('p', place);
  expect(growing.trouble).toBeNull();
  answers.shift()!(known);
  await again;
  worker.generation = 2;
  growing.goTo(1);
  expect(growing.trouble).toMatch(/Open it again/);
});

it('what cannot be fetched is said where it stands', async () => {
  const growing = new Growing();
  worker.ask.mockRejectedValueOnce(new Error('The server is away.'));
  await growing.open('p', place);
  expect([growing.trouble, growing.known, place.say.mock.calls.length]).toEqual([
    'The server is away.',
    null,
    0,
  ]);
});

it('it is held while anyone uses it', async () => {
  const growing = new Growing();
  const first = growing.use('p', place);
  const second = growing.use('p', place);
  expect(worker.ask).toHaveBeenCalledTimes(1);
  first();
  expect(worker.end).not.toHaveBeenCalled();
  second();
  expect(worker.end).toHaveBeenCalledTimes(1);
});
