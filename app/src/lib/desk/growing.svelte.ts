import type { Art } from '@mirrot/core';
import { growthWorker, type GrowthKnown } from '$lib/workers/growth';
import { withProgress, type ProgressPlace } from './progress';
import { newestWish } from './work-loop';

/** How the drawing grew, and the moment of it that is looked at. */
export class Growing {
  /** Null until it is fetched. */
  known: GrowthKnown | null = $state.raw(null);
  /** How many changes there had been at the moment that is wished for, and what was drawn then, perhaps a moment ago. */
  at = $state(0);
  art: Art | null = $state.raw(null);
  /** Why there is nothing, in a sentence. */
  trouble: string | null = $state(null);
  #generation = 0;
  readonly #wishes = newestWish<number>(async (at) => {
    const art = await growthWorker.ask((work) => work.artAt(at)).catch(() => null);
    if (art) this.art = art;
    // A worker that died has forgotten it: it is fetched anew when it is opened again.
    else this.trouble = 'The replay was broken off. Open it again.';
  });

  /** Fetches how a project's drawing grew up to now. */
  async open(project: string, place: ProgressPlace): Promise<void> {
    this.trouble = null;
    const failing: ProgressPlace = {
      get progress() {
        return place.progress;
      },
      set progress(progress) {
        place.progress = progress;
      },
      say: (text) => void (this.trouble = text),
    };
    const known = await withProgress(failing, 'Fetching how the drawing grew', growthWorker.end, () =>
      growthWorker.ask((work) => work.open(project)),
    );
    if (!known) return void (this.trouble ??= 'How the drawing grew was not fetched.');
    this.#generation = growthWorker.generation;
    this.known = known;
    this.goTo(known.count);
  }

  /** Looks at the moment after so many changes. */
  goTo(changes: number): void {
    const count = this.known?.count ?? 0;
    this.at = Math.min(count, Math.max(0, Math.round(changes)));
    if (growthWorker.generation === this.#generation) this.#wishes.ask(this.at);
    else this.trouble = 'The replay was broken off. Open it again.';
  }

  /** The drawing after so many changes; null where it cannot be had. */
  artAt = (changes: number): Promise<Art | null> => growthWorker.ask((work) => work.artAt(changes));

  #users = 0;
  /** Opens it for as long as it is used: by the last that gives it back it is forgotten. */
  use(project: string, place: ProgressPlace): () => void {
    if (this.#users++ === 0) void this.open(project, place);
    return () => {
      if (--this.#users > 0) return;
      this.known = null;
      this.art = null;
      growthWorker.end();
    };
  }
}

const all = new WeakMap<object, Growing>();
/** What is known of the growth of a workplace's drawing: the same wherever it is asked for. */
export function growingOf(workplace: object): Growing {
  let growing = all.get(workplace);
  if (!growing) all.set(workplace, (growing = new Growing()));
  return growing;
}
