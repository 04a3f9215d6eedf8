import { describe, expect, it } from 'vitest';
import { benchWith, shapeWith, square } from '$lib/bed/testing';
import { chooseShapes } from './choice';
import {
  fitted,
  LEAST_SCALE,
  MOST_SCALE,
  moveBetween,
  panned,
  toBed,
  toSheet,
  uncovered,
  zoomed,
  type View,
} from './view';

const view: View = { scale: 2, tx: 30, ty: -40 };

describe('the view', () => {
  it('maps there and back', () => {
    const p = { x: 12.5, y: -3 };
    expect(toSheet(view, toBed(view, p))).toEqual(p);
  });

  it('zooms about the pointer: what lies under it stays', () => {
    const at = { x: 333, y: 222 };
    for (const factor of [0.1, 0.9, 1.1, 7, 1e9, 1e-9]) {
      const before = toSheet(view, at);
      const after = toSheet(zoomed(view, factor, at), at);
      expect(after.x).toBeCloseTo(before.x, 9);
      expect(after.y).toBeCloseTo(before.y, 9);
    }
    expect(zoomed(view, 1e9, at).scale).toBe(MOST_SCALE);
    expect(zoomed(view, 1e-9, at).scale).toBe(LEAST_SCALE);
  });

  it('fits a box into the bed with a margin, in its middle', () => {
    const v = fitted({ x0: 0, y0: 0, x1: 100, y1: 50 }, { width: 864, height: 464 });
    expect(v.scale).toBe(8);
    expect(toBed(v, { x: 50, y: 25 })).toEqual({ x: 432, y: 232 });
    expect(fitted({ x0: 5, y0: 5, x1: 5, y1: 5 }, { width: 400, height: 300 }).scale).toBe(MOST_SCALE);
  });

  it('knows how a drawn layer must be moved, and when it no longer covers the bed', () => {
    const bed = { width: 800, height: 600 };
    const later = zoomed(panned(view, 100, 0), 1.5, { x: 0, y: 0 });
    const { scale, x, y } = moveBetween(view, later);
    const p = { x: 77, y: 88 };
    const moved = toBed(view, p);
    expect({ x: moved.x * scale + x, y: moved.y * scale + y }).toEqual(toBed(later, p));
    expect(uncovered(view, panned(view, 199, 0), bed, 200)).toBe(false);
    expect(uncovered(view, panned(view, 201, 0), bed, 200)).toBe(true);
    expect(uncovered(view, panned(view, 0, -201), bed, 200)).toBe(true);
    expect(uncovered(view, zoomed(view, 0.5, { x: 400, y: 300 }), bed, 200)).toBe(true);
  });
});

describe('the desk’s looks', () => {
  it('goes back to the view before, and forth; looks in a row count as one', () => {
    const b = benchWith([shapeWith('s', [square('p', 0, 0, 50)])]);
    const { desk } = b;
    const first = desk.looking.view;
    b.wait(1000);
    desk.looking.zoom(1.2);
    b.wait(100);
    desk.looking.zoom(1.2);
    const second = desk.looking.view;
    b.wait(1000);
    desk.looking.viewBack();
    expect(desk.looking.view).toBe(first);
    desk.looking.viewBack();
    expect(desk.looking.view).toBe(second);
    desk.choose(chooseShapes(['s']));
    desk.looking.fit(desk.choosing.box!);
    expect(toBed(desk.looking.view, { x: 25, y: 25 })).toEqual({
      x: desk.looking.bed.width / 2,
      y: desk.looking.bed.height / 2,
    });
  });

  it('shows by the Glass as DESIGN says: fills min(1, g/50), picture min(1, (100 − g)/50)', () => {
    const { desk } = benchWith([]);
    for (const [g, fills, picture] of [
      [0, 0, 1],
      [25, 0.5, 1],
      [50, 1, 1],
      [75, 1, 0.5],
      [100, 1, 0],
    ] as const) {
      desk.looking.glass = g;
      expect(desk.looking.seen).toEqual({ fills, picture, ink: true });
    }
  });

  it('keeps a Glass for each step and goes back to the one before', () => {
    const { desk } = benchWith([], 'proof');
    expect(desk.looking.glass).toBe(100);
    desk.looking.glass = 40;
    desk.open('refine');
    expect(desk.looking.glass).toBe(0);
    desk.open('proof');
    expect(desk.looking.glass).toBe(40);
    desk.looking.glassBack();
    expect(desk.looking.glass).toBe(100);
  });

  it('peeks at the bare picture and the bare drawing', () => {
    const { desk } = benchWith([], 'refine');
    desk.pointing.hold('q', true);
    expect(desk.looking.seen).toEqual({ picture: 1, fills: 0, ink: false });
    desk.pointing.hold('q', false);
    desk.pointing.hold('shift+q', true);
    expect(desk.looking.seen).toEqual({ picture: 0, fills: 1, ink: false });
  });
});
