import { untrack } from 'svelte';
import { measuredPaths } from '$lib/desk/measured';
import { tolerancesOf } from './tolerances';
import type { Workplace } from '$lib/desk/workplace.svelte';

/** Milliseconds without a change after which the drawing is proved anew. */
const RESTS_MS = 250;

/** Has the drawing proved for as long as a component is there, anew after changes. To be called while it is made. */
export function proveWhileShown(workplace: () => Workplace): void {
  $effect(() => {
    const { desk } = workplace();
    const { proving, picture, drawing } = desk;
    const art = drawing.kept;
    const by = tolerancesOf(proving);
    // Once all lines are measured against the picture, that is proved, too.
    const measured = picture.drifts.all;
    if (desk.pointing.pressing) return;
    const ask = (): void =>
      proving.ask(art, by, measured, () => measuredPaths(picture.drifts, art, by.drift / 2));
    // The first time at once.
    if (untrack(() => proving.found) === null) return untrack(ask);
    const resting = setTimeout(() => untrack(ask), RESTS_MS);
    return () => clearTimeout(resting);
  });
}
