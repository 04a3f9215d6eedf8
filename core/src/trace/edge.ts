import type { Point } from '../geometry/vector';
import type { Raster } from '../picture/raster';

/** Levels of lightness per pixel below which there is no edge to speak of. */
const LEAST_LEVELS = 4;
/** An edge counts when it is this strong beside the strongest one in reach. */
const LEAST_SHARE_OF_STRONGEST = 0.45;

/**
 * The picture's edge nearest to a point: where the slope of its lightness is greatest along the slope's own direction
 * (Canny 1986), between pixels by a parabola through three slopes. The slope is a central difference of the lightness
 * smoothed by [1 2 1] (Sobel).
 *
 * @param at in the raster's pixels, a pixel's middle at halves
 * @param reach in the raster's pixels; looked at no farther than 40
 * @returns the point on the edge, or null where there is none in reach
 */
export function nearestEdge(raster: Raster, at: Point, reach: number): Point | null {
  const r = Math.min(40, Math.max(1, reach));
  const x0 = Math.floor(at.x - r) - 3;
  const y0 = Math.floor(at.y - r) - 3;
  const size = 2 * Math.ceil(r) + 7;
  const light = new Float32Array(size * size);
  const { width, height, data } = raster;
  for (let y = 0; y < size; y++) {
    const v = Math.min(height - 1, Math.max(0, y0 + y));
    for (let x = 0; x < size; x++) {
      const i = (v * width + Math.min(width - 1, Math.max(0, x0 + x))) * 4;
      // Clear pixels show white paper; their border is an edge too.
      const a = data[i + 3]! / 255;
      light[y * size + x] =
        a * (0.2126 * data[i]! + 0.7152 * data[i + 1]! + 0.0722 * data[i + 2]!) + (1 - a) * 255;
    }
  }
  const gx = new Float32Array(size * size);
  const gy = new Float32Array(size * size);
  const slope = new Float32Array(size * size);
  for (let y = 1; y + 1 < size; y++)
    for (let x = 1; x + 1 < size; x++) {
      const i = y * size + x;
      const l = (dx: number, dy: number): number => light[i + dy * size + dx]!;
      gx[i] = (l(1, -1) + 2 * l(1, 0) + l(1, 1) - l(-1, -1) - 2 * l(-1, 0) - l(-1, 1)) / 8;
      gy[i] = (l(-1, 1) + 2 * l(0, 1) + l(1, 1) - l(-1, -1) - 2 * l(0, -1) - l(1, -1)) / 8;
      slope[i] = Math.hypot(gx[i]!, gy[i]!);
    }
  /** Slope between pixels. */
  const between = (x: number, y: number): number => {
    const [i, j] = [Math.floor(x), Math.floor(y)];
    const [u, v] = [x - i, y - j];
    const k = j * size + i;
    return (
      slope[k]! * (1 - u) * (1 - v) +
      slope[k + 1]! * u * (1 - v) +
      slope[k + size]! * (1 - u) * v +
      slope[k + size + 1]! * u * v
    );
  };
  const found: { p: Point; far: number; slope: number }[] = [];
  for (let y = 2; y + 2 < size; y++)
    for (let x = 2; x + 2 < size; x++) {
      const i = y * size + x;
      const here = slope[i]!;
      if (here < LEAST_LEVELS) continue;
      const [ux, uy] = [gx[i]! / here, gy[i]! / here];
      const [before, after] = [between(x - ux, y - uy), between(x + ux, y + uy)];
      if (here < before || here <= after) continue;
      const bend = before - 2 * here + after;
      const off = bend < 0 ? Math.max(-0.6, Math.min(0.6, (before - after) / (2 * bend))) : 0;
      const p = { x: x0 + x + 0.5 + off * ux, y: y0 + y + 0.5 + off * uy };
      const far = Math.hypot(p.x - at.x, p.y - at.y);
      if (far <= r) found.push({ p, far, slope: here });
    }
  if (found.length === 0) return null;
  const strongest = Math.max(...found.map((f) => f.slope));
  return found
    .filter((f) => f.slope >= LEAST_SHARE_OF_STRONGEST * strongest)
    .reduce((a, b) => (b.far < a.far ? b : a)).p;
}
