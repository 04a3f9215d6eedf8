/**
 * Places in `values` that make up a longest rising run: what can stay where it is when a list is put in order.
 * Source: Fredman, "On computing the length of longest increasing subsequences", Discrete Mathematics 11 (1975).
 */
export function longestRising(values: readonly number[]): Set<number> {
  const ends: number[] = [];
  const before = new Int32Array(values.length).fill(-1);
  values.forEach((value, i) => {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (values[ends[middle]!]! < value) low = middle + 1;
      else high = middle;
    }
    if (low > 0) before[i] = ends[low - 1]!;
    ends[low] = i;
  });
  const kept = new Set<number>();
  for (let i = ends.at(-1) ?? -1; i >= 0; i = before[i]!) kept.add(i);
  return kept;
}

const sameOrder = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((id, i) => id === b[i]);

/** Of those in `base` too, the ids that stand elsewhere in `now` relative to the others. */
function movedIn(base: readonly string[], now: readonly string[]): Set<string> {
  const place = new Map(base.map((id, i) => [id, i]));
  const common = now.filter((id) => place.has(id));
  const kept = longestRising(common.map((id) => place.get(id)!));
  return new Set(common.filter((_, i) => !kept.has(i)));
}

/** The list with ids put in behind the nearest one before them in `source` that it has. */
function putIn(list: readonly string[], ids: ReadonlySet<string>, source: readonly string[]): string[] {
  const out = [...list];
  source.forEach((id, i) => {
    if (!ids.has(id)) return;
    let at = -1;
    for (let k = i - 1; k >= 0 && at < 0; k--) at = out.indexOf(source[k]!);
    out.splice(at + 1, 0, id);
  });
  return out;
}

const without = (list: readonly string[], ids: ReadonlySet<string>): Set<string> =>
  new Set(list.filter((id) => !ids.has(id)));

/**
 * Brings two orders of a list together that grew from one. What either side moved or added stands behind what it
 * stands behind there; where both moved one item, `mine` says. What a side does not have stands where it did.
 *
 * @param base every id in it is in `mine` or `theirs`
 * @returns every id of `mine` and `theirs` once
 */
export function mergeOrder(
  base: readonly string[],
  mine: readonly string[],
  theirs: readonly string[],
): string[] {
  if (sameOrder(mine, theirs) || sameOrder(base, theirs)) return [...mine];
  if (sameOrder(base, mine)) return [...theirs];
  const mineWhole = putIn(mine, without(base, new Set(mine)), base);
  const theirsWhole = putIn(theirs, without(base, new Set(theirs)), base);
  const inMine = new Set(mineWhole);
  const movedByMe = movedIn(base, mineWhole);
  const movedByThem = movedIn(base, theirsWhole);
  const placed = new Set(
    theirsWhole.filter((id) => !inMine.has(id) || (!movedByMe.has(id) && movedByThem.has(id))),
  );
  return putIn([...without(mineWhole, placed)], placed, theirsWhole);
}
