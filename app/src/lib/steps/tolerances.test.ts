import { emptyArt, TOLERANCES } from '@mirrot/core';
import { expect, it, vi } from 'vitest';
import { Proving } from '$lib/desk/proving.svelte';
import { forgetTolerances, setTolerances, tolerancesOf } from './tolerances';

const art = emptyArt({ width: 10, height: 10, unit: 'mm' }, 'layer');

it('tolerances of one’s own are for one use, remembered, and taken back', () => {
  const store: Record<string, string> = {};
  vi.stubGlobal('localStorage', { getItem: (key: string) => store[key] ?? null, setItem: (key: string, value: string) => void (store[key] = value) }); // prettier-ignore
  forgetTolerances();
  const proving = new Proving({ drawing: { kept: art } });
  setTolerances(proving, { gap: 3 });
  setTolerances(proving, { kink: 9 });
  expect(tolerancesOf(proving)).toEqual({ ...TOLERANCES.screen, gap: 3, kink: 9 });
  proving.use = 'print';
  expect(tolerancesOf(proving)).toEqual(TOLERANCES.print);
  forgetTolerances();
  const later = new Proving({ drawing: { kept: art } });
  expect(tolerancesOf(later).gap).toBe(3);
  setTolerances(later, null);
  expect(tolerancesOf(later)).toEqual(TOLERANCES.screen);
  for (const broken of ['{"screen":{"gap":"x","nothing":4,"kink":-1}}', 'no', '[1]']) {
    store['mirrot-proof-tolerances'] = broken;
    forgetTolerances();
    expect(tolerancesOf(new Proving({ drawing: { kept: art } }))).toEqual(TOLERANCES.screen);
  }
  vi.unstubAllGlobals();
});
