import { toRadians } from '../geometry/angle';
import { homography, type Homography } from '../geometry/homography';
import type { Point } from '../geometry/vector';
import { seeded } from '../seed';
import type { Raster } from './raster';
import { warpRaster } from './warp';

/** A picture taken by a stand-in for a device, and where the original's corners lie in it, clockwise. */
export interface Taken {
  readonly raster: Raster;
  readonly corners: readonly Point[];
}

/** Lays a picture through a map over a ground and finishes every pixel by `light` (a factor) and grain. */
function take(
  picture: Raster,
  map: Homography,
  width: number,
  height: number,
  ground: (x: number, y: number) => number,
  light: (x: number, y: number) => number,
  grain: number,
  random: () => number,
): Raster {
  const seen = warpRaster(picture, map, width, height);
  const data = new Uint8ClampedArray(seen.data.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = (y * width + x) * 4;
      const opacity = seen.data[i + 3]! / 255;
      const under = ground(x, y);
      const k = light(x / width, y / height);
      const noise = (random() + random() - 1) * grain;
      for (let c = 0; c < 3; c++)
        data[i + c] = (seen.data[i + c]! * opacity + under * (1 - opacity)) * k + noise;
      data[i + 3] = 255;
    }
  return { width, height, data };
}

const cornersOf = (width: number, height: number): Point[] => [
  { x: 0, y: 0 },
  { x: width, y: 0 },
  { x: width, y: height },
  { x: 0, y: height },
];

/**
 * The picture as a flatbed scanner would take it: turned by up to four degrees, on the glass's white with a margin,
 * paper grain, and light that falls off to one side.
 *
 * @param seed a whole number; the same gives the same
 */
export function takeScan(picture: Raster, seed: number): Taken {
  const random = seeded(seed);
  const turn = toRadians((1 + 3 * random()) * (random() < 0.5 ? -1 : 1));
  const margin = 0.06 + 0.05 * random();
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const width = Math.round((picture.width * c + picture.height * Math.abs(s)) * (1 + 2 * margin));
  const height = Math.round((picture.height * c + picture.width * Math.abs(s)) * (1 + 2 * margin));
  const corners = cornersOf(picture.width, picture.height).map(({ x, y }) => {
    const [u, v] = [x - picture.width / 2, y - picture.height / 2];
    return { x: width / 2 + u * c - v * s, y: height / 2 + u * s + v * c };
  });
  const map = homography(cornersOf(picture.width, picture.height), corners);
  const side = random() * Math.PI * 2;
  const light = (x: number, y: number): number => 0.97 + 0.05 * ((x - 0.5) * Math.cos(side) + (y - 0.5) * Math.sin(side)); // prettier-ignore
  return { raster: take(picture, map, width, height, () => 244, light, 7, random), corners };
}

/**
 * The picture as a phone would take it from the side: seen in perspective on a dark table, brighter on one side,
 * darker to the corners, with more grain.
 */
export function takePhoto(picture: Raster, seed: number): Taken {
  const random = seeded(seed);
  const { width, height } = picture;
  const shake = (reach: number): number => (0.25 + 0.75 * random()) * reach;
  const lean = random() < 0.5;
  // One side is farther away: it is shorter, and both pairs of sides lean.
  const near = cornersOf(width, height).map(({ x, y }, i) => ({
    x: width * 0.12 + x * 0.76 + (i === 0 || i === 3 ? 1 : -1) * shake(width * (lean === i < 2 ? 0.1 : 0.02)),
    y: height * 0.12 + y * 0.76 + (i < 2 ? 1 : -1) * shake(height * (i % 3 === 0 ? 0.07 : 0.02)),
  }));
  const map = homography(cornersOf(width, height), near);
  const side = random() * Math.PI * 2;
  const light = (x: number, y: number): number =>
    0.92 +
    0.22 * ((x - 0.5) * Math.cos(side) + (y - 0.5) * Math.sin(side)) -
    0.25 * ((x - 0.5) ** 2 + (y - 0.5) ** 2);
  const table = (x: number, y: number): number => 66 + 7 * Math.sin(y / 11 + Math.sin(x / 170));
  return { raster: take(picture, map, width, height, table, light, 14, random), corners: near };
}
