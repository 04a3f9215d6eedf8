import { compose, invert, meanScale, scaling, translation, type Affine } from '../geometry/affine';
import { boxOfPoints, boxesMeet, mappedCorners, type Box } from '../geometry/bounds';
import { homography, project, type Homography } from '../geometry/homography';
import type { Point } from '../geometry/vector';
import type { Path } from '../path/path';
import { projectPath } from '../path/project';
import type { Recipe } from './change';
import { mapWithPicture, releaseAxis, setPaths, together } from './edits';
import type { Art, PlacedPicture, Shape, Sheet } from './schema';
import { shapeBounds, shapesOf, wholePaths } from './tree';
import { PX_PER } from './units';

/** Size in pixels of what is seen of a picture: straightened when it is squared up; the crop is not counted. */
export const seenSize = ({ square, width, height }: PlacedPicture): { width: number; height: number } =>
  square ? { width: square.width, height: square.height } : { width, height };

/** The part of the seen picture that is shown, in its pixels. */
export const seenBox = (p: PlacedPicture): Box => {
  const { width, height } = seenSize(p);
  return p.crop ?? { x0: 0, y0: 0, x1: width, y1: height };
};

/** The map from a picture's own pixels to the seen ones; null when they are the same. */
export function squareMap({ square }: PlacedPicture): Homography | null {
  if (!square) return null;
  const { corners, width, height } = square;
  return homography(corners, [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ]);
}

/** The corners of what is shown on the sheet, clockwise from its own top left. */
export function shownCorners(p: PlacedPicture): Point[] {
  const { x0, y0, x1, y1 } = seenBox(p);
  return mappedCorners(x1 - x0, y1 - y0, compose(p.placement, translation(x0, y0)));
}

/** Picture pixels to the inch as it lies on the sheet. */
export const picturePpi = ({ placement }: PlacedPicture): number => PX_PER.in / meanScale(placement);

/** How a picture is brought onto the sheet. */
export type PictureFit = 'fit' | 'fill';

/** Where a picture of this size lies in the middle of the sheet: as large as fits in it, or as covers it. */
export function fitOnSheet(
  { width, height }: { readonly width: number; readonly height: number },
  sheet: Pick<Sheet, 'width' | 'height'>,
  how: PictureFit = 'fit',
): Affine {
  const across = sheet.width / width;
  const down = sheet.height / height;
  const k = how === 'fit' ? Math.min(across, down) : Math.max(across, down);
  return compose(translation((sheet.width - width * k) / 2, (sheet.height - height * k) / 2), scaling(k));
}

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
function affineMove(before: PlacedPicture, after: PlacedPicture): Affine | null {
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
  const recipes = shapes.map((shape) => {
    if (affine) return mapWithPicture(shape, affine);
    const paths = wholePaths(shape).map((path): Path => {
      const seen = projectPath(path, move!);
      error = Math.max(error, seen.error);
      return seen.path;
    });
    return together(releaseAxis([shape.id]), setPaths(shape.id, paths));
  });
  return { recipe: together(...recipes), error, shapes: shapes.length };
}
