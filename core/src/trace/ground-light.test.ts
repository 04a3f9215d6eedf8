import { describe, expect, it } from 'vitest';
import { IDENTITY } from '../geometry/affine';
import { squarePath } from '../testing';
import { groundLight } from './ground-light';

/** A pale ground; to the right of a square at 40 to 60 a soft shadow and a few glints, to its left a darker ground. */
function scene(): { width: number; height: number; data: Uint8ClampedArray } {
  const data = new Uint8ClampedArray(4 * 100 * 100);
  for (let i = 0; i < 100 * 100; i++) {
    const [x, y] = [i % 100, Math.floor(i / 100)];
    const glint = (x * 7 + y * 13) % 41 === 0;
    const light = x < 40 ? 90 : glint ? 255 : y > 44 && y < 56 ? 210 - 120 * Math.exp(-(x - 60) / 12) : 210;
    data.set([light, light, light, 255], 4 * i);
  }
  return { width: 100, height: 100, data };
}
const square = [squarePath(40, 40, 20)];

describe('groundLight', () => {
  it('is that of the ground on the side asked for, whatever shadow and glints lie there', () => {
    expect(groundLight(scene(), IDENTITY, square, 0, 20)).toBeCloseTo(210 / 255, 2);
    expect(groundLight(scene(), IDENTITY, square, Math.PI, 20)).toBeCloseTo(90 / 255, 2);
  });

  it('looks where the picture lies', () => {
    const larger = [squarePath(400, 400, 200)];
    expect(groundLight(scene(), [0.1, 0, 0, 0.1, 0, 0], larger, 0, 200)).toBeCloseTo(210 / 255, 2);
  });

  it('tells nothing beyond the picture, or of nothing', () => {
    expect(groundLight(scene(), IDENTITY, [squarePath(200, 200, 20)], 0, 20)).toBeNull();
    expect(groundLight(scene(), IDENTITY, [], 0, 20)).toBeNull();
  });
});
