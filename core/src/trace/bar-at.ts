import { add, distance, scale, type Point } from '../geometry/vector';
import type { Raster } from '../picture/raster';
import { oklabPlanes } from './oklab-planes';

/** A thin bar of one colour with the same on both sides, as a drawn stroke is. Picture pixels. */
export interface Bar {
  /** A place on its middle. */
  readonly at: Point;
  readonly width: number;
}

/** Directions across that are tried. */
const DIRECTIONS = 12;
const STEP_PX = 0.5;
/**
 * A bar stands out from its sides by so many times the median difference of pixels so far apart about it, which is grain's and
 * texture's: of places calmed over seven pixels that is five deviations. And by three ΔE at least.
 */
const ABOVE_GRAIN = 2;
const GRAIN_APART_PX = 3;
const LEAST = 0.03;
/** Colours are calmed over so many pixels along the bar, to either side. */
const CALM_PX = 3;
/** Both sides are alike: they differ by less than this share of what the bar differs from them. */
const ALIKE = 0.5;
/** Farther along it is looked for this much aside, in the distance. */
const ASIDE = [0, -0.15, 0.15, -0.3, 0.3] as const;
/** From so many widths before a place to as many behind it a stroke’s width changes by no more than so many times; a tip’s does. */
const WIDER = 1.6;
const LOOKED_ON = 1.5;
/** A place is in the bar's middle where it is no farther from it than this share of its width, or so many pixels. */
const MIDDLE_SHARE = 0.3;
const MIDDLE_PX = 3;
/** Differences of a and b count so many times, as in edge fields. */
const COLOUR = 2;

/**
 * Whether a place lies in the middle of a thin bar, both sides alike, as strokes drawn by pen or brush are: the narrowest
 * way across it is looked for in all directions, its borders half way in colour.
 *
 * @param p picture pixels
 * @param most width of the widest bar there can be, picture pixels
 * @param near a bar no wider than this counts as pressed so far about it, too
 * @returns null where there is none: on an area, its border, or a dot
 * @throws RangeError for a width of 0 or less
 */
export function barAt(raster: Raster, p: Point, most: number, near = 0): Bar | null {
  if (!(most > 0)) throw new RangeError(`A bar's greatest width is above 0; it was ${most}.`);
  if (!(p.x >= 0 && p.y >= 0 && p.x <= raster.width && p.y <= raster.height)) return null;
  const reach = Math.ceil(1.5 * most) + 4;
  const [x0, y0] = [Math.floor(p.x) - reach, Math.floor(p.y) - reach];
  const side = 2 * reach + 1;
  const planes = oklabPlanes(raster, x0, y0, side, side).slice(0, 3).map((plane) => plane.slice(0, side * side)); // prettier-ignore
  /** Colour between pixels, a and b weighted. */
  const colourAt = (q: Point): number[] => {
    const x = Math.min(side - 1.001, Math.max(0, q.x - x0 - 0.5));
    const y = Math.min(side - 1.001, Math.max(0, q.y - y0 - 0.5));
    const [i, j] = [Math.floor(x), Math.floor(y)];
    const [u, v] = [x - i, y - j];
    const k = j * side + i;
    return planes.map((c, n) => (n === 0 ? 1 : COLOUR) * ((1 - v) * ((1 - u) * c[k]! + u * c[k + 1]!) + v * ((1 - u) * c[k + side]! + u * c[k + side + 1]!))); // prettier-ignore
  };
  const apart = (a: readonly number[], b: readonly number[]): number =>
    Math.hypot(...a.map((v, n) => v - b[n]!));
  /** The colour of a place and the ones beside it along a way. */
  const calmAt = (q: Point, along: Point): number[] => {
    const sum = [0, 0, 0];
    for (let k = -CALM_PX; k <= CALM_PX; k++)
      colourAt(add(q, scale(along, k))).forEach((v, n) => (sum[n]! += v));
    return sum.map((v) => v / (2 * CALM_PX + 1));
  };
  const grains: number[] = [];
  for (let y = 0; y < side; y += 2)
    for (let k = y * side; k + GRAIN_APART_PX < (y + 1) * side; k += 2)
      grains.push(
        Math.hypot(...planes.map((c, n) => (n === 0 ? 1 : COLOUR) * (c[k]! - c[k + GRAIN_APART_PX]!))),
      );
  grains.sort((a, b) => a - b);
  const least = Math.max(LEAST, ABOVE_GRAIN * grains[grains.length >> 1]!);
  /** How far the bar reaches one way from a place of its colour, and what lies beyond; null where it does not end. */
  const sideOf = (from: Point, own: readonly number[], way: Point, along: Point) => {
    const far: number[] = [];
    for (let s = 0; s <= most; s += STEP_PX) far.push(apart(own, calmAt(add(from, scale(way, s)), along)));
    // The first hill: what lies beyond it may be another thing.
    let top = 0;
    for (let k = 1; k < far.length; k++) {
      if (far[k]! > far[top]!) top = k;
      else if (far[top]! > least && k - top > 2 / STEP_PX) break;
    }
    if (far[top]! < least) return null;
    const half = far.findIndex((d) => d >= far[top]! / 2);
    const [a, b] = [far[half - 1] ?? 0, far[half]!];
    const ends = STEP_PX * (half - 1 + (b > a ? (far[top]! / 2 - a) / (b - a) : 1));
    return { ends, by: far[top]!, beyond: calmAt(add(from, scale(way, STEP_PX * top)), along) };
  };
  /** What lies across a place that way: the middle, the width, the colour, and how far it stands out. */
  const acrossAt = (q: Point, n: Point) => {
    const along = { x: -n.y, y: n.x };
    const own = calmAt(q, along);
    const one = sideOf(q, own, n, along);
    const other = one && sideOf(q, own, scale(n, -1), along);
    if (!one || !other) return null;
    const by = Math.min(one.by, other.by);
    const width = one.ends + other.ends;
    if (width > most || apart(one.beyond, other.beyond) > ALIKE * by) return null;
    return { at: add(q, scale(n, (one.ends - other.ends) / 2)), width, own, by, n };
  };
  /** The bar that a place is within. */
  const about = (q: Point): Bar | null => {
    const found = Array.from({ length: DIRECTIONS }, (_, k) => (k * Math.PI) / DIRECTIONS).flatMap(
      (angle) => acrossAt(q, { x: Math.cos(angle), y: Math.sin(angle) }) ?? [],
    );
    if (found.length === 0) return null;
    // Along a stroke its own shades may look like a narrower one that hardly stands out.
    const clearest = Math.max(...found.map((f) => f.by));
    const clear = found.filter((f) => f.by > clearest / 2);
    const { at, width, own, by, n } = clear.reduce((a, b) => (b.width < a.width ? b : a));
    const along = { x: -n.y, y: n.x };
    /** How wide it is so many widths on, null where it is not there; a little aside, too: strokes bend. */
    const widthOn = (widths: number): number | null => {
      for (const aside of ASIDE) {
        const there = add(add(at, scale(along, widths * width)), scale(n, aside * widths * width));
        if (apart(own, colourAt(there)) > by / 2) continue;
        const across = acrossAt(there, n);
        if (across) return across.width;
      }
      return null;
    };
    const even = (a: number | null, b: number | null): boolean =>
      a !== null && b !== null && Math.max(a, b) < WIDER * Math.min(a, b);
    const [ahead, back] = [widthOn(LOOKED_ON), widthOn(-LOOKED_ON)];
    // By its end it goes on one way only, but farther.
    const goesOn =
      ahead !== null && back !== null
        ? even(ahead, back)
        : even(widthOn(ahead === null ? -2 * LOOKED_ON : 2 * LOOKED_ON), width);
    return goesOn ? { at, width } : null;
  };
  const here = about(p);
  if (here && distance(here.at, p) <= Math.max(MIDDLE_PX, MIDDLE_SHARE * here.width)) return here;
  if (!(near > 0)) return null;
  // The hand cannot tell a stroke so thin from its borders: what about the place is least like the ground.
  const ground = planes.map((plane, n) => (n === 0 ? 1 : COLOUR) * plane.filter((_, k) => k % 5 === 0).sort()[Math.floor(plane.length / 10)]!); // prettier-ignore
  let [aside, farthest] = [p, 0];
  const within = Math.min(reach, Math.floor(near));
  for (let dy = -within; dy <= within; dy++)
    for (let dx = -within; dx <= within; dx++) {
      const q = { x: p.x + dx, y: p.y + dy };
      const far = Math.hypot(dx, dy);
      if (far > near) continue;
      const stands = apart(ground, colourAt(q)) * (1 - far / (2 * near));
      if (stands > farthest) [aside, farthest] = [q, stands];
    }
  const beside = about(aside);
  return beside && beside.width <= near && distance(beside.at, p) <= near ? beside : null;
}
