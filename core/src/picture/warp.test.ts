import { describe, expect, it } from 'vitest';
import { solveLinear } from '../geometry/linear';
import { seeded } from '../testing';
import { homography, invertHomography, project } from '../geometry/homography';
import type { Raster } from './raster';
import { warpRaster } from './warp';

const random = seeded(31);
const square = [
  { x: 0, y: 0 },
  { x: 100, y: 0 },
  { x: 100, y: 80 },
  { x: 0, y: 80 },
];

it('solves linear systems, and says when there is no answer', () => {
  for (let n = 1; n < 9; n++) {
    const a = Array.from({ length: n }, () => Array.from({ length: n }, () => random() - 0.5));
    const x = Array.from({ length: n }, () => random() * 10);
    const b = a.map((row) => row.reduce((s, v, i) => s + v * x[i]!, 0));
    solveLinear(a, b)!.forEach((v, i) => expect(v).toBeCloseTo(x[i]!, 9));
  }
  expect(solveLinear([[1, 2], [2, 4]], [1, 2])).toBeNull(); // prettier-ignore
});

// Source: Hartley and Zisserman, Multiple View Geometry in Computer Vision (2003), direct linear transform.
describe('a projective map through four points', () => {
  it('takes the corners to 1e-9, and back', () => {
    for (let i = 0; i < 200; i++) {
      const to = square.map((p) => ({ x: p.x + random() * 30 + 1000, y: p.y + random() * 30 }));
      const map = homography(square, to);
      square.forEach((p, k) => {
        expect(Math.hypot(project(map, p).x - to[k]!.x, project(map, p).y - to[k]!.y)).toBeLessThan(1e-9);
        const back = project(invertHomography(map), to[k]!);
        expect(Math.hypot(back.x - p.x, back.y - p.y)).toBeLessThan(1e-9);
      });
    }
  });

  it('keeps straight lines straight', () => {
    const map = homography(square, [{ x: 10, y: 5 }, { x: 90, y: 20 }, { x: 80, y: 70 }, { x: 5, y: 60 }]); // prettier-ignore
    const [a, b, c] = [0.1, 0.4, 0.9].map((t) => project(map, { x: 100 * t, y: 80 * t })) as [
      { x: number; y: number }, { x: number; y: number }, { x: number; y: number },
    ]; // prettier-ignore
    expect((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)).toBeCloseTo(0, 9);
  });

  it('refuses points in one line and points on one spot with a sentence', () => {
    const line = [0, 1, 2, 3].map((x) => ({ x, y: 2 * x }));
    expect(() => homography(line, square)).toThrow('three of them lie in one line');
    expect(() => homography(square, [square[0]!, square[0]!, square[0]!, square[0]!])).toThrow('do not span');
  });
});

describe('warping a picture', () => {
  const picture: Raster = { width: 4, height: 3, data: new Uint8ClampedArray(48).map((_, i) => (i % 4 === 3 ? 255 : (i * 5) % 256)) }; // prettier-ignore

  it('changes nothing when nothing moves', () => {
    const same = warpRaster(picture, [1, 0, 0, 0, 1, 0, 0, 0, 1], 4, 3);
    same.data.forEach((v, i) => expect(Math.abs(v - picture.data[i]!)).toBeLessThanOrEqual(1));
  });

  it('moves whole pixels exactly and is clear where the picture does not reach', () => {
    const moved = warpRaster(picture, [1, 0, 1, 0, 1, 0, 0, 0, 1], 6, 3);
    expect(moved.data[3]).toBe(0);
    expect(Math.abs(moved.data[4]! - picture.data[0]!)).toBeLessThanOrEqual(1);
    expect(moved.data[5 * 4 + 3]).toBe(0);
  });

  it('mixes in linear light: half black, half white is 188', () => {
    const edge: Raster = {
      width: 2,
      height: 1,
      data: new Uint8ClampedArray([0, 0, 0, 255, 255, 255, 255, 255]),
    };
    const mixed = warpRaster(edge, [1, 0, 0.5, 0, 1, 0, 0, 0, 1], 2, 1);
    expect(mixed.data[4]).toBe(188);
  });
});
