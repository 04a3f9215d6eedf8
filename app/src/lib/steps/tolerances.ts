import { TOLERANCES, type Tolerances } from '@mirrot/core';
import { PROOF_USES, type OwnTolerances, type Proving, type ProofUse } from '$lib/desk/proving.svelte';

const KEY = 'mirrot-proof-tolerances';

/** Tolerances of one's own, as the browser remembers them; what is no such thing is none. */
function rememberedOwn(): OwnTolerances {
  try {
    const kept = JSON.parse(globalThis.localStorage?.getItem(KEY) ?? '{}') as OwnTolerances;
    const isOne = ([, value]: [string, unknown]): boolean => typeof value === 'number' && value >= 0;
    return Object.fromEntries(PROOF_USES.map((use) => [use, Object.fromEntries(Object.entries(kept[use] ?? {}).filter(isOne))])); // prettier-ignore
  } catch {
    return {};
  }
}
let remembered: OwnTolerances | null = null;

/** What was set otherwise than the uses have it. */
export const ownTolerances = ({ own }: Pick<Proving, 'own'>): OwnTolerances =>
  own ?? (remembered ??= rememberedOwn());

let last: { readonly use: ProofUse; readonly own: OwnTolerances; readonly of: Tolerances } | null = null;

/** How much is too much: what the use has, and what was set otherwise. The same object for as long as both stay. */
export function tolerancesOf(proving: Pick<Proving, 'use' | 'own'>): Tolerances {
  const { use } = proving;
  const own = ownTolerances(proving);
  if (last?.use === use && last.own === own) return last.of;
  const names = Object.keys(TOLERANCES[use]) as (keyof Tolerances)[];
  const of = Object.fromEntries(names.map((name) => [name, own[use]?.[name] ?? TOLERANCES[use][name]]));
  last = { use, own, of: of as unknown as Tolerances };
  return last.of;
}

/** Sets how much is too much for the use that is proved for, or goes back to what it has; remembered by the browser, as far as it does. */
export function setTolerances(proving: Proving, values: Partial<Tolerances> | null): void {
  const own = ownTolerances(proving);
  proving.own = { ...own, [proving.use]: values === null ? {} : { ...own[proving.use], ...values } };
  remembered = proving.own;
  try {
    globalThis.localStorage?.setItem(KEY, JSON.stringify(proving.own));
  } catch {
    // Then they are for this visit.
  }
}

/** Forgets what was read: what the browser remembers may be another's by now. */
export const forgetTolerances = (): void => void (remembered = null);
