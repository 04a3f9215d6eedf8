import { describe, expect, it } from 'vitest';
import { benchWith, shapeWith, square } from './testing';
import { halfPlane, leaves, wipeThrough, wipeTowards, wipeWays } from './wipe';

const sheet = { width: 200, height: 100 };
const upright = { at: { x: 100, y: 50 }, angle: Math.PI / 2 };

/** Whether a point lies in a polygon of text. */
function has(points: string, x: number, y: number): boolean {
  const corners = points.split(' ').map((pair) => pair.split(',').map(Number) as [number, number]);
  return corners.every(([ax, ay], i) => {
    const [bx, by] = corners[(i + 1) % corners.length]!;
    const [cx, cy] = corners[(i + 2) % corners.length]!;
    const side = (px: number, py: number): number => Math.sign((bx - ax) * (py - ay) - (by - ay) * (px - ax));
    return side(x, y) === side(cx, cy);
  });
}

describe('the wipe', () => {
  it('parts the sheet in two, each point in one half, at any angle', () => {
    for (const angle of [0, 0.3, Math.PI / 2, 2, -2.5]) {
      const wipe = { at: { x: 90, y: 40 }, angle };
      const { across } = wipeWays(wipe);
      for (const [x, y] of [
        [0, 0],
        [200, 0],
        [200, 100],
        [0, 100],
        [30, 70],
        [91, 44],
      ] as const) {
        const drawn = (x - 90) * across.x + (y - 40) * across.y > 0;
        expect(has(halfPlane(wipe, 1, sheet), x, y)).toBe(drawn);
        expect(has(halfPlane(wipe, -1, sheet), x, y)).toBe(!drawn);
      }
    }
  });

  it('is moved through a point, and turned towards one', () => {
    expect(wipeThrough(upright, { x: 20, y: 30 })).toEqual({ at: { x: 20, y: 30 }, angle: Math.PI / 2 });
    expect(wipeTowards(upright, { x: 150, y: 50 }).angle).toBe(0);
    expect(wipeTowards(upright, upright.at)).toBe(upright);
  });

  it('leaves the sheet where its tab stands', () => {
    expect(leaves({ x: 100, y: 50 }, { x: 0, y: 1 }, sheet)).toEqual({ x: 100, y: 100 });
    expect(leaves({ x: 100, y: 50 }, { x: -1, y: 0 }, sheet)).toEqual({ x: 0, y: 50 });
    expect(leaves({ x: 190, y: 50 }, { x: Math.SQRT1_2, y: Math.SQRT1_2 }, sheet)!.x).toBeCloseTo(200, 9);
    expect(leaves({ x: 300, y: 50 }, { x: 0, y: 1 }, sheet)).toBeNull();
  });

  it('shows both whole in Proof alone, and what is held alone', () => {
    const { desk } = benchWith([shapeWith('s', [square('p', 10, 10, 20)])]);
    desk.comparing.wipe = upright;
    desk.open('colour');
    expect(desk.comparing.wiped).toBeNull();
    desk.open('proof');
    expect(desk.looking.seen).toEqual({ picture: 1, fills: 1, ink: false });
    desk.pointing.hold('q', true);
    expect([desk.comparing.wiped, desk.looking.seen.fills]).toEqual([null, 0]);
    desk.pointing.hold('q', false);
    expect(desk.comparing.wiped).toEqual(upright);
  });
});
