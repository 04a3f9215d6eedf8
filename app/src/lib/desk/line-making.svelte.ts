import type { Art } from '@mirrot/core';
import { fileWorker, type LinesMade, type LinesWish } from '$lib/workers/files';
import { withProgress, type ProgressPlace } from './progress';

const textOf = (wish: LinesWish): string =>
  JSON.stringify(wish, (_, value: unknown) => (value instanceof Set ? [...(value as Set<unknown>)] : value));

/** Lines made ready in the worker for what is wished now: they are shown, written, and played on the bench. */
export class LineMaking {
  /** What was made last; it may be of an earlier wish while the next is worked on. */
  made: LinesMade | null = $state.raw(null);
  /** Why there is nothing, in a sentence. */
  trouble: string | null = $state.raw(null);
  #for: { readonly art: Art; readonly wish: string; readonly work: Promise<LinesMade | null> } | null = null;

  /**
   * Has lines made ready, unless they are already; what was under way for another wish is left.
   *
   * @returns null where they were not: `trouble` says why
   */
  make(place: ProgressPlace, art: Art, wish: LinesWish): Promise<LinesMade | null> {
    const text = textOf(wish);
    if (this.#for?.art === art && this.#for.wish === text) return this.#for.work;
    if (this.#for) fileWorker.end();
    this.trouble = null;
    const work = this.#ask(place, art, wish);
    const own = (this.#for = { art, wish: text, work: work.then(({ made }) => made) });
    void work.then(({ made, trouble }) => {
      if (this.#for !== own) return;
      this.made = made;
      this.trouble = trouble;
      // What was stopped or went wrong is tried again when it is asked for again.
      if (!made) this.#for = null;
    });
    return own.work;
  }

  async #ask(place: ProgressPlace, art: Art, wish: LinesWish) {
    let trouble = 'The lines were not made ready.';
    const made = await withProgress(place, 'Making the lines ready', fileWorker.end, async () => {
      try {
        return await fileWorker.ask((work) => work.lines(art, wish));
      } catch (error) {
        trouble = (error as Error).message;
        return null;
      }
    });
    return { made, trouble: made ? null : trouble };
  }
}
