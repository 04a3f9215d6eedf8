import { seeded } from '../seed';
import type { Oklab } from './oklab';

// k-means in OKLab. Sources: Lloyd, "Least squares quantization in PCM" (1982); first middles after Arthur and
// Vassilvitskii, "k-means++: the advantages of careful seeding" (2007).

/** Rounds in which middles settle, and how far they may still move when they have. */
const MOST_ROUNDS = 60;
const SETTLED = 1e-6;

export const apart2 = (a: Oklab, b: Oklab): number =>
  (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2;

function nearestTo(colour: Oklab, middles: readonly Oklab[]): { at: number; far2: number } {
  let [at, far2] = [0, Infinity];
  for (let k = 0; k < middles.length; k++) {
    const d = apart2(colour, middles[k]!);
    if (d < far2) [at, far2] = [k, d];
  }
  return { at, far2 };
}

/** Middles of groups of colours, and which group each colour is of. */
export interface Middles {
  readonly middles: readonly Oklab[];
  readonly owners: Uint16Array;
}

/**
 * Moves middles to the means of the colours nearest to them until they rest. A middle without colours stays.
 *
 * @param rounds at most
 */
export function settleMiddles(
  colours: readonly Oklab[],
  first: readonly Oklab[],
  rounds: number = MOST_ROUNDS,
): Middles {
  let middles = first;
  const owners = new Uint16Array(colours.length);
  for (let round = 0; round < rounds; round++) {
    const sums = middles.map(() => [0, 0, 0, 0] as [number, number, number, number]);
    colours.forEach((colour, i) => {
      const { at } = nearestTo(colour, middles);
      owners[i] = at;
      const sum = sums[at]!;
      sum[0] += colour[0];
      sum[1] += colour[1];
      sum[2] += colour[2];
      sum[3]++;
    });
    const next = sums.map(([l, a, b, n], k): Oklab => (n === 0 ? middles[k]! : [l / n, a / n, b / n]));
    const moved = Math.max(...next.map((m, k) => apart2(m, middles[k]!)));
    middles = next;
    if (moved < SETTLED ** 2) break;
  }
  return { middles, owners };
}

/** First middles: one colour by chance, each further one the likelier the farther it is from those before. */
export function firstMiddles(colours: readonly Oklab[], count: number, seed: number): Oklab[] {
  const random = seeded(seed);
  const far = new Float64Array(colours.length).fill(Infinity);
  const out: Oklab[] = [];
  while (out.length < count && colours.length > 0) {
    let pick = 0;
    if (out.length === 0) pick = Math.floor(random() * colours.length);
    else {
      let left = random() * far.reduce((sum, d) => sum + d, 0);
      if (!(left > 0)) break;
      while (pick < colours.length - 1 && (left -= far[pick]!) > 0) pick++;
    }
    const middle = colours[pick]!;
    out.push(middle);
    colours.forEach((colour, i) => (far[i] = Math.min(far[i]!, apart2(colour, middle))));
  }
  return out;
}
