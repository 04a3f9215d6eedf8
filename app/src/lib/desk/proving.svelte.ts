import type { Art, Finding, Tolerances } from '@mirrot/core';
import { proofWorker } from '$lib/workers/proof';
import { newestWish } from './work-loop';

/** What a drawing is proved for. */
export const PROOF_USES = ['screen', 'print', 'cutter', 'pen'] as const;
export type ProofUse = (typeof PROOF_USES)[number];

const KEY = 'mirrot-findings-aside';

/** Findings put aside in a project, by their keys, with the reason; what is no such thing is none. */
function remembered(project: string): ReadonlyMap<string, string> {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(`${KEY}-${project}`) ?? '[]');
    if (!Array.isArray(kept)) return new Map();
    return new Map(kept.filter((one): one is [string, string] => Array.isArray(one) && one.length === 2 && one.every((text) => typeof text === 'string'))); // prettier-ignore
  } catch {
    return new Map();
  }
}

/** What the proof has found in the drawing, looked for anew after changes, away from the page. */
export class Proving {
  use: ProofUse = $state('screen');
  /** What was found last, perhaps in the drawing as it was a moment ago; null before the first time. */
  found: readonly Finding[] | null = $state.raw(null);
  /** Those put aside, by key, with the reason. */
  aside: ReadonlyMap<string, string> = $state.raw(new Map());
  /** The one that is looked at, by its key. */
  shown: string | null = $state(null);
  /** Why there is nothing, in a sentence. */
  trouble: string | null = $state(null);
  #project: string | null = null;
  #asked: { readonly art: Art; readonly use: ProofUse } | null = null;
  readonly #wishes = newestWish<{ readonly art: Art; readonly tolerances: Tolerances }>(
    async ({ art, tolerances }) => {
      try {
        const found = await proofWorker.ask((work) => work.findings(art, tolerances));
        if (found) this.found = found;
        this.trouble = found ? null : 'The drawing was not proved. It is tried again after the next change.';
      } catch (error) {
        this.trouble = (error as Error).message;
      }
    },
  );

  /** Those that are not put aside; null before the first time. */
  get open(): readonly Finding[] | null {
    return this.found && this.found.filter(({ key }) => !this.aside.has(key));
  }

  /** Has the drawing of a project proved, unless it was just that; of several wishes at once the newest counts. */
  ask(project: string, art: Art, tolerances: Tolerances): void {
    if (this.#project !== project) {
      this.#project = project;
      this.aside = remembered(project);
    }
    if (this.#asked?.art === art && this.#asked.use === this.use && !this.trouble) return;
    this.#asked = { art, use: this.use };
    this.#wishes.ask({ art, tolerances });
  }

  /** Puts one aside, and remembers why; with null it is open again. Tells whether the browser keeps that. */
  putAside(key: string, reason: string | null): boolean {
    const aside = new Map(this.aside);
    if (reason === null) aside.delete(key);
    else aside.set(key, reason);
    this.aside = aside;
    try {
      localStorage.setItem(`${KEY}-${this.#project}`, JSON.stringify([...aside]));
      return true;
    } catch {
      return false;
    }
  }
}
