import type { Desk } from '$lib/desk/desk.svelte';
import type { BedPointer, Grip } from './behaviour';

// Pour and Weed are done now and then: what presses do then is fetched with what shows it.

type LineGrip = (desk: Desk, p: BedPointer) => Grip;
let grips: Readonly<Record<'pour' | 'weed', LineGrip>> | null = null;

export async function fetchLineGrips(): Promise<void> {
  if (grips) return;
  const [{ gripPour }, { gripWeed }] = await Promise.all([import('./pour'), import('./weed')]);
  grips = { pour: gripPour, weed: gripWeed };
}

/** What a press takes hold of; nothing, and a word, while that is still being fetched. */
export function gripLines(task: 'pour' | 'weed', desk: Desk, p: BedPointer): Grip {
  if (grips) return grips[task](desk, p);
  desk.say('This is still being fetched. Nothing was changed.');
  return {};
}
