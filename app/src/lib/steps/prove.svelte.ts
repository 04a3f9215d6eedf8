import { TOLERANCES } from '@mirrot/core';
import { untrack } from 'svelte';
import type { Workplace } from '$lib/desk/workplace.svelte';

/** Milliseconds without a change after which the drawing is proved anew. */
const RESTS_MS = 250;

/** Has the drawing proved for as long as a component is there, anew after changes. To be called while it is made. */
export function proveWhileShown(workplace: () => Workplace): void {
  $effect(() => {
    const w = workplace();
    const { desk } = w;
    const { proving } = desk;
    const art = desk.drawing.kept;
    const by = TOLERANCES[proving.use];
    if (desk.pointing.pressing) return;
    const ask = (): void => proving.ask(w.project.id, art, by);
    // The first time at once.
    if (untrack(() => proving.found) === null) return untrack(ask);
    const resting = setTimeout(ask, RESTS_MS);
    return () => clearTimeout(resting);
  });
}
