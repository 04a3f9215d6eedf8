import { solveLinear } from '../geometry/linear';
import { normalShare } from '../geometry/normal';

/** A bar seen through a blur, as it lies across its profile. Lengths as the profile's. */
export interface FittedBar {
  readonly middle: number;
  readonly width: number;
  /** Standard deviation of the blur, a Gaussian. */
  readonly blur: number;
  /** What is left of the profile, root mean square, share of the bar's height. */
  readonly off: number;
}

const ROUNDS = 30;
/** Blurs that the search begins with, as shares of the width it begins with. */
const BEGUN_WITH = [0.15, 0.5] as const;
const NUDGE = 1e-4;

const span = (values: ArrayLike<number>): number => {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < values.length; i++)
    [low, high] = [Math.min(low, values[i]!), Math.max(high, values[i]!)];
  return high - low;
};

/**
 * Width and blur of a bar together: the box through a Gaussian, on ground that may slope, which is nearest to a profile by
 * least squares (Marquardt 1963). After Steger (1998), who tells both from where the borders are steepest; here all of the
 * profile counts, since grain moves single places.
 *
 * @param profile values across the bar, evenly apart, its middle about in the middle
 * @param step length from one value to the next
 * @param width what it is about, to begin with
 * @returns null where nothing stands out of the ground
 */
export function fitBar(profile: ArrayLike<number>, step: number, width: number): FittedBar | null {
  const n = profile.length;
  // Six numbers are told from it.
  if (n < 7 || !(span(profile) > 1e-9)) return null;
  const at = (i: number): number => (i - (n - 1) / 2) * step;
  /** What is left when the best ground and height are taken, and that height. */
  const leftOf = ([c, h, logBlur]: readonly number[]): { left: Float64Array; height: number } | null => {
    const blur = Math.exp(logBlur!);
    const box = Float64Array.from({ length: n }, (_, i) => normalShare((at(i) - c! + h!) / blur) - normalShare((at(i) - c! - h!) / blur)); // prettier-ignore
    const rows = [0, 1, 2].map(() => [0, 0, 0]);
    const right = [0, 0, 0];
    for (let i = 0; i < n; i++) {
      const base = [1, at(i), box[i]!];
      for (let r = 0; r < 3; r++) {
        for (let k = 0; k < 3; k++) rows[r]![k]! += base[r]! * base[k]!;
        right[r]! += base[r]! * profile[i]!;
      }
    }
    const found = solveLinear(rows, right);
    if (!found) return null;
    const [ground, slope, height] = found as [number, number, number];
    return { left: Float64Array.from({ length: n }, (_, i) => profile[i]! - ground - slope * at(i) - height * box[i]!), height }; // prettier-ignore
  };
  const sum = (left: Float64Array): number => left.reduce((s, v) => s + v * v, 0);
  let best: (FittedBar & { readonly size: number }) | null = null;
  for (const share of BEGUN_WITH) {
    let here = [0, width / 2, Math.log(Math.max(step, share * width))];
    let now = leftOf(here);
    if (!now) continue;
    let damping = 1e-2;
    for (let round = 0; round < ROUNDS && damping < 1e6; round++) {
      const slopes = here.map((_, k) => {
        const moved = leftOf(here.map((v, m) => (m === k ? v + NUDGE : v)));
        return moved ? moved.left.map((v, i) => (v - now!.left[i]!) / NUDGE) : null;
      });
      if (slopes.includes(null)) break;
      const rows = slopes.map((a, r) =>
        slopes.map((b, k) => {
          const dots = a!.reduce((s, v, i) => s + v * b![i]!, 0);
          return r === k ? dots * (1 + damping) + 1e-12 : dots;
        }),
      );
      const way = solveLinear(
        rows,
        slopes.map((a) => -a!.reduce((s, v, i) => s + v * now!.left[i]!, 0)),
      );
      const there = way && here.map((v, k) => v + way[k]!);
      const next = there && there[1]! > 0 && there[1]! < n * step && Math.abs(there[2]!) < 5 ? leftOf(there) : null; // prettier-ignore
      if (next && sum(next.left) < sum(now.left)) {
        const gain = 1 - sum(next.left) / sum(now.left);
        [here, now, damping] = [there!, next, damping / 5];
        if (gain < 1e-6) break;
      } else damping *= 5;
    }
    const size = sum(now.left);
    const [middle, half, logBlur] = here as [number, number, number];
    const off = Math.sqrt(size / n) / Math.max(1e-12, Math.abs(now.height));
    if (Math.abs(now.height) > 0 && !(best && best.size <= size))
      best = { middle, width: 2 * half, blur: Math.exp(logBlur), off, size };
  }
  if (!best) return null;
  const { size: _, ...bar } = best;
  return bar;
}
