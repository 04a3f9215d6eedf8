/** A row of a sparse system: which unknowns it has, and by how much. */
export interface SparseRow {
  readonly at: readonly number[];
  readonly by: readonly number[];
  readonly weight: number;
  readonly right: number;
}

/**
 * Damped weighted least squares of a sparse system: its normal equations by Cholesky's factors, of each row only what lies
 * from its first entry on, since no more than that can fill. Cheap where rows tie neighbouring unknowns, as along a path.
 * Sources: Jennings, "A compact storage scheme for the solution of symmetric linear simultaneous equations" (1966); damping
 * of each unknown by its own diagonal after Marquardt (1963).
 *
 * @param n unknowns
 * @param damping share of its diagonal that every unknown is held by, and `hold` by how much besides
 * @returns the unknowns; 0 for one of which the rows say nothing
 */
export function solveDamped(
  rows: readonly SparseRow[],
  n: number,
  damping: number,
  hold: number,
): Float64Array {
  const first = Int32Array.from({ length: n }, (_, i) => i);
  for (const { at } of rows) {
    const least = at.reduce((a, b) => Math.min(a, b), n);
    for (const i of at) first[i] = Math.min(first[i]!, least);
  }
  // Row i has its entries from column first[i] to i, at `base[i] + column`.
  const base = new Int32Array(n + 1);
  let size = 0;
  for (let i = 0; i < n; i++) {
    base[i] = size - first[i]!;
    size += i - first[i]! + 1;
  }
  const a = new Float64Array(size);
  const x = new Float64Array(n);
  for (const { at, by, weight, right } of rows)
    for (let k = 0; k < at.length; k++) {
      const i = at[k]!;
      const v = weight * by[k]!;
      x[i] = x[i]! + v * right;
      const row = base[i]!;
      for (let m = 0; m < at.length; m++) if (at[m]! <= i) a[row + at[m]!]! += v * by[m]!;
    }
  for (let i = 0; i < n; i++) {
    const row = base[i]!;
    for (let j = first[i]!; j < i; j++) {
      const other = base[j]!;
      let sum = a[row + j]!;
      for (let k = Math.max(first[i]!, first[j]!); k < j; k++) sum -= a[row + k]! * a[other + k]!;
      a[row + j] = sum / a[other + j]!;
    }
    const own = a[row + i]!;
    let left = own * (1 + damping) + hold;
    for (let k = first[i]!; k < i; k++) left -= a[row + k]! * a[row + k]!;
    // Nothing is left where nothing is said: the unknown stays.
    a[row + i] = left > 1e-12 * own ? Math.sqrt(left) : Infinity;
  }
  for (let i = 0; i < n; i++) {
    let sum = x[i]!;
    for (let k = first[i]!; k < i; k++) sum -= a[base[i]! + k]! * x[k]!;
    x[i] = sum / a[base[i]! + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    x[i] = x[i]! / a[base[i]! + i]!;
    for (let k = first[i]!; k < i; k++) x[k] = x[k]! - a[base[i]! + k]! * x[i]!;
  }
  return x;
}
