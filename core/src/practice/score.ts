import { z } from 'zod';
import { hexesApart } from '../colour/palette';
import { boxHas, growBox } from '../geometry/bounds';
import { cubicLength, cubicPoint } from '../geometry/cubic';
import type { Point } from '../geometry/vector';
import { pathCubics, type Path } from '../path/path';
import { nearestOnPath, pathBounds } from '../path/path-measure';
import type { Art, PlacedPicture } from '../art/schema';
import { flatHex, paletteOf } from '../art/paint';
import { share, type DeepReadonly } from '../art/scalars';
import { nameSchema } from '../art/text-schema';
import { shapesOf, wholePaths } from '../art/tree';
import { MOST_SHAPES, pathsInPicture, type TruthShape } from './exercise';

/** A shape as it was drawn: its lines, in pixels of the picture, and its fill if that is a plain colour. */
export interface DrawnShape {
  readonly paths: readonly Path[];
  readonly fill: string | null;
}

const px = z.number().nonnegative();
const count = z.number().int().nonnegative();
const nearnessSchema = z.strictObject({
  /** Share of the truth's length that has a line near it. */
  drawn: share,
  /** Mean distance between the two, and what 95 % of it lies within, pixels of the picture; null where nothing is drawn. */
  mean: px.nullable(),
  p95: px.nullable(),
  anchors: count,
  /** Anchors of the original. */
  own: count,
});
const shapeScoreSchema = nearnessSchema.extend({
  name: nameSchema,
  /** How far the fill is from the true one, CIEDE2000; null where none is asked for, or there is none. */
  deltaE: z.number().nonnegative().nullable(),
});
const measureSchema = nearnessSchema.extend({
  /** Share of what is drawn that lies near nothing of the truth. */
  astray: share,
  /** Where the two are farthest apart; null where nothing is drawn. */
  worst: z.strictObject({ at: z.strictObject({ x: z.number(), y: z.number() }), distance: px }).nullable(),
  /** As the truth has them. */
  shapes: z.array(shapeScoreSchema).min(1).max(MOST_SHAPES),
});
/** The score of a drawing of which something lies near the truth: what can be kept. */
export const scoreSchema = measureSchema.extend({ mean: px, p95: px });

/** How near a drawing lies to the truth, of which nothing may be drawn yet. */
export type Measure = DeepReadonly<z.infer<typeof measureSchema>>;
export type ShapeScore = Measure['shapes'][number];
export type Score = DeepReadonly<z.infer<typeof scoreSchema>>;

/** Whether anything is drawn near the truth, so that there is a score. */
export const isScore = (measure: Measure): measure is Score => measure.mean !== null && measure.p95 !== null;

/** Places at which distances are told, pixels apart. */
const APART_PX = 2;
/** Farther than this from a line it is not what was meant, pixels of the picture. */
export const FAR_PX = 60;

interface Place {
  readonly at: Point;
  /** Length of line that it stands for. */
  readonly length: number;
}

/** Places along a path, even in each segment. */
const placesAlong = (path: Path): Place[] =>
  pathCubics(path).flatMap((c) => {
    const long = cubicLength(c);
    const n = Math.max(1, Math.ceil(long / APART_PX));
    return Array.from({ length: n }, (_, k) => ({ at: cubicPoint(c, (k + 0.5) / n), length: long / n }));
  });

/** The nearest of some paths to a place, and how far off it is; null where none lies within `FAR_PX`. */
function nearest(
  paths: readonly Path[],
  p: Point,
): { readonly index: number; readonly distance: number } | null {
  let best: { index: number; distance: number } | null = null;
  paths.forEach((path, index) => {
    const within = best?.distance ?? FAR_PX;
    if (!boxHas(growBox(pathBounds(path), within), p)) return;
    const found = nearestOnPath(path, p, within);
    if (found && (!best || found.distance < best.distance)) best = { index, distance: found.distance };
  });
  return best;
}

/** A distance between what is drawn and the truth, at a place of either. */
interface Distance extends Place {
  readonly distance: number;
}

const lengthOf = (places: readonly Place[]): number => places.reduce((sum, { length }) => sum + length, 0);

function figuresOf(found: readonly Distance[]): Pick<Measure, 'mean' | 'p95'> {
  const long = lengthOf(found);
  if (!(long > 0)) return { mean: null, p95: null };
  let upTo = 0;
  const sorted = found.toSorted((a, b) => a.distance - b.distance);
  return {
    mean: found.reduce((sum, f) => sum + f.length * f.distance, 0) / long,
    p95: (sorted.find((f) => (upTo += f.length) >= 0.95 * long) ?? sorted.at(-1)!).distance,
  };
}

/**
 * How near a drawing lies to the truth: told at places 2 px apart at most along both, each to the nearest of the other, so that what is
 * missing counts as well as what is too much. What lies farther than `FAR_PX` from the other is told as not drawn, or as
 * astray, and does not count into distances. A drawn line belongs to the shape of the truth that most of it is near to.
 *
 * @param drawn pixels of the picture
 * @param truth one shape or more
 */
export function scoreDrawing(drawn: readonly DrawnShape[], truth: readonly TruthShape[]): Measure {
  const lines = drawn.flatMap((shape) => shape.paths.map((path) => ({ path, shape })));
  const drawnPaths = lines.map(({ path }) => path);
  const trueLines = truth.flatMap((shape, of) => shape.paths.map((path) => ({ path, of })));
  const truePaths = trueLines.map(({ path }) => path);

  const found: Distance[][] = truth.map(() => []);
  const anchors = truth.map(() => 0);
  const fills = truth.map((): DrawnShape[] => []);
  let [astray, long] = [0, 0];
  for (const { path, shape } of lines) {
    const near = placesAlong(path).map((place) => ({
      ...place,
      to: nearest(truePaths, place.at),
    }));
    long += lengthOf(near);
    astray += lengthOf(near.filter(({ to }) => to === null));
    const shares = truth.map(() => 0);
    for (const { to, at, length } of near) {
      if (!to) continue;
      const { of } = trueLines[to.index]!;
      shares[of]! += length;
      found[of]!.push({ at, length, distance: to.distance });
    }
    const most = Math.max(...shares);
    if (!(most > 0)) continue;
    const of = shares.indexOf(most);
    anchors[of]! += path.anchors.length;
    fills[of]!.push(shape);
  }

  const shapes = truth.map((shape, of): ShapeScore & { readonly long: number; readonly seen: number } => {
    const places = shape.paths.flatMap(placesAlong);
    const seen = places.flatMap(({ at, length }): Distance[] => {
      const to = nearest(drawnPaths, at);
      return to ? [{ at, length, distance: to.distance }] : [];
    });
    found[of]!.push(...seen);
    const fill = fills[of]!.find((s) => s.fill !== null)?.fill ?? null;
    return {
      name: shape.name,
      drawn: lengthOf(seen) / lengthOf(places),
      ...figuresOf(found[of]!),
      anchors: anchors[of]!,
      own: shape.paths.reduce((n, p) => n + p.anchors.length, 0),
      deltaE: shape.fill !== null && fill !== null ? hexesApart(fill, shape.fill) : null,
      long: lengthOf(places),
      seen: lengthOf(seen),
    };
  });
  const all = found.flat();
  const farthest = all.reduce<Distance | null>((a, b) => (a && a.distance >= b.distance ? a : b), null);
  const sum = (of: (s: (typeof shapes)[number]) => number): number => shapes.reduce((n, s) => n + of(s), 0);
  return {
    drawn: sum((s) => s.seen) / sum((s) => s.long),
    astray: long > 0 ? astray / long : 0,
    ...figuresOf(all),
    anchors: drawnPaths.reduce((n, p) => n + p.anchors.length, 0),
    own: sum((s) => s.own),
    worst: farthest && { at: farthest.at, distance: farthest.distance },
    shapes: shapes.map(({ long: _long, seen: _seen, ...score }) => score),
  };
}

/** The shapes of a drawing that are in sight, whole, filled or not, as they lie in a picture. */
export function drawnShapes(art: Art, picture: PlacedPicture): DrawnShape[] {
  const palette = paletteOf(art.chips);
  return shapesOf(art)
    .filter(({ shown }) => shown)
    .map(({ shape }) => ({
      paths: pathsInPicture(
        wholePaths(shape).filter((p) => p.anchors.length >= 2),
        picture,
      ),
      fill: flatHex(shape.fill, palette),
    }))
    .filter(({ paths }) => paths.length > 0);
}
