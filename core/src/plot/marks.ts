import { PX_PER } from '../art/units';
import type { Box } from '../geometry/bounds';
import { corner } from '../path/anchor';
import type { Path } from '../path/path';

/** Room that marks take about what is written, sheet pixels: 12 mm. */
export const MARK_ROOM_PX = 12 * PX_PER.mm;
/** Half the length of a mark's lines, sheet pixels: 4 mm. */
const MARK_ARM_PX = 4 * PX_PER.mm;

/**
 * Crosses to lay a sheet by when it is put in once more: at three corners, so that it cannot be put in turned round.
 * Common practice, no source.
 *
 * @param box around what is written, sheet pixels; the crosses stand outside of it
 */
export function cornerMarks({ x0, y0, x1, y1 }: Box, idOf: (n: number) => string): Path[] {
  const off = MARK_ROOM_PX / 2;
  const places = [
    [x0 - off, y0 - off],
    [x1 + off, y0 - off],
    [x0 - off, y1 + off],
  ] as const;
  const line = (n: number, ...points: readonly (readonly [number, number])[]): Path => ({
    id: idOf(n),
    closed: false,
    anchors: points.map(([x, y]) => corner(x, y)),
  });
  return places.flatMap(([x, y], n) => [
    line(2 * n, [x - MARK_ARM_PX, y], [x + MARK_ARM_PX, y]),
    line(2 * n + 1, [x, y - MARK_ARM_PX], [x, y + MARK_ARM_PX]),
  ]);
}
