import { oklabOfLinear, type Oklab } from '../colour/oklab';

/** Halvings that find it to a thousandth. */
const HALVINGS = 10;

/**
 * The share of the second colour's light at which a mixture looks half way from the first to it, in OKLab.
 *
 * @param before light of red, green and blue, 0 to 1, as is `after`
 */
export function looksHalfWay(before: readonly number[], after: readonly number[]): number {
  const mixed = (share: number): Oklab => {
    const [r, g, b] = before.map((v, c) => Math.max(0, v + share * (after[c]! - v))) as [
      number,
      number,
      number,
    ];
    return oklabOfLinear(r, g, b);
  };
  const [a, b] = [mixed(0), mixed(1)];
  const way = b.map((v, c) => v - a[c]!);
  const whole = way.reduce((s, v) => s + v * v, 0);
  if (!(whole > 1e-8)) return 0.5;
  let [low, high] = [0, 1];
  for (let k = 0; k < HALVINGS; k++) {
    const share = (low + high) / 2;
    const here = mixed(share);
    const along = here.reduce((s, v, c) => s + (v - a[c]!) * way[c]!, 0);
    if (along < whole / 2) low = share;
    else high = share;
  }
  return (low + high) / 2;
}
