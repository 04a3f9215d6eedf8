import { corner } from '../path/anchor';
import type { Path } from '../path/path';
import { transformPath } from '../path/path-map';
import { seenBox } from './placed-picture';
import { copiedShapes } from './repeat';
import type { Art, PlacedPicture, Shape } from './schema';
import { shapesOf, wholePaths } from './tree';

// What of the picture the drawing covers.

/** Whether a shape hides the picture beneath it: filled, or closed and still without its fill. What is meant so lies on no picture. */
export const coversPicture = (shape: Shape): boolean =>
  !shape.meant &&
  (shape.fill !== null || (shape.stroke === null && shape.paths.every((path) => path.closed)));

/** Outlines on the sheet of all in sight that covers the picture, copies too; each to be taken by the even-odd rule. */
export const coveringOutlines = (art: Art): (readonly Path[])[] => [
  ...shapesOf(art).flatMap(({ shape, shown }) => (shown && coversPicture(shape) ? [wholePaths(shape)] : [])),
  ...copiedShapes(art).flatMap(({ shape, maps }) =>
    coversPicture(shape) ? maps.map((map) => wholePaths(shape).map((path) => transformPath(path, map))) : [],
  ),
];

/** What is seen of a picture, within its crop, in its seen pixels. */
export function pictureOutline(picture: PlacedPicture): Path {
  const { x0, y0, x1, y1 } = seenBox(picture);
  return {
    id: 'picture',
    closed: true,
    anchors: [corner(x0, y0), corner(x1, y0), corner(x1, y1), corner(x0, y1)],
  };
}
