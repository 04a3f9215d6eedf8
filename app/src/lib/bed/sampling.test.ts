import { describe, expect, it } from 'vitest';
import { chooseShapes } from '$lib/desk/choice';
import { flatHex, keepAsChip, plainStroke, removeChip, setChip, setPicture } from '@mirrot/core';
import { currentFrame } from './box';
import { benchWith, shapeWith, square, withPicture, type Bench } from './testing';

/** A picture 200 × 100: left half dark, right half light, one stray magenta pixel at (50, 50). */
function withPixels(b: Bench): void {
  withPicture(b);
  const data = new Uint8ClampedArray(200 * 100 * 4);
  for (let i = 0; i < 200 * 100; i++)
    data.set([i % 200 < 100 ? 32 : 224, i % 200 < 100 ? 64 : 224, 96, 255], i * 4);
  data.set([255, 0, 255, 255], (50 * 200 + 50) * 4);
  b.desk.picture.inks.raster = { key: 'src', pixels: { width: 200, height: 100, data }, step: 1 };
}
const drawn = (): Bench => {
  const b = benchWith(
    [
      shapeWith('s', [square('p', 0, 150, 80)]),
      shapeWith('f', [square('q', 250, 150, 80)], { fill: { hex: '#123456' } }),
    ],
    'colour',
  );
  withPixels(b);
  b.desk.choose(chooseShapes(['s']));
  return b;
};
const fillOf = (b: Bench) => flatHex(b.shapes[0]!.fill, b.desk.colouring.palette);

describe('sampling', () => {
  it('takes one pixel by a click, the middle value by a drag, one step each', () => {
    const b = drawn();
    b.desk.colouring.sampling = 'pixel';
    b.click({ x: 50.5, y: 50.5 });
    expect(fillOf(b)).toBe('#ff00ff');
    b.desk.colouring.sampling = 'disc';
    b.drag({ x: 50.5, y: 50.5 }, { x: 60, y: 50.5 });
    expect(fillOf(b)).toBe('#204060');
    expect(b.desk.pointing.disc).toBeNull();
    expect(b.desk.colouring.discRadius).toBe(10);
    b.desk.undo();
    expect(fillOf(b)).toBe('#ff00ff');
  });

  it('takes the exact fill of the drawing where it is seen', () => {
    const b = drawn();
    b.desk.colouring.sampling = 'pixel';
    b.click({ x: 290, y: 190 });
    expect(fillOf(b)).toBe('#123456');
  });

  it('goes to the next path while nothing is chosen, and to strokes when they receive', () => {
    const b = drawn();
    b.desk.choose(chooseShapes([]));
    b.desk.colouring.sampling = 'pixel';
    b.click({ x: 150, y: 20 });
    expect(b.desk.colouring.nextFill).toEqual({ hex: '#e0e060' });
    b.desk.choose(chooseShapes(['s']));
    b.desk.colouring.receiving = 'stroke';
    b.click({ x: 20, y: 20 });
    expect(b.shapes[0]!.stroke).toEqual(plainStroke({ hex: '#204060' }, 2));
  });

  it('says so where there is no picture, and changes nothing', () => {
    const b = drawn();
    b.desk.colouring.sampling = 'pixel';
    b.click({ x: 390, y: 290 });
    expect(b.desk.notice?.text).toContain('no picture');
    expect(fillOf(b)).toBeNull();
  });

  it('works in any step while D is held', () => {
    const b = drawn();
    b.desk.step = 'refine';
    b.desk.pointing.hold('d', true);
    b.click({ x: 150, y: 20 });
    expect(fillOf(b)).toBe('#e0e060');
  });
});

describe('the picture in Mount', () => {
  const mounted = (): Bench => {
    const b = benchWith([], 'mount');
    withPicture(b);
    return b;
  };
  const placement = (b: Bench) => b.desk.picture.traced!.placement;

  it('stays where it is while it is locked', () => {
    const b = mounted();
    expect(currentFrame(b.desk)).toBeNull();
    b.drag({ x: 100, y: 50 }, { x: 150, y: 90 });
    expect(placement(b)).toEqual([1, 0, 0, 1, 0, 0]);
  });

  it('moves, scales in proportion about the corner across, freely with Shift, and turns outside', () => {
    const b = mounted();
    b.desk.change('Unlock', setPicture('pic', { locked: false }));
    b.drag({ x: 100, y: 50 }, { x: 110, y: 55 });
    expect(placement(b)).toEqual([1, 0, 0, 1, 10, 5]);
    b.drag({ x: 210, y: 105 }, { x: 310, y: 155 });
    expect(placement(b)[0]).toBeCloseTo(1.5, 9);
    expect(placement(b)[3]).toBeCloseTo(1.5, 9);
    b.desk.undo();
    b.drag({ x: 210, y: 105 }, { x: 310, y: 105 }, { shift: true });
    expect(placement(b).map((v) => Number(v.toFixed(6)))).toEqual([1.5, 0, 0, 1, 10, 5]);
    b.desk.undo();
    b.drag({ x: 222, y: 117 }, { x: 100, y: 200 });
    expect(placement(b)[1]).not.toBe(0);
    expect(Math.hypot(placement(b)[0], placement(b)[1])).toBeCloseTo(1, 9);
  });

  it('locks by itself when another step opens', () => {
    const b = mounted();
    b.desk.change('Unlock', setPicture('pic', { locked: false }));
    b.desk.open('block-in');
    expect(b.desk.picture.traced!.locked).toBe(true);
  });

  it('takes the chip of a fill that has one, and the colour at the place of a gradient', () => {
    const b = benchWith(
      [
        shapeWith('a', [square('p', 0, 0, 80)], { fill: { hex: '#112233' } }),
        shapeWith('b', [square('q', 100, 0, 80)]),
        shapeWith('c', [square('r', 200, 0, 100)], {
          fill: {
            kind: 'linear',
            placement: [100, 0, 0, 100, 200, 0],
            stops: [
              { at: 0, colour: { hex: '#000000' }, opacity: 1 },
              { at: 1, colour: { hex: '#ffffff' }, opacity: 1 },
            ],
          },
        }),
      ],
      'colour',
    );
    b.desk.change('Keep a chip', keepAsChip({ id: 'k', name: '', hex: '#112233' }));
    b.desk.choose(chooseShapes(['b']));
    b.desk.colouring.sampling = 'pixel';
    b.click({ x: 40, y: 40 });
    expect(b.shapes[1]!.fill).toEqual({ chip: 'k' });
    b.click({ x: 250, y: 40 });
    expect(b.shapes[1]!.fill).toEqual({ hex: '#808080' });
  });

  it('leaves the next path the colour of a chip that goes', () => {
    const b = benchWith([], 'colour');
    b.desk.change('Keep a chip', keepAsChip({ id: 'k', name: '', hex: '#112233' }));
    b.desk.colouring.nextFill = { chip: 'k' };
    b.desk.change('Recolour', setChip('k', { hex: '#445566' }));
    expect(b.desk.colouring.nextFill).toEqual({ chip: 'k' });
    b.desk.change('Remove a chip', removeChip('k'));
    expect(b.desk.colouring.nextFill).toEqual({ hex: '#112233' });
    b.desk.undo();
    expect(b.desk.colouring.nextFill).toEqual({ chip: 'k' });
  });
});
