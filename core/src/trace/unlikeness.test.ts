import { describe, expect, it } from 'vitest';
import { rgbToOklab } from '../colour/oklab';
import { seeded } from '../testing';
import { A_B_WEIGHT } from './colour-at';
import { unlikeness } from './unlikeness';

const [WIDE, HIGH] = [70, 45];
const random = seeded(12);
const data = Uint8ClampedArray.from({ length: 4 * WIDE * HIGH }, (_, i) =>
  i % 4 === 3 && i < 2 * WIDE * HIGH ? 255 : Math.floor(256 * random()),
);
const raster = { width: WIDE, height: HIGH, data };

describe('how far the picture is from a colour', () => {
  it('is the distance in OKLab, a and b weighted, clear pixels shown on white paper, and beside the picture as its border', () => {
    const colour = rgbToOklab([0.3, 0.5, 0.2]);
    const unlike = unlikeness(raster, colour);
    for (let k = 0; k < 400; k++) {
      const [x, y] = [Math.floor(90 * random()) - 10, Math.floor(65 * random()) - 10];
      const [px, py] = [Math.min(WIDE - 1, Math.max(0, x)), Math.min(HIGH - 1, Math.max(0, y))];
      const i = 4 * (py * WIDE + px);
      const solid = data[i + 3]! / 255;
      const [l, a, b] = rgbToOklab([data[i]! / 255, data[i + 1]! / 255, data[i + 2]! / 255]);
      const [dl, da, db] = [solid * l + 1 - solid - colour[0], solid * a - colour[1], solid * b - colour[2]];
      // Cube roots come from a table, read at the nearest.
      expect(unlike(x, y)).toBeCloseTo(Math.hypot(dl, A_B_WEIGHT * da, A_B_WEIGHT * db), 2);
      // Asked again it is the same.
      expect(unlike(x, y)).toBe(unlike(x + 0.4, y + 0.7));
    }
  });
});
