import type { Art, Finding, MeasuredPath, Tolerances } from '@mirrot/core';
import { proofWorker } from '$lib/workers/proof';
import { newestWish } from './work-loop';

/** What a drawing is proved for. */
export const PROOF_USES = ['screen', 'print', 'cutter', 'pen'] as const;
export type ProofUse = (typeof PROOF_USES)[number];

/** Tolerances that were set otherwise than the uses have them. */
export type OwnTolerances = Partial<Record<ProofUse, Partial<Tolerances>>>;

/** What proving asks of the desk it belongs to. */
export interface ProvingHost {
  readonly drawing: { readonly kept: Art };
}

/** What is to be proved. */
interface Wish {
  readonly art: Art;
  readonly tolerances: Tolerances;
  /** What was measured of it; worked out when its turn has come. */
  readonly measured: () => readonly MeasuredPath[];
}

/** What the proof has found in the drawing, looked for anew after changes, away from the page. */
export class Proving {
  use: ProofUse = $state('screen');
  /** What was found last, perhaps in the drawing as it was a moment ago; null before the first time. */
  found: readonly Finding[] | null = $state.raw(null);
  /** Tolerances of one's own; null until they are looked for (`tolerancesOf`). */
  own: OwnTolerances | null = $state.raw(null);
  /** The one that is looked at, by its key. */
  shown: string | null = $state(null);
  /** Why there is nothing, in a sentence. */
  trouble: string | null = $state(null);
  #asked: readonly unknown[] = [];
  readonly #wishes = newestWish<Wish>(async ({ art, tolerances, measured }) => {
    try {
      const found = await proofWorker.ask((work) => work.findings(art, tolerances, measured()));
      if (found) this.found = found;
      this.trouble = found ? null : 'The drawing was not proved. It is tried again after the next change.';
    } catch (error) {
      this.trouble = (error as Error).message;
    }
  });

  readonly #host: ProvingHost;
  readonly #aside = $derived.by(
    () => new Map(this.#host.drawing.kept.aside.map(({ id, reason }) => [id, reason] as const)),
  );

  constructor(host: ProvingHost) {
    this.#host = host;
  }

  /** Those put aside, by key, with the reason. */
  get aside(): ReadonlyMap<string, string> {
    return this.#aside;
  }

  /** Those that are not put aside; null before the first time. */
  get open(): readonly Finding[] | null {
    return this.found && this.found.filter(({ key }) => !this.aside.has(key));
  }

  /**
   * Has a drawing proved, unless it was just that; of several wishes at once the newest counts.
   *
   * @param state changes with what was measured
   */
  ask(art: Art, tolerances: Tolerances, state: unknown, measured: Wish['measured']): void {
    const asked = [art, tolerances, state];
    if (asked.every((one, i) => one === this.#asked[i]) && !this.trouble) return;
    this.#asked = asked;
    this.#wishes.ask({ art, tolerances, measured });
  }
}
