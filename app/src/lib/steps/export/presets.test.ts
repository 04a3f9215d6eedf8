import { beforeEach, expect, it, vi } from 'vitest';
import { FIRST_EXPORT } from '$lib/desk/exporting';
import { MOST_PRESETS, presets, readPresets } from './presets.svelte';

let store: Record<string, string> = {};
beforeEach(() => {
  store = {};
  vi.stubGlobal('localStorage', { getItem: (key: string) => store[key] ?? null, setItem: (key: string, value: string) => void (store[key] = value) }); // prettier-ignore
  for (const { name } of presets.list) presets.forget(name);
});
const kept = () => readPresets(Object.values(store)[0]);

it('settings are kept under a name, put anew under it, and forgotten', () => {
  const asks = {
    ...FIRST_EXPORT,
    ppi: 600,
    lines: { ...FIRST_EXPORT.lines, uses: { layer: 'cut' as const } },
  };
  expect(presets.keep('  proof  ', asks)).toBe(true);
  // What is done on layers is of one project alone.
  expect(kept()).toEqual([{ name: 'proof', asks: { ...asks, lines: FIRST_EXPORT.lines } }]);
  presets.keep('proof', { ...FIRST_EXPORT, ppi: 72 });
  expect(kept().map(({ asks: { ppi } }) => ppi)).toEqual([72]);
  expect(presets.keep('   ', FIRST_EXPORT)).toBe(false);
  presets.forget('proof');
  expect(kept()).toEqual([]);
});

it('no more are kept than anyone looks through, the newest', () => {
  for (let n = 0; n < MOST_PRESETS + 5; n++) presets.keep(`p${n}`, FIRST_EXPORT);
  expect(kept()).toHaveLength(MOST_PRESETS);
  expect(kept().at(-1)!.name).toBe(`p${MOST_PRESETS + 4}`);
});

it('what another version wrote is read as far as it fits', () => {
  const { machine: _, ...older } = FIRST_EXPORT;
  const text = JSON.stringify([
    { name: 'older', asks: older },
    { name: 'wrong', asks: { ...FIRST_EXPORT, ppi: -1 } },
    { name: '', asks: FIRST_EXPORT },
    null,
    7,
  ]);
  expect(readPresets(text)).toEqual([{ name: 'older', asks: FIRST_EXPORT }]);
  expect([readPresets('{'), readPresets('{}'), readPresets(null)]).toEqual([[], [], []]);
});

it('where the browser keeps nothing, that is said and nothing changes', () => {
  vi.stubGlobal('localStorage', {
    getItem: () => null,
    setItem: () => {
      throw new Error('full');
    },
  });
  expect(presets.keep('x', FIRST_EXPORT)).toBe(false);
  expect(presets.list).toEqual([]);
});
