import { emptyArt, TOLERANCES, type Finding } from '@mirrot/core';
import { beforeEach, expect, it, vi } from 'vitest';
import { Proving } from './proving.svelte';

const worker = vi.hoisted(() => ({ ask: vi.fn(), end: vi.fn() }));
vi.mock('$lib/workers/proof', () => ({ proofWorker: worker }));

const art = emptyArt({ width: 10, height: 10, unit: 'mm' }, 'layer');
const finding = (key: string): Finding => ({ kind: 'kink', key, shapes: ['s'], at: null, amount: 2 });
let answers: ((found: Finding[] | null) => void)[] = [];
const settled = () => new Promise((done) => setTimeout(done));
beforeEach(() => {
  answers = [];
  worker.ask.mockReset().mockImplementation(() => new Promise((resolve) => answers.push(resolve)));
});

it('a drawing is proved once; of changes that come meanwhile the newest is proved next', async () => {
  const proving = new Proving({ drawing: { kept: art } });
  const ask = (one: typeof art) => proving.ask(one, TOLERANCES.screen, null, () => []);
  ask(art);
  ask(art);
  ask({ ...art });
  const newest = { ...art };
  ask(newest);
  expect(worker.ask).toHaveBeenCalledTimes(1);
  answers[0]!([finding('one')]);
  await settled();
  expect(proving.open!.map(({ key }) => key)).toEqual(['one']);
  expect(worker.ask).toHaveBeenCalledTimes(2);
  answers[1]!([]);
  await settled();
  expect(proving.open).toEqual([]);
  ask(newest);
  expect(worker.ask).toHaveBeenCalledTimes(2);
});

it('a worker that dies is told of, takes nothing away, and is asked again', async () => {
  const proving = new Proving({ drawing: { kept: art } });
  proving.ask(art, TOLERANCES.screen, null, () => []);
  answers[0]!([finding('one')]);
  await settled();
  proving.ask({ ...art }, TOLERANCES.screen, null, () => []);
  answers[1]!(null);
  await settled();
  expect(proving.trouble).toMatch(/not proved/);
  expect(proving.found).toHaveLength(1);
  const again = { ...art };
  proving.ask(again, TOLERANCES.screen, null, () => []);
  answers[2]!([]);
  await settled();
  expect([proving.trouble, proving.found]).toEqual([null, []]);
});

it('what the drawing says is put aside stays so, with its reason', async () => {
  const host = { drawing: { kept: { ...art, aside: [{ id: 'one', reason: 'the paper is so' }] } } };
  const proving = new Proving(host);
  proving.ask(art, TOLERANCES.screen, null, () => []);
  answers[0]!([finding('one'), finding('two')]);
  await settled();
  expect(proving.open!.map(({ key }) => key)).toEqual(['two']);
  expect(proving.aside.get('one')).toBe('the paper is so');
});

it('what was measured is worked out when its turn has come, and proved anew when it changes', async () => {
  const proving = new Proving({ drawing: { kept: art } });
  const measured = vi.fn(() => []);
  proving.ask(art, TOLERANCES.screen, 1, measured);
  proving.ask(art, TOLERANCES.screen, 2, measured);
  proving.ask(art, TOLERANCES.screen, 3, measured);
  answers[0]!([]);
  await settled();
  answers[1]!([]);
  await settled();
  expect(worker.ask).toHaveBeenCalledTimes(2);
});
