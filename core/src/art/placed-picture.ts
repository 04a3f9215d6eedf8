import { compose, meanScale, scaling, translation, type Affine } from '../geometry/affine';
import { mappedCorners, type Box } from '../geometry/bounds';
import { homography, type Homography } from '../geometry/homography';
import type { Point } from '../geometry/vector';
import type { PlacedPicture, Sheet } from './schema';
import { PX_PER } from './units';

// Where a picture lies on the sheet, and what of it is seen.

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
