import { describe, expect, it } from 'vitest';
import { apply, homography, placedPicture, project, squareMap, type Affine, type Point } from '@mirrot/core';
import { benchWith, shapeWith, square, withPicture } from '$lib/bed/testing';
import { actualPixels, flipPicture, levelBy, originAt, pictureCentre, placementNumbers, realSize, scalePicture, turnOnSheet, turnPicture, turnToLevel } from './placing'; // prettier-ignore
import { registered } from './registering';
import { enlarged } from './enlarging';

const mounted = () => {
  const b = benchWith([shapeWith('on', [square('p', 50, 20, 30)])], 'mount');
  withPicture(b);
  return b;
};
const picture = (placement: Affine) => placedPicture({ id: 'a', source: 's', name: 'A', width: 200, height: 100, placement }); // prettier-ignore
const near = (a: Point, b: Point, within = 1e-6): void =>
  expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(within);

describe('placing a picture', () => {
  it('turns a direction to the nearest of level and upright', () => {
    expect(turnToLevel({ x: 10, y: 1 })).toBeCloseTo(-5.7106, 3);
    expect(turnToLevel({ x: -10, y: -1 })).toBeCloseTo(-5.7106, 3);
    expect(turnToLevel({ x: 1, y: 10 })).toBeCloseTo(5.7106, 3);
    expect(turnToLevel({ x: 1, y: 0 })).toBe(0);
  });

  it('levels by a line about its middle and takes along what was traced; a line of no length changes nothing', () => {
    const { desk, shapes } = mounted();
    const before = desk.art;
    levelBy(desk, { from: { x: 5, y: 5 }, to: { x: 5, y: 5 } });
    expect(desk.art).toBe(before);
    expect(desk.notice?.text).toContain('Nothing was changed');
    levelBy(desk, { from: { x: 0, y: 0 }, to: { x: 100, y: 10 } });
    const { placement } = desk.picture.traced!;
    const a = apply(placement, { x: 0, y: 0 });
    const c = apply(placement, { x: 100, y: 10 });
    expect(a.y).toBeCloseTo(c.y, 9);
    near({ x: (a.x + c.x) / 2, y: (a.y + c.y) / 2 }, { x: 50, y: 5 });
    near(desk.shapeOf('on')!.paths[0]!.anchors[0]!, apply(placement, { x: 50, y: 20 }));
    desk.undo();
    expect(desk.shapeOf('on')).toEqual(shapes[0]);
  });

  it('leaves what was traced when that is wanted', () => {
    const { desk } = mounted();
    desk.picture.follow = false;
    turnPicture(desk, 'Turn', 20);
    expect(desk.shapeOf('on')!.paths[0]!.anchors[0]).toMatchObject({ x: 50, y: 20 });
  });

  it('finds the turn on the sheet for a level found in the picture, turned and flipped too', () => {
    expect(turnOnSheet(picture([1, 0, 0, 1, 0, 0]), 3)).toBeCloseTo(3, 9);
    const c = Math.cos(0.1);
    const s = Math.sin(0.1);
    expect(turnOnSheet(picture([c, s, -s, c, 0, 0]), 3)).toBeCloseTo(3 - (0.1 * 180) / Math.PI, 9);
    expect(turnOnSheet(picture([-1, 0, 0, 1, 0, 0]), 3)).toBeCloseTo(-3, 9);
  });

  it('scales to a real size about the line’s start, and refuses nothing', () => {
    const { desk } = mounted();
    expect(realSize(desk, { from: { x: 20, y: 20 }, to: { x: 60, y: 20 } }, 0)).toBe(false);
    expect(realSize(desk, { from: { x: 20, y: 20 }, to: { x: 60, y: 20 } }, NaN)).toBe(false);
    expect(desk.notice?.text).toContain('above 0');
    realSize(desk, { from: { x: 20, y: 20 }, to: { x: 60, y: 20 } }, 100);
    near(apply(desk.picture.traced!.placement, { x: 60, y: 20 }), { x: 120, y: 20 });
    near(apply(desk.picture.traced!.placement, { x: 20, y: 20 }), { x: 20, y: 20 });
  });

  it('puts a point on the sheet’s centre or corner', () => {
    const { desk } = mounted();
    originAt(desk, { x: 10, y: 10 });
    near(apply(desk.picture.traced!.placement, { x: 10, y: 10 }), { x: 200, y: 150 });
    desk.picture.originTo = 'corner';
    originAt(desk, { x: 200, y: 150 });
    near(apply(desk.picture.traced!.placement, { x: 10, y: 10 }), { x: 0, y: 0 });
  });

  it('flips, scales and turns where it lies; numbers say how it lies', () => {
    const { desk } = mounted();
    const centre = pictureCentre(desk.picture.traced!);
    scalePicture(desk, 'Scale', 1.5);
    turnPicture(desk, 'Turn', 30);
    expect(placementNumbers(desk.picture.traced!)).toMatchObject({ width: 300, height: 150 });
    expect(placementNumbers(desk.picture.traced!).degrees).toBeCloseTo(30, 9);
    expect(placementNumbers(desk.picture.traced!).percent).toBeCloseTo(150, 9);
    flipPicture(desk, true);
    near(pictureCentre(desk.picture.traced!), centre);
    actualPixels(desk);
    expect(placementNumbers(desk.picture.traced!).percent).toBeCloseTo(32, 9);
  });
});

describe('another picture in its place', () => {
  const old = picture([0.5, 0.1, -0.1, 0.5, 30, 40]);
  const fresh = placedPicture({ id: 'b', source: 't', name: 'B', width: 900, height: 700, placement: [1, 0, 0, 1, 0, 0] }); // prettier-ignore

  it('lies by three points where they lay', () => {
    const here = [{ x: 20, y: 10 }, { x: 180, y: 15 }, { x: 90, y: 95 }]; // prettier-ignore
    const there = [{ x: 120, y: 90 }, { x: 800, y: 60 }, { x: 500, y: 640 }]; // prettier-ignore
    const placed = registered(old, fresh, here, there);
    there.forEach((p, i) => near(apply(placed.placement, p), apply(old.placement, here[i]!)));
    expect(() => registered(old, fresh, here, [there[0]!, there[0]!, there[1]!])).toThrow('in one line');
  });

  it('lies by four points in perspective where they lay', () => {
    const here = [{ x: 20, y: 10 }, { x: 180, y: 15 }, { x: 170, y: 95 }, { x: 15, y: 90 }]; // prettier-ignore
    const there = [{ x: 120, y: 90 }, { x: 800, y: 60 }, { x: 760, y: 640 }, { x: 90, y: 600 }]; // prettier-ignore
    const placed = registered(old, fresh, here, there);
    const map = squareMap(placed)!;
    there.forEach((p, i) => near(apply(placed.placement, project(map, p)), apply(old.placement, here[i]!)));
    const between = project(homography(there, here), { x: 400, y: 300 });
    near(apply(placed.placement, project(map, { x: 400, y: 300 })), apply(old.placement, between));
  });

  it('of more pixels moves nothing: not the crop, not what is squared up', () => {
    const corners = [{ x: 10, y: 10 }, { x: 180, y: 20 }, { x: 170, y: 90 }, { x: 20, y: 80 }] as const; // prettier-ignore
    const p = { ...old, square: { corners: [...corners], width: 160, height: 70 } as never, crop: { x0: 10, y0: 10, x1: 90, y1: 60 } }; // prettier-ignore
    const large = { ...p, ...enlarged(p, { id: 'n', width: 400, height: 200 }) };
    const seen = (q: typeof p, at: Point): Point => apply(q.placement, project(squareMap(q)!, at));
    near(seen(p, { x: 100, y: 50 }), seen(large as typeof p, { x: 200, y: 100 }));
    expect(large.crop).toEqual({ x0: 20, y0: 20, x1: 180, y1: 120 });
  });
});
