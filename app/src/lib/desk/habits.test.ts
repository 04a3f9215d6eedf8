import { expect, it } from 'vitest';
import { createHabits, type Habits, type Store } from './habits.svelte';
import { rememberedHabits } from './remembered-habits';

const store = (start?: string): Store & { value: string | null } => ({
  value: start ?? null,
  getItem() {
    return this.value;
  },
  setItem(_key: string, value: string) {
    this.value = value;
  },
});

const habitsIn = async (kept: Store): Promise<Habits> => createHabits(await rememberedHabits(kept), kept);

it('habits are remembered from one desk to the next', async () => {
  const kept = store();
  const first = await habitsIn(kept);
  expect([first.carry, first.snapOn, first.straightOnly]).toEqual([true, true, false]);
  first.set({ carry: false, inkWidth: 3 });
  first.setSnap('edge', true);
  const next = await habitsIn(kept);
  expect(next.carry).toBe(false);
  expect(next.inkWidth).toBe(3);
  expect(next.snap).toEqual({ ...first.snap, edge: true });
});

it('what cannot be read is as at first, and a store that refuses stops nothing', async () => {
  for (const bad of ['not json', '[]', 'null', '{"inkWidth":99,"carry":"yes","snap":{"nothing":true}}']) {
    const habits = await habitsIn(store(bad));
    expect(habits.inkWidth).toBe(2);
    expect(habits.carry).toBe(true);
    expect(habits.snap.anchors).toBe(true);
  }
  const closed: Store = {
    getItem: () => null,
    setItem() {
      throw new Error('full');
    },
  };
  const habits = await habitsIn(closed);
  habits.set({ pen: true });
  expect(habits.pen).toBe(true);
  expect(createHabits().carry).toBe(true);
});
