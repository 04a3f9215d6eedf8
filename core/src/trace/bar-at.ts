import { add, scale, type Point } from '../geometry/vector';
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
/** So far along it, in its widths and to either side, a bar is still there: a dot is none. */
const ALONG_IN_WIDTHS = 1;
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
 * @returns null where there is none: on an area, its border, or a dot
 * @throws RangeError for a width of 0 or less
 */
export function barAt(raster: Raster, p: Point, most: number): Bar | null {
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
  let best: (Bar & { readonly n: Point; readonly by: number }) | null = null;
  for (let k = 0; k < DIRECTIONS; k++) {
    const angle = (k * Math.PI) / DIRECTIONS;
    const n = { x: Math.cos(angle), y: Math.sin(angle) };
    const along = { x: -n.y, y: n.x };
    const own = calmAt(p, along);
    const [one, other] = [sideOf(p, own, n, along), sideOf(p, own, scale(n, -1), along)];
    if (!one || !other) continue;
    const width = one.ends + other.ends;
    const by = Math.min(one.by, other.by);
    if (width > most || apart(one.beyond, other.beyond) > ALIKE * by) continue;
    if (best && width >= best.width) continue;
    best = { at: add(p, scale(n, (one.ends - other.ends) / 2)), width, n, by };
  }
  if (!best) return null;
  const { at, width, n, by } = best;
  if (Math.hypot(at.x - p.x, at.y - p.y) > Math.max(MIDDLE_PX, MIDDLE_SHARE * width)) return null;
  const along = { x: -n.y, y: n.x };
  const own = calmAt(at, along);
  // A little aside, too: strokes bend.
  const goesOn = (way: number): boolean =>
    [-0.4, -0.2, 0, 0.2, 0.4].some(
      (aside) =>
        apart(own, colourAt(add(add(at, scale(along, way * ALONG_IN_WIDTHS * width)), scale(n, aside * width)))) < by / 2, // prettier-ignore
    );
  return goesOn(1) && goesOn(-1) ? { at, width } : null;
}
