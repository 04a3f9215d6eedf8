import { expect, it } from 'vitest';
import { newestWish, workLoop } from './work-loop';

/** Work that ends when it is let. */
function held() {
  const open: (() => void)[] = [];
  return {
    work: () => new Promise<void>((done) => open.push(done)),
    async letGo() {
      open.shift()!();
      await Promise.resolve();
      await Promise.resolve();
      await Promise.resolve();
    },
    get count() {
      return open.length;
    },
  };
}

it('of many wishes the first and the newest are worked on, one at a time', async () => {
  const gate = held();
  const done: number[] = [];
  const queue = newestWish<number>(async (n) => {
    await gate.work();
    done.push(n);
  });
  for (const n of [1, 2, 3, 4]) queue.ask(n);
  expect([gate.count, queue.waits]).toEqual([1, true]);
  await gate.letGo();
  expect(done).toEqual([1]);
  expect([gate.count, queue.waits]).toEqual([1, false]);
  await gate.letGo();
  expect(done).toEqual([1, 4]);
  queue.ask(5);
  queue.ask(6);
  queue.drop();
  await gate.letGo();
  expect(done).toEqual([1, 4, 5]);
});

it('looks for more after each piece, rests when there is none, and goes on when woken, also after one that failed', async () => {
  const list = ['a', 'b'];
  const done: string[] = [];
  let fails = false;
  const wake = workLoop(() => {
    const next = list.shift();
    if (next === undefined) return null;
    return Promise.resolve().then(() => {
      if (fails) throw new Error(next);
      done.push(next);
    });
  });
  await wake();
  expect(done).toEqual(['a', 'b']);
  list.push('c');
  fails = true;
  await expect(wake()).rejects.toThrow('c');
  fails = false;
  list.push('d');
  await wake();
  expect(done).toEqual(['a', 'b', 'd']);
});
