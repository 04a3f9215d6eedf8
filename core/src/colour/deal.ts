/** What each of several shapes gets of a range, by its place in it, and how many neighbours still have the same. */
export interface Dealt {
  readonly places: readonly number[];
  readonly alike: number;
}

/**
 * Deals a range over shapes by the lightness of what lies beneath each: the lightest shape gets the first place, the darkest
 * the last, the others between by their lightness. Where neighbours are given, they get no place twice as long as there is
 * another: shapes with the most different neighbours choose first, each the free place nearest to its own.
 * Source of that order: Brélaz, "New methods to color the vertices of a graph" (1979).
 *
 * @param lightness of each shape, OKLab; null where nothing of the picture is beneath: it is taken for the middle
 * @param count of places in the range, light first
 * @param neighbours of each shape, by their place in the list; left out, neighbours may be alike
 */
export function deal(
  lightness: readonly (number | null)[],
  count: number,
  neighbours?: readonly (readonly number[])[],
): Dealt {
  const known = lightness.filter((l) => l !== null);
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const wanted = lightness.map((l) =>
    l === null || high === low ? (count - 1) / 2 : ((high - l) / (high - low)) * (count - 1),
  );
  const nearest = wanted.map((at) => Math.round(at));
  if (!neighbours) return { places: nearest, alike: 0 };
  const places = new Array<number>(lightness.length).fill(-1);
  const takenBy = neighbours.map(() => new Set<number>());
  const left = new Set(lightness.keys());
  let alike = 0;
  while (left.size > 0) {
    let next = -1;
    for (const i of left) {
      const [mine, best] = [takenBy[i]!.size, next < 0 ? -1 : takenBy[next]!.size];
      if (mine > best || (mine === best && neighbours[i]!.length > neighbours[next]!.length)) next = i;
    }
    left.delete(next);
    const taken = takenBy[next]!;
    let place = nearest[next]!;
    for (let k = 0, far = Infinity; k < count; k++) {
      const d = Math.abs(k - wanted[next]!);
      if (!taken.has(k) && d < far) [place, far] = [k, d];
    }
    places[next] = place;
    for (const other of neighbours[next]!) {
      if (places[other] === place) alike++;
      takenBy[other]!.add(place);
    }
  }
  return { places, alike };
}
