import { untrack } from 'svelte';
import type { Looking } from '$lib/desk/looking.svelte';
import { uncovered, type View } from '$lib/desk/view';

/** Room drawn beyond the bed's edges, so that a pan shows no blank at once; bed pixels. */
export const MARGIN_PX = 200;
/** Milliseconds without a change after which the view rests and is drawn anew. */
const RESTS_AFTER_MS = 80;
/** A redraw in mid-gesture may take this share of the time at most. */
const REDRAW_SHARE = 1 / 25;

/**
 * The view that is drawn. What is drawn is moved as one composited layer while the view moves, and drawn anew when it
 * rests, or before a blank would show. To be made while a component is.
 */
export class DrawnView {
  view: View = $state.raw()!;
  #resting: ReturnType<typeof setTimeout> | undefined;
  #redrawnAt = -Infinity;
  #cost = 0;

  constructor(looking: Looking) {
    this.view = untrack(() => looking.view);
    $effect(() => {
      const { view } = looking;
      untrack(() => this.#follow(view, looking));
    });
    $effect(() => () => clearTimeout(this.#resting));
  }

  #redraw(looking: Looking): void {
    clearTimeout(this.#resting);
    this.view = looking.view;
    this.#redrawnAt = performance.now();
    requestAnimationFrame(() =>
      requestAnimationFrame(() => (this.#cost = performance.now() - this.#redrawnAt)),
    );
  }
  #follow(view: View, looking: Looking): void {
    if (view === this.view) return;
    clearTimeout(this.#resting);
    const free = performance.now() - this.#redrawnAt > this.#cost / REDRAW_SHARE;
    if (free && uncovered(this.view, view, looking.bed, MARGIN_PX)) this.#redraw(looking);
    else this.#resting = setTimeout(() => this.#redraw(looking), RESTS_AFTER_MS);
  }
}
