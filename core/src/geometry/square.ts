import { MirrotError } from '../error';
import { homography, type Homography } from './homography';
import { cross, distance, subtract, type Point } from './vector';

/** A picture seen straight on: the map from its pixels to those of the straight picture, and that one's size. */
export interface Squared {
  readonly map: Homography;
  readonly width: number;
  readonly height: number;
}

/**
 * Checks four corners, clockwise from the top left as the thing is meant to stand.
 *
 * @throws MirrotError `quad` when they fold over themselves, run the other way, or span no area
 */
export function checkQuad(corners: readonly Point[]): void {
  const turns = corners.map((p, i) => {
    const a = corners[(i + 1) % 4]!;
    const b = corners[(i + 2) % 4]!;
    return cross(subtract(a, p), subtract(b, a)) / (distance(p, a) * distance(a, b) || 1);
  });
  if (turns.every((t) => t > 0.01)) return;
  if (turns.every((t) => t < -0.01))
    throw new MirrotError(
      'quad',
      'The corners run the wrong way round. Put them clockwise from the top left.',
    );
  throw new MirrotError(
    'quad',
    'The four corners fold over themselves or lie nearly in a line. Move them so that they go round the thing.',
  );
}

/**
 * Width to height of the real rectangle whose corners are seen at `corners`.
 * Source: Zhang and He, "Whiteboard scanning and image enhancement", Digital Signal Processing 17 (2007), section 3:
 * the camera's focal length follows from the vanishing points of the two pairs of sides, the principal point taken to
 * be the picture's centre. Where a pair of sides is parallel in the picture the focal length cannot be told from it;
 * the mean lengths of opposite sides are then the answer.
 *
 * @param corners clockwise from the top left, picture pixels
 * @param picture the picture's size in the same pixels
 */
export function measuredAspect(
  corners: readonly Point[],
  picture: { readonly width: number; readonly height: number },
): number {
  checkQuad(corners);
  const [m1, m2, m4, m3] = corners.map((p) => [p.x - picture.width / 2, p.y - picture.height / 2, 1] as const) as [
    Vector, Vector, Vector, Vector,
  ]; // prettier-ignore
  const [a, b, c, d] = corners as [Point, Point, Point, Point];
  const sides = (distance(a, b) + distance(d, c)) / (distance(a, d) + distance(b, c));
  const k2 = dot3(cross3(m1, m4), m3) / dot3(cross3(m2, m4), m3);
  const k3 = dot3(cross3(m1, m4), m2) / dot3(cross3(m3, m4), m2);
  const n2 = m2.map((v, i) => k2 * v - m1[i]!) as unknown as Vector;
  const n3 = m3.map((v, i) => k3 * v - m1[i]!) as unknown as Vector;
  const scale = Math.hypot(picture.width, picture.height);
  if (Math.abs(n2[2]) < 1e-3 || Math.abs(n3[2]) < 1e-3) return sides;
  const f2 = -(n2[0] * n3[0] + n2[1] * n3[1]) / (n2[2] * n3[2]);
  // Lenses between a fifth of the diagonal and ten of it; anything else is noise.
  if (!(f2 > (scale / 5) ** 2 && f2 < (scale * 10) ** 2)) return sides;
  const size2 = (n: Vector): number => (n[0] * n[0] + n[1] * n[1]) / f2 + n[2] * n[2];
  return Math.sqrt(size2(n2) / size2(n3));
}

type Vector = readonly [number, number, number];
const cross3 = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const dot3 = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/**
 * The map that shows what lies within four corners straight on, and the size that keeps its pixels: the longer of
 * each pair of sides, made to fit the aspect without losing any.
 *
 * @param corners clockwise from the top left, picture pixels
 * @param aspect width to height of the real thing
 * @param most longest side of the result, pixels
 * @throws MirrotError `quad` for corners that do not go round anything
 */
export function squareUp(corners: readonly Point[], aspect: number, most = 12_000): Squared {
  if (!(aspect > 0.01 && aspect < 100))
    throw new MirrotError('aspect', 'Width to height must lie between 1 : 100 and 100 : 1.');
  checkQuad(corners);
  const [a, b, c, d] = corners as [Point, Point, Point, Point];
  const across = Math.max(distance(a, b), distance(d, c));
  const down = Math.max(distance(a, d), distance(b, c));
  let width = Math.max(across, down * aspect);
  const shrink = Math.min(1, most / Math.max(width, width / aspect));
  width = Math.max(1, Math.round(width * shrink));
  const height = Math.max(1, Math.round(width / aspect));
  const map = homography(corners, [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ]);
  return { map, width, height };
}
