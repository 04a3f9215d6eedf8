import { FIRST_HABITS, HABITS_KEY, type HabitValues, type Store } from './habits.svelte';

/** The habits that a store remembers. What checks them is fetched only where there are any. */
export async function rememberedHabits(
  store: Store | undefined = globalThis.localStorage,
): Promise<HabitValues> {
  const text = store?.getItem(HABITS_KEY);
  return text ? (await import('./read-habits')).readHabits(text) : FIRST_HABITS;
}
