import { expect, it } from 'vitest';
import { workIn } from '@mirrot/core';
import { afterInput, countEffort, effortNow, keptEffort } from './effort';

/** A page and its browser's store, as far as efforts go. */
function page() {
  const kept = new Map<string, string>();
  const target = new EventTarget();
  let now = 100;
  return {
    kept,
    store: {
      getItem: (k: string) => kept.get(k) ?? null,
      setItem: (k: string, v: string) => void kept.set(k, v),
    },
    target: target as unknown as Window,
    clock: () => now,
    later: (seconds: number) => void (now += seconds),
    hear: (name: string, more: object = {}) =>
      void target.dispatchEvent(Object.assign(new Event(name), more)),
  };
}

it('counts presses of buttons and keys, and the time between what is done; held keys and keys beside others are none', () => {
  const p = page();
  const end = countEffort('a', p.target, p.clock, p.store);
  p.hear('pointerdown');
  p.later(2);
  p.hear('pointermove');
  p.later(1);
  p.hear('keydown', { key: 'j' });
  p.hear('keydown', { key: 'j', repeat: true });
  p.hear('keydown', { key: 'Shift' });
  expect(keptEffort('a', p.store)).toEqual({ seconds: 3, presses: 2 });
  p.later(4);
  // Time goes on while nothing is heard.
  expect(effortNow('a')).toEqual({ seconds: 7, presses: 2 });
  p.hear('pointermove');
  end();
  expect(effortNow('a')).toEqual({ seconds: 0, presses: 0 });
  expect(keptEffort('a', p.store)).toEqual({ seconds: 7, presses: 2 });
  p.later(4);
  p.hear('pointerdown');
  expect(keptEffort('a', p.store)).toEqual({ seconds: 7, presses: 2 });
});

it('goes on where the page was left, and keeps projects apart', () => {
  const p = page();
  countEffort('a', p.target, p.clock, p.store)();
  const end = countEffort('b', p.target, p.clock, p.store);
  p.hear('pointerdown');
  end();
  p.later(1000);
  const again = countEffort('b', p.target, p.clock, p.store);
  p.hear('pointerdown');
  p.later(5);
  p.hear('pointerdown');
  again();
  expect(keptEffort('b', p.store)).toEqual({ seconds: 5, presses: 3 });
  expect(keptEffort('a', p.store)).toEqual({ seconds: 0, presses: 0 });
});

it('counts a pause as half a minute, and clocks that jump never against anyone', () => {
  expect(afterInput({ seconds: 10, presses: 1 }, 7200, false).seconds).toBe(10 + workIn(Infinity));
  expect(afterInput({ seconds: 10, presses: 1 }, -3600, true)).toEqual({ seconds: 10, presses: 2 });
  expect(afterInput({ seconds: 10, presses: 1 }, NaN, true).seconds).toBe(10);
});

it('begins anew where what is kept makes no sense', () => {
  for (const text of ['', 'nonsense', '{"seconds":-4,"presses":1}', '{"seconds":1}', 'null'])
    expect(keptEffort('a', { getItem: () => text, setItem: () => {} })).toEqual({ seconds: 0, presses: 0 });
});
