import { compose, invert, type Affine } from '../geometry/affine';
import { boxOfPoints, boxesMeet } from '../geometry/bounds';
import { project, type Homography } from '../geometry/homography';
import { ORIGIN, subtract, type Point } from '../geometry/vector';
import type { Path } from '../path/path';
import { projectPath } from '../path/project';
import { shapeBounds } from './bounds';
import type { Recipe } from './change';
import { mapWithPicture, releaseAxis, setPaths, setRepeat, together } from './edits';
import { shownCorners, squareMap } from './placed-picture';
import { mapRepeat, repeatedGroups } from './repeat';
import type { Art, PlacedPicture, Shape } from './schema';
import { shapesIn, shapesOf, wholePaths } from './tree';

// What was traced on a picture goes along with it.

/** What a change of a picture does to the sheet under it, and so to what was traced on it: null for nothing. */
export function pictureMove(before: PlacedPicture, after: PlacedPicture): ((p: Point) => Point) | null {
  const same =
    before.placement.every((v, i) => v === after.placement[i]) &&
    JSON.stringify(before.square) === JSON.stringify(after.square);
  const back = same ? null : invert(before.placement);
  if (!back) return null;
  const from = squareMap(before);
  const to = squareMap(after);
  const own = from ? inverse(from) : null;
  const [a, b, c, d, e, f] = after.placement;
  const [g, h, i, j, k, l] = back;
  return (p) => {
    let q: Point = { x: g * p.x + i * p.y + k, y: h * p.x + j * p.y + l };
    if (own) q = project(own, q);
    if (to) q = project(to, q);
    return { x: a * q.x + c * q.y + e, y: b * q.x + d * q.y + f };
  };
}

/** A picture's map that is affine as a whole: where nothing of its squaring changed. */
export function affineMove(before: PlacedPicture, after: PlacedPicture): Affine | null {
  if (JSON.stringify(before.square) !== JSON.stringify(after.square)) return null;
  const back = invert(before.placement);
  return back && compose(after.placement, back);
}

const inverse = ([a, b, c, d, e, f, g, h, i]: Homography): Homography => [
  e * i - f * h, c * h - b * i, b * f - c * e,
  f * g - d * i, a * i - c * g, c * d - a * f,
  d * h - e * g, b * g - a * h, a * e - b * d,
]; // prettier-ignore

/** Shapes that were traced on a picture: those whose box meets what is shown of it. */
export function tracedOn(art: Art, picture: PlacedPicture): Shape[] {
  const box = boxOfPoints(shownCorners(picture));
  return shapesOf(art)
    .map(({ shape }) => shape)
    .filter((s) => boxesMeet(shapeBounds(s), box));
}

/** A recipe that takes traced shapes along, and how far from the exact line any of them lies then, in sheet pixels. */
export interface Following {
  readonly recipe: Recipe;
  readonly error: number;
  readonly shapes: number;
}

/**
 * Takes the shapes traced on a picture along when it is moved, scaled, turned or squared up: exactly where the move is
 * affine, else each curved segment fitted to what is seen of it (`projectPath`).
 */
export function followPicture(art: Art, before: PlacedPicture, after: PlacedPicture): Following {
  const move = pictureMove(before, after);
  const shapes = move ? tracedOn(art, before) : [];
  const affine = affineMove(before, after);
  let error = 0;
  const traced = new Set(shapes);
  // A group that stands several times goes along where all of it was traced.
  const groups = (shapes.length > 0 ? art.layers.flatMap(repeatedGroups) : []).filter((group) =>
    shapesIn(group).every((shape) => traced.has(shape)),
  );
  const numbers = groups.map(({ id, repeat }) => {
    const r = repeat!;
    if (affine) return setRepeat(id, mapRepeat(r, affine));
    if (r.kind === 'ring') return setRepeat(id, { ...r, ...move!(r) });
    const from = move!(ORIGIN);
    return setRepeat(id, { ...r, ...subtract(move!(r), from) });
  });
  const recipes = shapes.map((shape) => {
    if (affine) return mapWithPicture(shape, affine);
    const paths = wholePaths(shape).map((path): Path => {
      const seen = projectPath(path, move!);
      error = Math.max(error, seen.error);
      return seen.path;
    });
    return together(releaseAxis([shape.id]), setPaths(shape.id, paths));
  });
  return { recipe: together(...recipes, ...numbers), error, shapes: shapes.length };
}
