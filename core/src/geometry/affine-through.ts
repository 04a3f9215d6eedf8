import { MirrotError } from '../error';
import type { Affine } from './affine';
import { solveLinear } from './linear';
import type { Point } from './vector';

/**
 * The affine map that takes three points to three others.
 *
 * @throws MirrotError `points` when the three lie in one line
 */
export function affineThrough(from: readonly Point[], to: readonly Point[]): Affine {
  const rows = from.slice(0, 3).map((p) => [p.x, p.y, 1]);
  const [a, b, c] = rows as [number[], number[], number[]];
  const area = (b[0]! - a[0]!) * (c[1]! - a[1]!) - (b[1]! - a[1]!) * (c[0]! - a[0]!);
  const size = Math.hypot(b[0]! - a[0]!, b[1]! - a[1]!) * Math.hypot(c[0]! - a[0]!, c[1]! - a[1]!);
  const x = solveLinear(rows, to.map((p) => p.x)); // prettier-ignore
  const y = solveLinear(rows, to.map((p) => p.y)); // prettier-ignore
  if (!(Math.abs(area) > 1e-3 * size) || !x || !y)
    throw new MirrotError('points', 'The three points lie in one line. Take them farther apart.');
  return [x[0]!, y[0]!, x[1]!, y[1]!, x[2]!, y[2]!];
}
