import type { Point } from './vector';

/** Places of the plane in rows, `step` apart; the first one's corner is at `x0`, `y0`. */
export interface PlaceGrid {
  readonly x0: number;
  readonly y0: number;
  readonly step: number;
  readonly width: number;
  readonly height: number;
}

/**
 * Tells each place of a grid whose centre lies in polygons by the even-odd rule: `row * width + column`, row by row.
 * Source: Wylie, Romney, Evans and Erdahl, "Half-tone perspective drawings by computer" (1967), the scan line.
 */
export function markInside(
  polygons: readonly (readonly Point[])[],
  { x0, y0, step, width, height }: PlaceGrid,
  each: (at: number) => void,
): void {
  const crossings: number[] = [];
  for (let row = 0; row < height; row++) {
    const y = y0 + (row + 0.5) * step;
    crossings.length = 0;
    for (const polygon of polygons)
      for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
        const [a, b] = [polygon[i]!, polygon[j]!];
        if (a.y > y !== b.y > y) crossings.push(((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x);
      }
    crossings.sort((a, b) => a - b);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const from = Math.max(0, Math.ceil((crossings[k]! - x0) / step - 0.5));
      const to = Math.min(width - 1, Math.ceil((crossings[k + 1]! - x0) / step - 0.5) - 1);
      for (let column = from; column <= to; column++) each(row * width + column);
    }
  }
}
