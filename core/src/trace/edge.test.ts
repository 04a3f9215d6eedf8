import { describe, expect, it } from 'vitest';
import { seeded } from '../seed';
import { symmetryAxis } from '../picture/symmetry';
import type { Raster } from '../picture/raster';
import { nearestEdge } from './edge';

/** A picture by a coverage from 0 to 1, dark on light, each pixel averaged over 8 × 8 places. */
function picture(
  width: number,
  height: number,
  inside: (x: number, y: number) => boolean,
  noise = 0,
): Raster {
  const data = new Uint8ClampedArray(width * height * 4);
  const random = seeded(2);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let n = 0;
      for (let i = 0; i < 64; i++)
        if (inside(x + ((i % 8) + 0.5) / 8, y + (Math.floor(i / 8) + 0.5) / 8)) n++;
      const v = 230 - (n / 64) * 190 + noise * (random() - 0.5);
      data.set([v, v, v, 255], (y * width + x) * 4);
    }
  return { width, height, data };
}

describe('the picture’s edge nearest to a point', () => {
  const disc = picture(120, 120, (x, y) => Math.hypot(x - 60.3, y - 59.8) < 40);

  it('lies on an anti-aliased disc’s rim to a tenth of a pixel', () => {
    const off: number[] = [];
    for (let a = 0; a < 2 * Math.PI; a += 0.05) {
      const from = { x: 60.3 + 43 * Math.cos(a), y: 59.8 + 43 * Math.sin(a) };
      const p = nearestEdge(disc, from, 8)!;
      off.push(Math.hypot(p.x - 60.3, p.y - 59.8) - 40);
    }
    expect(off.reduce((s, v) => s + Math.abs(v), 0) / off.length).toBeLessThan(0.1);
    expect(Math.max(...off.map(Math.abs))).toBeLessThan(0.3);
  });

  it('is none on a flat picture, out of reach, or in noise alone; clear pixels’ border is one', () => {
    expect(
      nearestEdge(
        picture(40, 40, () => false),
        { x: 20, y: 20 },
        8,
      ),
    ).toBeNull();
    expect(nearestEdge(disc, { x: 60, y: 60 }, 8)).toBeNull();
    expect(
      nearestEdge(
        picture(40, 40, () => false, 6),
        { x: 20, y: 20 },
        8,
      ),
    ).toBeNull();
    const cut = picture(40, 40, () => true);
    for (let i = 0; i < 1600; i++) if (i % 40 < 20) cut.data[i * 4 + 3] = 0;
    expect(nearestEdge(cut, { x: 17, y: 20 }, 8)!.x).toBeCloseTo(20, 1);
    expect(nearestEdge(cut, { x: -50, y: -50 }, 8)).toBeNull();
  });
});

describe('the picture’s own axis of symmetry', () => {
  const can = (angle: number, cx: number, cy: number) =>
    picture(
      240,
      200,
      (x, y) => {
        const [dx, dy] = [x - cx, y - cy];
        // Across and along a leaf-like figure whose axis runs at `angle`.
        const along = dx * Math.cos(angle) + dy * Math.sin(angle);
        const across = Math.abs(-dx * Math.sin(angle) + dy * Math.cos(angle));
        return (
          (along > -60 && along < 60 && across < 26 + along / 5) || Math.hypot(along - 20, across - 34) < 14
        );
      },
      8,
    );

  it.each([
    [Math.PI / 2, 120, 100],
    [1.2, 130, 90],
    [0.3, 110, 105],
    [2.6, 124, 97],
  ])('is found where it was made, turned by %f', (angle, cx, cy) => {
    const found = symmetryAxis(can(angle, cx, cy))!;
    const off = Math.abs(((found.angle - angle + 1.5 * Math.PI) % Math.PI) - Math.PI / 2);
    expect(off, `${angle}`).toBeLessThan(0.01);
    const far = (cx - found.at.x) * -Math.sin(found.angle) + (cy - found.at.y) * Math.cos(found.angle);
    expect(Math.abs(far)).toBeLessThan(0.7);
    expect(found.share).toBeGreaterThan(0.55);
  });

  it('has a lower figure where nothing is symmetric, and is none in a flat picture', () => {
    const lopsided = picture(
      240,
      200,
      (x, y) => x > 60 && y > 40 && x * 0.7 + y < 180 && Math.hypot(x - 90, y - 80) > 18,
    );
    expect(symmetryAxis(lopsided)!.share).toBeLessThan(0.5);
    expect(symmetryAxis(picture(50, 50, () => true))).toBeNull();
  });
});
