import type { Cubic } from './geometry/cubic';
import type { Anchor } from './path/anchor';
import type { Path } from './path/path';

export { seeded } from './seed';

// Shared by tests only: seeded invented data, so that a failure comes back.

export function randomCubic(random: () => number, size = 100): Cubic {
  const p = (): { x: number; y: number } => ({ x: random() * size, y: random() * size });
  return [p(), p(), p(), p()];
}

export const anchor = (
  x: number,
  y: number,
  arriving: readonly [number, number] | null = null,
  leaving: readonly [number, number] | null = null,
  kind: Anchor['kind'] = 'corner',
): Anchor => ({
  x,
  y,
  kind,
  in: arriving && { x: arriving[0], y: arriving[1] },
  out: leaving && { x: leaving[0], y: leaving[1] },
});

export const pathOf = (anchors: readonly Anchor[], closed = false, id = 'p'): Path => ({
  id,
  closed,
  anchors,
});

/** A circle by four smooth anchors. */
export function circlePath(x: number, y: number, r: number, id = 'p'): Path {
  const k = r * 0.5522847498;
  return pathOf(
    [
      anchor(x + r, y, [0, -k], [0, k], 'smooth'),
      anchor(x, y + r, [k, 0], [-k, 0], 'smooth'),
      anchor(x - r, y, [0, k], [0, -k], 'smooth'),
      anchor(x, y - r, [-k, 0], [k, 0], 'smooth'),
    ],
    true,
    id,
  );
}

export const squarePath = (x: number, y: number, side: number, id = 'p'): Path =>
  pathOf([anchor(x, y), anchor(x + side, y), anchor(x + side, y + side), anchor(x, y + side)], true, id);
