import type { Desk } from '$lib/desk/desk.svelte';
import type { BedPointer, Grip } from './behaviour';

/** What grips a gradient's string. It comes with the string's marks (`gradient-string`): without them there is nothing to press. */
export const gradientGrip: { at: (desk: Desk, p: BedPointer) => Grip | null } = { at: () => null };
