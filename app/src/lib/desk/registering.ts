import {
  affineThrough,
  apply,
  compose,
  homography,
  invertHomography,
  project,
  scaling,
  seenSize,
  type PlacedPicture,
  type Point,
} from '@mirrot/core';

// A picture put where another lies, by points that are the same thing in both.

/**
 * Another picture of the same thing, placed so that its points lie where the old one's do: by an affine map for three
 * points, in perspective for four.
 *
 * @param here points in the seen pixels of the old picture
 * @param there the same spots in the new picture's own pixels
 * @throws MirrotError when the points lie in a line
 */
export function registered(
  old: PlacedPicture,
  fresh: PlacedPicture,
  here: readonly Point[],
  there: readonly Point[],
): PlacedPicture {
  const on = (p: Point): Point => apply(old.placement, p);
  if (here.length === 3) return { ...fresh, placement: affineThrough(there, here.map(on)) };
  // The new picture is squared up onto the frame in which the old one is seen, as many of its pixels as make sense.
  const { width, height } = seenSize(old);
  const back = invertHomography(homography(there, here));
  const frame = [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ];
  const finer = Math.max(1, Math.min(8, fresh.width / width));
  const [w, h] = [Math.round(width * finer), Math.round(height * finer)];
  const corners = frame.map((p) => project(back, p)) as unknown as NonNullable<
    PlacedPicture['square']
  >['corners'];
  const placement = compose(old.placement, scaling(width / w, height / h));
  return { ...fresh, square: { corners, width: w, height: h }, placement };
}
