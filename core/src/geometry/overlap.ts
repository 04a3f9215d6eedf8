import { boxOfPoints } from './bounds';
import { cubicPoint, type Cubic } from './cubic';
import { nearestOnCubic } from './nearest';

/** The stretch on which two curves lie on each other: its ends as parameters on both, rising on the first. */
export interface Overlap {
  readonly t: readonly [number, number];
  readonly u: readonly [number, number];
}

/** How near counts as on each other, as a share of the curves' size. */
const ON_EACH_OTHER = 1e-8;
/** Ends nearer than this in parameter are one. */
const ONE_END = 1e-6;
/** Places between the ends that are looked at: two cubics that meet more than nine times are one (Bézout). */
const LOOKED_AT = 10;

/**
 * Where two cubics lie on each other along a stretch. Such a stretch ends only where one of the curves does.
 *
 * @returns null where they do not, whether or not they cross
 */
export function cubicOverlap(a: Cubic, b: Cubic): Overlap | null {
  const box = boxOfPoints([...a, ...b]);
  const within = ON_EACH_OTHER * Math.max(box.x1 - box.x0, box.y1 - box.y0);
  const ends: { t: number; u: number }[] = [];
  const note = (t: number, u: number): void => {
    if (!ends.some((e) => Math.abs(e.t - t) < ONE_END || Math.abs(e.u - u) < ONE_END)) ends.push({ t, u });
  };
  for (const end of [0, 1]) {
    const onB = nearestOnCubic(b, cubicPoint(a, end));
    if (onB.distance <= within) note(end, onB.t);
    const onA = nearestOnCubic(a, cubicPoint(b, end));
    if (onA.distance <= within) note(onA.t, end);
  }
  ends.sort((x, y) => x.t - y.t);
  const [first, last] = [ends[0], ends.at(-1)];
  if (!first || !last || first === last) return null;
  for (let k = 1; k < LOOKED_AT; k++) {
    const t = first.t + ((last.t - first.t) * k) / LOOKED_AT;
    if (nearestOnCubic(b, cubicPoint(a, t)).distance > within) return null;
  }
  return { t: [first.t, last.t], u: [first.u, last.u] };
}
