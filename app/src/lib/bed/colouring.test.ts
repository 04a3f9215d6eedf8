import { isGradient, plainStroke, styleShapes, type Gradient, type Point } from '@mirrot/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { chooseShapes } from '$lib/desk/choice';
import { toBed } from '$lib/desk/view';
import { gradientString } from './gradient-string';
import { wheelDisc } from './sampling';
import { benchWith, shapeWith, square, withPicture, type Bench } from './testing';

const GRADIENT: Gradient = {
  kind: 'linear',
  placement: [100, 0, 0, 100, 50, 100],
  stops: [
    { at: 0, colour: { hex: '#000000' }, opacity: 1 },
    { at: 1, colour: { hex: '#ffffff' }, opacity: 0 },
  ],
};
let b: Bench;
const paint = (): Gradient => {
  const { fill } = b.desk.shapeOf('a')!;
  if (!fill || !isGradient(fill)) throw new Error('no gradient');
  return fill;
};
/** A place of the bed as a press on the sheet. */
const fromBed = (p: Point): Point => {
  const { scale, tx, ty } = b.desk.looking.view;
  return { x: (p.x - tx) / scale, y: (p.y - ty) / scale };
};
const tag = (i: number): Point => fromBed(gradientString(b.desk)!.tags[i]!.at);
const end = (part: 'start' | 'end' | 'side'): Point => fromBed(gradientString(b.desk)![part]!);

describe.each([0.25, 1, 6])('a gradient’s string at %d times', (scale) => {
  const bench = (gradient: Gradient): void => {
    b = benchWith([shapeWith('a', [square('p', 50, 50, 100)], { fill: gradient })], 'colour', scale);
    b.desk.choose(chooseShapes(['a']));
  };
  beforeEach(() => bench(GRADIENT));

  it('is dragged by its ends, the other stays, one step, undone to the same', () => {
    b.drag(end('end'), { x: 50, y: 180 });
    const [ux, uy, , , x, y] = paint().placement;
    expect([ux, uy, x, y].map((v) => Math.round(v) + 0)).toEqual([0, 80, 50, 100]);
    expect(b.desk.history.done).toHaveLength(1);
    b.desk.undo();
    expect(paint()).toEqual(GRADIENT);
    b.drag(end('start'), { x: 70, y: 100 });
    expect(paint().placement.map((v) => Math.round(v) + 0)).toEqual([80, 0, 0, 80, 70, 100]);
  });

  it('is never so short that its ends lie on each other', () => {
    b.drag(end('end'), { x: 50, y: 100 });
    const [ux, uy] = paint().placement;
    expect(Math.hypot(ux, uy) * scale).toBeGreaterThanOrEqual(2);
  });

  it('has a tag more where it is pressed, of the colour there; tags go along it, and past each other', () => {
    if (scale < 1) return;
    b.click({ x: 100, y: 100 });
    expect(paint().stops.map((s) => [s.at, s.colour])).toEqual([[0, { hex: '#000000' }], [0.5, { hex: '#808080' }], [1, { hex: '#ffffff' }]]); // prettier-ignore
    expect(b.desk.colouring.stop).toBe(1);
    b.drag(tag(0), { x: 50 + 75, y: tag(0).y });
    expect(paint().stops.map((s) => Math.round(100 * s.at))).toEqual([50, 75, 100]);
    expect(b.desk.colouring.stop).toBe(1);
  });

  it('loses a tag that is dragged off it, but never the last two', () => {
    if (scale < 1) return;
    b.click({ x: 100, y: 100 });
    const off = { x: 100, y: 100 + 90 / scale };
    b.drag(tag(1), off);
    expect(paint().stops).toHaveLength(2);
    b.drag(tag(1), off);
    expect(paint().stops).toHaveLength(2);
  });

  it('of a radial one is its radius: the middle moves all, the ring’s side squashes it', () => {
    if (scale < 1) return;
    bench({ ...GRADIENT, kind: 'radial', placement: [40, 0, 0, 40, 100, 100] });
    b.drag(end('start'), { x: 90, y: 110 });
    expect(paint().placement.map((v) => Math.round(v) + 0)).toEqual([40, 0, 0, 40, 90, 110]);
    b.drag(end('side'), { x: 90, y: 130 });
    expect(paint().placement.map((v) => Math.round(v) + 0)).toEqual([40, 0, 0, 20, 90, 110]);
    b.drag(end('end'), { x: 90, y: 190 });
    expect(paint().placement.map((v) => Math.round(v) + 0)).toEqual([0, 80, -40, 0, 90, 110]);
  });

  it('goes back when the drag is left, and is not there in other steps or while nothing is chosen', () => {
    b.press(end('end'));
    b.move({ x: 80, y: 180 });
    b.machine.cancel();
    expect(paint()).toEqual(GRADIENT);
    expect(b.desk.history.done).toHaveLength(0);
    b.desk.choose(chooseShapes([]));
    expect(gradientString(b.desk)).toBeNull();
    b.desk.choose(chooseShapes(['a']));
    b.desk.step = 'refine';
    expect(gradientString(b.desk)).toBeNull();
  });
});

describe('the brush', () => {
  const fills = (): unknown[] => b.shapes.map((s) => s.fill);
  beforeEach(() => {
    b = benchWith([shapeWith('a', [square('pa', 0, 0, 40)]), shapeWith('b', [square('pb', 50, 0, 40)]), shapeWith('c', [square('pc', 100, 0, 40)])], 'colour'); // prettier-ignore
    b.desk.colouring.brush = true;
    b.desk.colouring.nextFill = { hex: '#d4561c' };
  });

  it('fills what is pressed, and all that a drag goes over, however fast, as one step', () => {
    b.click({ x: 20, y: 20 });
    expect(fills()).toEqual([{ hex: '#d4561c' }, null, null]);
    b.drag({ x: 10, y: 20 }, { x: 130, y: 20 });
    expect(fills()).toEqual(Array.from({ length: 3 }, () => ({ hex: '#d4561c' })));
    expect(b.desk.history.done).toHaveLength(2);
    b.desk.undo();
    expect(fills()).toEqual([{ hex: '#d4561c' }, null, null]);
  });

  it('leaves what is locked, what has that fill already, and everything when it is put down', () => {
    b.desk.change('Lock', (draft) => void (draft.layers[0]!.children[1]!.locked = true));
    b.desk.change('Fill', styleShapes(['c'], { fill: { hex: '#d4561c' } }));
    const before = b.desk.art;
    b.press({ x: 60, y: 20 });
    b.move({ x: 130, y: 20 });
    b.lift({ x: 130, y: 20 });
    expect(b.desk.art).toBe(before);
    b.press({ x: 10, y: 20 });
    b.move({ x: 20, y: 25 });
    b.machine.cancel();
    expect(b.desk.art).toBe(before);
  });

  it('without a colour says so and changes nothing', () => {
    b.desk.colouring.nextFill = null;
    b.click({ x: 20, y: 20 });
    expect(fills()).toEqual([null, null, null]);
    expect(b.desk.notice?.text).toMatch(/brush has no colour.*Nothing was changed/);
  });
});

describe('sampling the drawing', () => {
  it('takes a line on the line and the fill inside, a hidden shape and the receiver left out', () => {
    const filled = shapeWith('a', [square('pa', 20, 20, 60)], { fill: { hex: '#111111' }, stroke: plainStroke({ hex: '#222222' }, 6) }); // prettier-ignore
    b = benchWith([filled, shapeWith('b', [square('pb', 200, 20, 60)])], 'colour');
    b.desk.looking.glass = 100;
    b.desk.choose(chooseShapes(['b']));
    const sampled = (at: Point): unknown => {
      b.desk.colouring.sampling = 'pixel';
      b.click(at);
      return b.desk.shapeOf('b')!.fill;
    };
    expect(sampled({ x: 50, y: 50 })).toEqual({ hex: '#111111' });
    expect(sampled({ x: 18, y: 50 })).toEqual({ hex: '#222222' });
    b.desk.change('Hide', (draft) => void (draft.layers[0]!.children[0]!.shown = false));
    const before = b.desk.art;
    sampled({ x: 50, y: 50 });
    expect(b.desk.art).toBe(before);
    expect(b.desk.notice?.text).toMatch(/no picture here.*Nothing was changed/);
  });

  it('by the wheel makes the disc wider and narrower, within bounds, only while it is a disc', () => {
    b = benchWith([], 'colour');
    withPicture(b);
    expect(wheelDisc(b.desk, 100)).toBe(false);
    b.desk.colouring.sampling = 'disc';
    const first = b.desk.colouring.discRadius;
    expect(wheelDisc(b.desk, -100)).toBe(true);
    expect(b.desk.colouring.discRadius).toBeGreaterThan(first);
    for (let i = 0; i < 60; i++) wheelDisc(b.desk, -100);
    expect(b.desk.colouring.discRadius).toBe(60);
    for (let i = 0; i < 90; i++) wheelDisc(b.desk, 100);
    expect(b.desk.colouring.discRadius).toBe(1);
    expect(toBed(b.desk.looking.view, { x: 0, y: 0 })).toEqual({ x: 20, y: 10 });
  });
});

it('the fill of the next path is put to none and back at one press', () => {
  b = benchWith([], 'block-in');
  b.desk.colouring.turnNextFill();
  expect(b.desk.colouring.nextFill).toBeNull();
  b.desk.colouring.nextFill = { hex: '#d4561c' };
  b.desk.colouring.turnNextFill();
  expect(b.desk.colouring.nextFill).toBeNull();
  b.desk.colouring.turnNextFill();
  expect(b.desk.colouring.nextFill).toEqual({ hex: '#d4561c' });
});
