/**
 * Solves A·x = b by Gaussian elimination with partial pivoting (Golub and Van Loan, Matrix Computations, 3.4).
 *
 * @param rows the square matrix A, row by row; left as it is
 * @param right b, as long as A has rows
 * @returns x, or null when A has no inverse
 */
export function solveLinear(rows: readonly (readonly number[])[], right: readonly number[]): number[] | null {
  const n = rows.length;
  const a = rows.map((row, i) => [...row, right[i]!]);
  for (let column = 0; column < n; column++) {
    let pivot = column;
    for (let i = column + 1; i < n; i++)
      if (Math.abs(a[i]![column]!) > Math.abs(a[pivot]![column]!)) pivot = i;
    [a[column], a[pivot]] = [a[pivot]!, a[column]!];
    const top = a[column]!;
    if (!(Math.abs(top[column]!) > 0)) return null;
    for (let i = column + 1; i < n; i++) {
      const row = a[i]!;
      const k = row[column]! / top[column]!;
      for (let j = column; j <= n; j++) row[j]! -= k * top[j]!;
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    const row = a[i]!;
    let sum = row[n]!;
    for (let j = i + 1; j < n; j++) sum -= row[j]! * x[j]!;
    x[i] = sum / row[i]!;
  }
  return x.every(Number.isFinite) ? x : null;
}
