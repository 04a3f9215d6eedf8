import { toRadians } from '../geometry/angle';
import { growBox, boxesMeet } from '../geometry/bounds';
import { cubicPoint, cubicTangent } from '../geometry/cubic';
import { distance, dot, unit, type Point } from '../geometry/vector';
import { nearestOnPath, pathBounds } from './path-measure';
import { pathCubics, segmentCubic, type Path } from './path';

/** A stretch of a path that runs along another: its middle, and how long it is. */
export interface DoubleStretch {
  readonly at: Point;
  readonly length: number;
}

/** Two lines run along each other when their directions differ by less than this cosine says: 20°. */
const ALONG = Math.cos(toRadians(20));
/**
 * Shorter stretches, in pen widths, are crossings. At an end of the stroke more is allowed: there it leaves the other
 * one as a branch leaves a stem.
 */
const LEAST_LENGTH = 2;
const LEAST_AT_END = 5;
/** Samples to a pen's width along the path. */
const SAMPLES = 3;
const MOST_SAMPLES = 4000;

/**
 * Where a stroke runs along another one so closely that a pen would draw there twice: within the pen's width, in nearly
 * the same direction or its opposite, for longer than two widths (five where one begins or ends on the other). Strokes
 * that cross or whose ends meet do not count.
 *
 * @param width of the pen, in the paths' unit, above 0
 */
export function drawnTwice(path: Path, others: readonly Path[], width: number): DoubleStretch[] {
  const box = growBox(pathBounds(path), width);
  const near = others.filter((o) => boxesMeet(pathBounds(o), box));
  if (near.length === 0) return [];
  const samples: { at: Point; direction: Point | null }[] = [];
  for (const c of pathCubics(path)) {
    const reach = distance(c[0], c[1]) + distance(c[1], c[2]) + distance(c[2], c[3]);
    const steps = Math.min(MOST_SAMPLES, Math.max(2, Math.ceil((SAMPLES * reach) / width)));
    for (let i = 0; i < steps; i++) {
      const t = (i + 0.5) / steps;
      samples.push({ at: cubicPoint(c, t), direction: unit(cubicTangent(c, t)) });
    }
  }
  const along = samples.map(({ at, direction }) =>
    near.some((other) => {
      if (!direction) return false;
      const b = growBox(pathBounds(other), width);
      if (at.x < b.x0 || at.x > b.x1 || at.y < b.y0 || at.y > b.y1) return false;
      const n = nearestOnPath(other, at);
      if (!n || n.distance > width) return false;
      const there = unit(cubicTangent(segmentCubic(other, n.segment), n.t));
      return there !== null && Math.abs(dot(there, direction)) >= ALONG;
    }),
  );
  const found: DoubleStretch[] = [];
  for (let i = 0; i < samples.length; i++) {
    if (!along[i]) continue;
    const from = i;
    let long = 0;
    while (i + 1 < samples.length && along[i + 1]) long += distance(samples[i]!.at, samples[++i]!.at);
    const atEnd = !path.closed && (from === 0 || i === samples.length - 1);
    if (long > (atEnd && !(from === 0 && i === samples.length - 1) ? LEAST_AT_END : LEAST_LENGTH) * width)
      found.push({ at: samples[(from + i) >> 1]!.at, length: long });
  }
  return found;
}
