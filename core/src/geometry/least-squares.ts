/** A row of a sparse system: which unknowns it has, and by how much. */
export interface SparseRow {
  readonly at: readonly number[];
  readonly by: readonly number[];
  readonly weight: number;
  readonly right: number;
}

/**
 * Damped weighted least squares of a sparse system by conjugate gradients on its normal equations, scaled by their diagonal.
 * Sources: Hestenes and Stiefel, "Methods of conjugate gradients for solving linear systems" (1952); damping of each
 * unknown by its own diagonal after Marquardt (1963).
 *
 * @param n unknowns
 * @param damping share of its diagonal that every unknown is held by, and `hold` by how much besides
 * @param rounds at most; after few the way is right, if not the length, which is enough for one step of many
 * @returns the unknowns, finite even where the rows say nothing of them as long as `hold` is above 0
 */
export function solveDamped(
  rows: readonly SparseRow[],
  n: number,
  damping: number,
  hold: number,
  rounds = 2 * n,
): Float64Array {
  // Row after row in one piece: this is gone through in every round.
  const first = new Int32Array(rows.length + 1);
  rows.forEach(({ at }, i) => (first[i + 1] = first[i]! + at.length));
  const at = new Int32Array(first[rows.length]!);
  const by = new Float64Array(at.length);
  const diagonal = new Float64Array(n);
  const r = new Float64Array(n);
  rows.forEach((row, i) => {
    // Each row by the root of its weight, on both sides.
    const root = Math.sqrt(row.weight);
    row.at.forEach((j, k) => {
      const v = row.by[k]! * root;
      at[first[i]! + k] = j;
      by[first[i]! + k] = v;
      diagonal[j] = diagonal[j]! + v * v;
      r[j] = r[j]! + v * root * row.right;
    });
  });
  const x = new Float64Array(n);
  const held = diagonal.map((d) => d * damping + hold);
  const scale = diagonal.map((d, i) => 1 / (d + held[i]! || 1));
  const p = r.map((v, i) => v * scale[i]!);
  const q = new Float64Array(n);
  let rho = 0;
  for (let i = 0; i < n; i++) rho += r[i]! * p[i]!;
  const enough = 1e-14 * rho;
  for (let round = 0; round < rounds && rho > enough; round++) {
    for (let i = 0; i < n; i++) q[i] = held[i]! * p[i]!;
    for (let i = 0; i < rows.length; i++) {
      const end = first[i + 1]!;
      let along = 0;
      for (let k = first[i]!; k < end; k++) along += by[k]! * p[at[k]!]!;
      for (let k = first[i]!; k < end; k++) q[at[k]!] = q[at[k]!]! + along * by[k]!;
    }
    let pq = 0;
    for (let i = 0; i < n; i++) pq += p[i]! * q[i]!;
    if (!(pq > 0)) break;
    const step = rho / pq;
    let next = 0;
    for (let i = 0; i < n; i++) {
      x[i] = x[i]! + step * p[i]!;
      r[i] = r[i]! - step * q[i]!;
      next += r[i]! * r[i]! * scale[i]!;
    }
    const on = next / rho;
    rho = next;
    for (let i = 0; i < n; i++) p[i] = r[i]! * scale[i]! + on * p[i]!;
  }
  return x;
}
