import { solveLinear } from './linear';

/** Rows of a tridiagonal matrix: what stands before, on and after the diagonal in each. */
export interface Tridiagonal {
  /** `before[0]` stands in the top right corner when the system is cyclic, else it is not read. */
  readonly before: Float64Array;
  readonly on: Float64Array;
  /** The last one stands in the bottom left corner when the system is cyclic, else it is not read. */
  readonly after: Float64Array;
}

/**
 * Solves a tridiagonal system in linear time: Gaussian elimination without pivoting (Thomas's algorithm; Golub and Van
 * Loan, Matrix Computations, 4.3), which is stable where the diagonal outweighs its row.
 *
 * @param right as long as the matrix has rows
 * @returns x, or null when a pivot vanishes
 */
export function solveTridiagonal(
  { before, on, after }: Tridiagonal,
  right: ArrayLike<number>,
): Float64Array | null {
  const n = on.length;
  const c = new Float64Array(n);
  const x = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const b = i > 0 ? before[i]! : 0;
    const pivot = on[i]! - b * (i > 0 ? c[i - 1]! : 0);
    const size = Math.abs(on[i]!) + Math.abs(b);
    if (!(Math.abs(pivot) > 1e-14 * size)) return null;
    c[i] = after[i]! / pivot;
    x[i] = (right[i]! - b * (i > 0 ? x[i - 1]! : 0)) / pivot;
  }
  for (let i = n - 2; i >= 0; i--) x[i]! -= c[i]! * x[i + 1]!;
  return x.every(Number.isFinite) ? x : null;
}

/**
 * The same with the two corners filled, as on a ring: the corners are parted off as a rank-one change (Sherman and
 * Morrison 1950; Press and others, Numerical Recipes, 2.7).
 */
export function solveCyclic(matrix: Tridiagonal, right: ArrayLike<number>): Float64Array | null {
  const { before, on, after } = matrix;
  const n = on.length;
  if (n < 3) {
    const rows = Array.from({ length: n }, () => new Array<number>(n).fill(0));
    for (let i = 0; i < n; i++) {
      rows[i]![(i - 1 + n) % n]! += before[i]!;
      rows[i]![i]! += on[i]!;
      rows[i]![(i + 1) % n]! += after[i]!;
    }
    const x = solveLinear(rows, Array.from(right));
    return x && Float64Array.from(x);
  }
  const [top, bottom] = [before[0]!, after[n - 1]!];
  const gamma = -on[0]!;
  const inner = Float64Array.from(on);
  inner[0]! -= gamma;
  inner[n - 1]! -= (top * bottom) / gamma;
  const u = new Float64Array(n);
  u[0] = gamma;
  u[n - 1] = bottom;
  const x = solveTridiagonal({ before, on: inner, after }, right);
  const z = solveTridiagonal({ before, on: inner, after }, u);
  if (!x || !z) return null;
  const k = (x[0]! + (top * x[n - 1]!) / gamma) / (1 + z[0]! + (top * z[n - 1]!) / gamma);
  return x.map((v, i) => v - k * z[i]!);
}
