/**
 * Where a hill's top lies beside its middle value, in steps, from values two steps (a pixel) either side: a parabola
 * through their logarithms, which is exact for the Gaussian that a blurred edge's slope is.
 */
export function hillTop(before: number, here: number, after: number): number {
  const a = Math.log(Math.max(before, 1e-9));
  const b = Math.log(Math.max(here, 1e-9));
  const c = Math.log(Math.max(after, 1e-9));
  const bend = a - 2 * b + c;
  return bend < 0 ? Math.max(-2, Math.min(2, (a - c) / bend)) : 0;
}
