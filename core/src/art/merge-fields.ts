import { same } from './same';

export type Fields = Readonly<Record<string, unknown>>;

/** Picks between values field by field: who changed it has it, and where both did, mine. */
export function mergeFields(
  base: Fields | undefined,
  mine: Fields,
  theirs: Fields,
  conflict: () => void,
): Fields {
  if (same(mine, theirs)) return mine;
  const out: Record<string, unknown> = {};
  for (const key of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    const [b, m, t] = [base?.[key], mine[key], theirs[key]];
    const taken = same(b, m) ? t : m;
    if (!same(b, m) && !same(b, t) && !same(m, t)) conflict();
    if (taken !== undefined) out[key] = taken;
  }
  return out;
}
