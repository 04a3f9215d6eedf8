/**
 * Gauss–Legendre abscissae and weights on [-1, 1], n = 16, positive half.
 * Source: Abramowitz & Stegun, Handbook of Mathematical Functions, table 25.4.
 */
export const GAUSS_16: readonly (readonly [abscissa: number, weight: number])[] = [
  [0.095012509837637, 0.189450610455069],
  [0.281603550779259, 0.182603415044924],
  [0.458016777657227, 0.169156519395003],
  [0.617876244402644, 0.149595988816577],
  [0.755404408355003, 0.124628971255534],
  [0.865631202387832, 0.095158511682493],
  [0.944575023073233, 0.062253523938648],
  [0.98940093499165, 0.027152459411754],
];

/** Integral of `f` from `a` to `b` by 16-point Gauss–Legendre quadrature: exact for polynomials up to degree 31. */
export function integrate(f: (t: number) => number, a: number, b: number): number {
  const half = (b - a) / 2;
  const middle = (a + b) / 2;
  let sum = 0;
  for (const [x, w] of GAUSS_16) sum += w * (f(middle - half * x) + f(middle + half * x));
  return sum * half;
}
