/**
 * Values along a line without bumps shorter than a length: each the median of those within that length to either side.
 * A bump that fills less than half of such a window leaves no trace, a lasting change stays where it is.
 *
 * @param values one each `spacing`; NaN where there is none, which stays so
 * @param ring the last is followed by the first
 */
export function withoutBumps(
  values: readonly number[],
  detail: number,
  spacing: number,
  ring: boolean,
): number[] {
  const n = values.length;
  const reach = Math.min(Math.round(detail / spacing), Math.floor((n - 1) / 2));
  if (reach < 1) return [...values];
  return values.map((v, i) => {
    if (Number.isNaN(v)) return v;
    const about: number[] = [];
    // As far to either side as both go, so that a slope stays a slope.
    const far = ring ? reach : Math.min(reach, i, n - 1 - i);
    for (let k = i - far; k <= i + far; k++) {
      const w = values[(k + n) % n]!;
      if (!Number.isNaN(w)) about.push(w);
    }
    about.sort((a, b) => a - b);
    const half = about.length >> 1;
    return about.length % 2 === 1 ? about[half]! : (about[half - 1]! + about[half]!) / 2;
  });
}
