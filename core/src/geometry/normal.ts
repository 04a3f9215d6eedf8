const SQRT_2PI = Math.sqrt(2 * Math.PI);

/**
 * Share of a normal distribution below x standard deviations. Source: Abramowitz & Stegun 26.2.17 (to 7.5e-8), from memory.
 */
export function normalShare(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    (Math.exp((-x * x) / 2) / SQRT_2PI) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x >= 0 ? 1 - tail : tail;
}

/**
 * The place below which a share of a normal distribution lies, in standard deviations: Abramowitz & Stegun 26.2.23 (to
 * 4.5e-4, from memory), bettered by one step of Newton's.
 *
 * @param share between 0 and 1; what is beyond one in ten thousand of either end counts as that
 */
export function normalQuantile(share: number): number {
  const p = Math.min(1 - 1e-4, Math.max(1e-4, share));
  const t = Math.sqrt(-2 * Math.log(Math.min(p, 1 - p)));
  const size =
    t - (2.515517 + t * (0.802853 + t * 0.010328)) / (1 + t * (1.432788 + t * (0.189269 + t * 0.001308)));
  const x = p < 0.5 ? -size : size;
  return x - ((normalShare(x) - p) * SQRT_2PI) / Math.exp((-x * x) / 2);
}
