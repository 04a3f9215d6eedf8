import { emptyArt, TOLERANCES, type Finding } from '@mirrot/core';
import { beforeEach, expect, it, vi } from 'vitest';
import { Proving } from './proving.svelte';

const worker = vi.hoisted(() => ({ ask: vi.fn(), end: vi.fn() }));
vi.mock('$lib/workers/proof', () => ({ proofWorker: worker }));

const art = emptyArt({ width: 10, height: 10, unit: 'mm' }, 'layer');
const finding = (key: string): Finding => ({ kind: 'kink', key, shapes: ['s'], at: null, amount: 2 });
let store: Record<string, string> = {};
let answers: ((found: Finding[] | null) => void)[] = [];
const settled = () => new Promise((done) => setTimeout(done));
beforeEach(() => {
  store = {};
  answers = [];
  vi.stubGlobal('localStorage', { getItem: (key: string) => store[key] ?? null, setItem: (key: string, value: string) => void (store[key] = value) }); // prettier-ignore
  worker.ask.mockReset().mockImplementation(() => new Promise((resolve) => answers.push(resolve)));
});

it('a drawing is proved once; of changes that come meanwhile the newest is proved next', async () => {
  const proving = new Proving();
  const ask = (one: typeof art) => proving.ask('p', one, TOLERANCES.screen);
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
  const proving = new Proving();
  proving.ask('p', art, TOLERANCES.screen);
  answers[0]!([finding('one')]);
  await settled();
  proving.ask('p', { ...art }, TOLERANCES.screen);
  answers[1]!(null);
  await settled();
  expect(proving.trouble).toMatch(/not proved/);
  expect(proving.found).toHaveLength(1);
  const again = { ...art };
  proving.ask('p', again, TOLERANCES.screen);
  answers[2]!([]);
  await settled();
  expect([proving.trouble, proving.found]).toEqual([null, []]);
});

it('what is put aside stays so, with its reason, in its project, until it is taken up again', async () => {
  const proving = new Proving();
  proving.ask('p', art, TOLERANCES.screen);
  answers[0]!([finding('one'), finding('two')]);
  await settled();
  expect(proving.putAside('one', 'the paper is so')).toBe(true);
  expect(proving.open!.map(({ key }) => key)).toEqual(['two']);
  const later = new Proving();
  later.ask('p', art, TOLERANCES.screen);
  expect(later.aside.get('one')).toBe('the paper is so');
  const other = new Proving();
  other.ask('q', art, TOLERANCES.screen);
  expect(other.aside.size).toBe(0);
  later.putAside('one', null);
  expect([...later.aside]).toEqual([]);
  store['mirrot-findings-aside-r'] = '{"no":"list"}';
  other.ask('r', art, TOLERANCES.screen);
  expect(other.aside.size).toBe(0);
});
