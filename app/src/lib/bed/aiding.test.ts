import { describe, expect, it } from 'vitest';
import {
  addGuide,
  corner,
  plainStroke,
  setGrid,
  setPicture,
  shapeBounds,
  shapesOf,
  wholePaths,
  type Path,
} from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import { gripForm, formInHand, radiusGrips } from './forms';
import { blockInTarget } from './block-in-target';
import { endPath } from './ending';
import { foresee } from './foresight';
import { snapAt } from './snapping';
import { benchWith, shapeWith, square, withPicture, type Bench } from './testing';
import type { BedPointer } from './behaviour';

const attracting = (b: Bench): Bench => {
  b.desk.habits.set({ snapOn: true });
  return b;
};
const over = (b: Bench, x: number, y: number, keys: Partial<BedPointer> = {}): BedPointer => ({
  sheet: { x, y },
  screen: { x: x * b.desk.looking.view.scale + b.desk.looking.view.tx, y: y * b.desk.looking.view.scale + b.desk.looking.view.ty },
  shift: false, alt: false, type: 'mouse', time: 0, again: false, ...keys,
}); // prettier-ignore
const spots = (b: Bench, shape = -1): number[][] =>
  b.shapes.at(shape)!.paths[0]!.anchors.map((a) => [a.x, a.y]);

describe.each([0.25, 1, 16])('snapping at %f screen px to the sheet px', (scale) => {
  const s = (n: number): number => n / scale;
  const one = (): Bench =>
    attracting(benchWith([shapeWith('s', [square('p', 100, 100, s(60))])], 'block-in', scale));

  it('takes an anchor within eight screen pixels, not beyond, and says so before the press', () => {
    const b = one();
    const near = over(b, 100 - s(4), 100 - s(4));
    expect(blockInTarget(b.desk, near)).toMatchObject({
      kind: 'add',
      at: { x: 100, y: 100 },
      snap: { why: 'anchor' },
    });
    expect(foresee(b.desk, near)).toMatchObject({ kind: 'add', at: { x: 100, y: 100 } });
    expect(snapAt(b.desk, { x: 100 - s(6), y: 100 - s(6) })).toBeNull();
    b.click({ x: 100 - s(4), y: 100 - s(4) });
    expect(spots(b)).toEqual([[100, 100]]);
  });

  it('is suspended while C is held, and each kind has its switch', () => {
    const b = one();
    const p = { x: 100 + s(30), y: 100 + s(3) };
    expect(snapAt(b.desk, p)!.kind).toBe('segments');
    b.desk.pointing.hold('c', true);
    expect(snapAt(b.desk, p)).toBeNull();
    b.desk.pointing.hold('c', false);
    b.desk.habits.setSnap('segments', false);
    expect(snapAt(b.desk, p)).toBeNull();
    b.desk.habits.setSnap('anchors', false);
    b.desk.habits.setSnap('crossings', false);
    expect(snapAt(b.desk, { x: 100, y: 100 })).toBeNull();
  });

  it('goes to guides, the sheet, the grid, and to where a guide crosses a segment', () => {
    const b = one();
    b.desk.change('Guide', addGuide({ id: 'g', x: 100 + s(20), y: 0, angle: Math.PI / 2 }));
    const crossing = snapAt(b.desk, { x: 100 + s(23), y: 100 + s(2) })!;
    expect(crossing.at.x).toBe(100 + s(20));
    expect(crossing.at.y).toBeCloseTo(100, 9);
    expect(crossing.why).toBe('segment, guide');
    expect(snapAt(b.desk, { x: s(3), y: s(-2) })!.why).toBe('corner of the sheet');
    b.desk.change('Grid', setGrid({ shown: true, step: s(50) }));
    expect(snapAt(b.desk, { x: s(352), y: s(248) })).toMatchObject({
      kind: 'grid',
      at: { x: s(350), y: s(250) },
    });
    b.desk.change('Grid', setGrid({ shown: false }));
    expect(snapAt(b.desk, { x: s(352), y: s(248) })).toBeNull();
  });

  it('draws faint lines from the path in hand only, and moves nothing that is not dragged', () => {
    const b = one();
    const before = spots(b);
    b.click({ x: s(-100), y: s(-100) });
    b.click({ x: s(-40), y: s(-98) });
    expect(spots(b)).toEqual([
      [s(-100), s(-100)],
      [s(-40), s(-100)],
    ]);
    expect(spots(b, 0)).toEqual(before);
    b.desk.step = 'refine';
    endPath(b.desk);
    // An anchor dragged in Refine goes to another shape's anchor, not to where it was.
    b.drag({ x: s(-40), y: s(-100) }, { x: 100 + s(3), y: 100 - s(2) });
    expect(spots(b)[1]).toEqual([100, 100]);
    expect(spots(b, 0)).toEqual(before);
  });
});

it('the picture’s edge attracts when asked, through the picture’s placement, not where it is cropped away', () => {
  const b = attracting(benchWith([]));
  withPicture(b, 200, 100);
  const data = new Uint8ClampedArray(200 * 100 * 4).fill(255);
  // Dark from the pixel 80 on, laid at twice its size.
  for (let i = 0; i < 200 * 100; i++) if (i % 200 >= 80) data.fill(20, i * 4, i * 4 + 3);
  b.desk.change('Scale', setPicture('pic', { placement: [2, 0, 0, 2, 10, 0] }));
  b.desk.picture.inks.raster = { key: 'src', pixels: { width: 200, height: 100, data }, step: 1 };
  const p = { x: 166, y: 90 };
  expect(snapAt(b.desk, p)).toBeNull();
  b.desk.habits.setSnap('edge', true);
  const taken = snapAt(b.desk, p)!;
  expect(taken.why).toBe('edge of the picture');
  expect(taken.at.x).toBeCloseTo(170, 0);
  expect(Math.abs(taken.at.y - 90)).toBeLessThanOrEqual(1);
  b.desk.change('Crop', setPicture('pic', { crop: { x0: 0, y0: 60, x1: 200, y1: 100 } }));
  expect(snapAt(b.desk, p)).toBeNull();
});

it('locked and hidden shapes do not attract', () => {
  const b = attracting(benchWith([shapeWith('s', [square('p', 100, 100, 60)], { locked: true })]));
  expect(snapAt(b.desk, { x: 101, y: 101 })).toBeNull();
});

it('straight only: a drag moves the new anchor and pulls no handles', () => {
  const b = benchWith([]);
  b.desk.habits.set({ straightOnly: true });
  b.click({ x: 10, y: 10 });
  b.drag({ x: 60, y: 10 }, { x: 80, y: 40 });
  b.drag({ x: 80, y: 40 }, { x: 95, y: 60 });
  expect(b.shapes[0]!.paths[0]!.anchors).toEqual([corner(10, 10), corner(80, 40)]);
  // Its sides follow no edge.
  expect(b.shapes[0]!.unmeasured).toBe(true);
});

describe('a border shared', () => {
  const drawn = (): Bench => {
    const b = attracting(benchWith([shapeWith('s', [square('p', 100, 100, 60)])]));
    b.desk.colouring.nextFill = { hex: '#2f6b4f' };
    for (const [x, y] of [
      [160, 100],
      [230, 90],
      [240, 170],
      [162, 158],
    ] as const)
      b.click({ x, y });
    return b;
  };

  it('is offered when a path begins and ends on a neighbour, shown as a ghost, taken with Enter', () => {
    const b = drawn();
    expect(b.desk.offer?.text).toContain('Close along the neighbour’s border');
    expect(b.desk.offer!.ghost![0]!.closed).toBe(true);
    expect(b.shapes[1]!.paths[0]!.closed).toBe(false);
    b.desk.takeOffer();
    const [old, made] = b.shapes;
    expect(made!.paths[0]!.anchors).toHaveLength(4);
    expect(made!.fill).toEqual({ hex: '#2f6b4f' });
    expect(made!.paths[0]!.anchors[0]!.shared).toBe(old!.paths[0]!.anchors[1]!.shared);
    expect(b.desk.live).toBeNull();
    // One undo brings all back.
    b.desk.undo();
    expect(b.shapes[0]!.paths[0]!.anchors.some((a) => a.shared)).toBe(false);
    expect(b.desk.livePath!.closed).toBe(false);
  });

  it('R takes it the other way round, another press leaves it', () => {
    const b = drawn();
    b.desk.offer!.turn!();
    b.desk.takeOffer();
    expect(b.shapes[1]!.paths[0]!.anchors).toHaveLength(6);
    const c = drawn();
    c.click({ x: 300, y: 250 });
    expect(c.desk.offer).toBeNull();
    expect(c.desk.livePath!.anchors).toHaveLength(5);
  });

  it('is not offered when an end lies off, and the shared anchor then moves in both', () => {
    const b = attracting(benchWith([shapeWith('s', [square('p', 100, 100, 60)])]));
    for (const [x, y] of [
      [160, 100],
      [230, 90],
      [240, 170],
    ] as const)
      b.click({ x, y });
    expect(b.desk.offer).toBeNull();
    const c = drawn();
    c.desk.takeOffer();
    c.desk.habits.set({ snapOn: false });
    c.desk.step = 'refine';
    c.drag({ x: 160, y: 100 }, { x: 150, y: 80 });
    expect(spots(c, 0)[1]).toEqual([150, 80]);
    expect(spots(c, 1)[0]).toEqual([150, 80]);
  });

  it('begins between anchors: the neighbour gets one there', () => {
    const b = attracting(benchWith([shapeWith('s', [square('p', 100, 100, 60)])]));
    for (const [x, y] of [
      [158, 130],
      [230, 90],
      [161, 101],
    ] as const)
      b.click({ x, y });
    b.desk.takeOffer();
    expect(spots(b, 0)).toEqual([
      [100, 100],
      [160, 100],
      [160, 130],
      [160, 160],
      [100, 160],
    ]);
  });
});

describe('forms', () => {
  const begin = (kind: 'box' | 'ellipse' | 'polygon' | 'line', scale = 1): Bench => {
    const b = benchWith([], 'block-in', scale);
    b.desk.next.form = kind;
    return b;
  };

  it('are drawn from a corner, from the middle with Alt, even with Shift; the next press draws the next', () => {
    const b = begin('box');
    b.drag({ x: 10, y: 10 }, { x: 70, y: 40 });
    b.drag({ x: 200, y: 100 }, { x: 230, y: 120 }, { alt: true });
    b.drag({ x: 10, y: 200 }, { x: 40, y: 210 }, { shift: true });
    expect(b.shapes.map((s) => s.name)).toEqual(['Box 1', 'Box 2', 'Box 3']);
    expect(b.shapes.map((s) => [s.paths[0]!.form!.width, s.paths[0]!.form!.height])).toEqual([
      [60, 30],
      [60, 40],
      [30, 30],
    ]);
    expect(shapeBounds(b.shapes[1]!)).toEqual({ x0: 170, y0: 80, x1: 230, y1: 120 });
  });

  it('have the fill shown as the next path’s at once; a line has none', () => {
    const b = begin('ellipse');
    b.desk.colouring.nextFill = { hex: '#2f6b4f' };
    b.drag({ x: 10, y: 10 }, { x: 70, y: 40 });
    b.desk.next.form = 'line';
    b.drag({ x: 10, y: 100 }, { x: 70, y: 140 });
    expect(b.shapes.map((s) => s.fill)).toEqual([{ hex: '#2f6b4f' }, null]);
  });

  it('show their size while drawn, in the sheet’s unit', () => {
    const b = begin('ellipse');
    b.press({ x: 10, y: 10 });
    b.move({ x: 50, y: 40 });
    b.move({ x: 70, y: 40 });
    expect(b.desk.pointing.pointerNote?.text).toBe('60.0 × 30.0 px');
    b.machine.cancel();
    expect(b.desk.pointing.pointerNote).toBeNull();
    expect(b.shapes).toHaveLength(0);
  });

  it('a click offers the size drawn last, none at first; nothing is drawn until it is taken', () => {
    const b = begin('line');
    b.click({ x: 5, y: 5 });
    expect(b.desk.offer).toBeNull();
    expect(b.desk.notice?.text).toContain('Drag to draw');
    b.desk.next.form = 'box';
    b.drag({ x: 10, y: 10 }, { x: 70, y: 40 });
    b.click({ x: 100, y: 100 });
    expect(shapesOf(b.desk.drawing.kept)).toHaveLength(1);
    b.desk.takeOffer();
    expect(shapeBounds(b.shapes[1]!)).toEqual({ x0: 100, y0: 100, x1: 160, y1: 130 });
  });

  it('a box’s corners are rounded by a grip on the bed, one alone with Alt, and it stays a box', () => {
    const b = begin('box');
    b.drag({ x: 10, y: 10 }, { x: 110, y: 90 });
    const [grip] = radiusGrips(b.desk);
    expect(grip).toEqual({ x: 24, y: 24 });
    b.drag(grip!, { x: 34, y: 34 });
    expect(formInHand(b.desk)!.form.radii).toEqual([10, 10, 10, 10]);
    expect(b.shapes).toHaveLength(1);
    b.drag(radiusGrips(b.desk)[2]!, { x: 76, y: 56 }, { alt: true });
    const { radii } = formInHand(b.desk)!.form;
    expect(radii[0]).toBe(10);
    expect(radii[2]).toBeGreaterThan(15);
    b.desk.undo();
    b.desk.undo();
    expect(b.shapes[0]!.paths[0]!.form!.radii).toEqual([0, 0, 0, 0]);
  });

  it('a press with every layer locked draws nothing and says why', () => {
    const b = begin('box');
    b.desk.change('Lock', (d) => void (d.layers[0]!.locked = true));
    expect(gripForm(b.desk, 'box', over(b, 0, 0))).toBeNull();
    expect(b.desk.notice?.tone).toBe('bad');
  });

  it('an edited anchor makes it a path', () => {
    const b = begin('box');
    b.drag({ x: 10, y: 10 }, { x: 110, y: 90 });
    b.desk.step = 'refine';
    b.drag({ x: 10, y: 10 }, { x: 20, y: 20 });
    expect(b.shapes[0]!.paths[0]!.form).toBeUndefined();
    expect(spots(b)).toEqual([
      [20, 20],
      [110, 10],
      [110, 90],
      [10, 90],
    ]);
  });
});

describe('axes', () => {
  it('a mirror axis is drawn or clicked, snaps to the sheet’s middle, and new paths follow it until released', () => {
    const b = attracting(benchWith([]));
    b.desk.pointing.task = { kind: 'mirror-axis', from: null, own: null };
    b.click({ x: 203, y: 20 });
    expect(foresee(b.desk, over(b, 198, 290))).toMatchObject({
      kind: 'add',
      at: { x: 200, y: 290 },
      snap: { why: 'middle of the sheet' },
    });
    b.click({ x: 198, y: 280 });
    expect(b.desk.art.axis).toMatchObject({ kind: 'mirror', x: 200 });
    expect(Math.abs(Math.cos((b.desk.art.axis as { angle: number }).angle))).toBeLessThan(1e-12);
    b.desk.colouring.nextFill = { hex: '#2f6b4f' };
    for (const [x, y] of [
      [199, 50],
      [260, 120],
      [202, 200],
    ] as const)
      b.click({ x, y });
    endPath(b.desk);
    const shape = b.shapes[0]!;
    const [whole] = wholePaths(shape);
    expect(whole!.closed).toBe(true);
    expect(shapeBounds(shape)).toMatchObject({ x0: 140, x1: 260 });
    // Half an outline is filled as a whole one, in the step that ended it.
    expect(shape.fill).toEqual({ hex: '#2f6b4f' });
    b.desk.undo();
    expect(b.desk.livePath!.anchors).toHaveLength(3);
  });

  it('a line too short is refused, Esc leaves the task as it was', () => {
    const b = benchWith([]);
    b.desk.pointing.task = { kind: 'mirror-axis', from: null, own: null };
    b.drag({ x: 10, y: 10 }, { x: 14, y: 10 });
    expect(b.desk.art.axis).toBeNull();
    expect(b.desk.notice?.tone).toBe('bad');
  });

  it('what is drawn about a centre can be edited in any part', () => {
    const b = benchWith([]);
    b.desk.next.axisParts = 4;
    b.desk.pointing.task = { kind: 'turn-axis' };
    b.click({ x: 200, y: 150 });
    for (const [x, y] of [
      [200, 100],
      [230, 60],
    ] as const)
      b.click({ x, y });
    endPath(b.desk);
    b.desk.step = 'refine';
    // Its second anchor, a quarter turn on: (30, −90) from the centre turns to (90, 30).
    b.drag({ x: 290, y: 180 }, { x: 300, y: 180 });
    const a = b.shapes[0]!.paths[0]!.anchors[1]!;
    expect(a.x).toBeCloseTo(230, 9);
    expect(a.y).toBeCloseTo(50, 9);
    b.click({ x: 300, y: 180 });
    expect(b.desk.choice.anchors).toHaveLength(1);
    // Moved as a whole, the axis goes along.
    b.desk.choose(chooseShapes([b.shapes[0]!.id]));
    b.drag({ x: 200, y: 150 }, { x: 220, y: 160 });
    expect(b.shapes[0]!.axis).toMatchObject({ x: 220, y: 160 });
  });
});

describe('guides', () => {
  const guided = (): Bench => {
    const b = benchWith([], 'mount');
    b.desk.change('Guide', addGuide({ id: 'g', x: 100, y: 100, angle: 0 }));
    return b;
  };
  it('a press moves it; a click and a second press farther along turn it about where it was clicked', () => {
    const b = guided();
    b.drag({ x: 150, y: 100 }, { x: 150, y: 120 });
    expect(b.desk.art.guides.lines[0]).toMatchObject({ y: 120, angle: 0 });
    b.click({ x: 150, y: 120 });
    b.drag({ x: 250, y: 120 }, { x: 250, y: 220 });
    expect(b.desk.art.guides.lines[0]).toMatchObject({ x: 150, y: 120 });
    expect(b.desk.art.guides.lines[0]!.angle).toBeCloseTo(Math.PI / 4, 9);
    b.click({ x: 200, y: 170 });
    b.drag({ x: 250, y: 220 }, { x: 250, y: 165 }, { shift: true });
    expect(b.desk.art.guides.lines[0]!.angle).toBeCloseTo(0, 9);
  });
  it('is moved in Block in with A held, in Refine below shapes; a click does not change it', () => {
    const b = guided();
    b.desk.step = 'block-in';
    b.desk.pointing.hold('a', true);
    b.drag({ x: 150, y: 100 }, { x: 150, y: 90 });
    b.desk.pointing.hold('a', false);
    b.desk.step = 'refine';
    b.drag({ x: 150, y: 90 }, { x: 150, y: 80 });
    expect(b.desk.art.guides.lines[0]!.y).toBe(80);
    b.click({ x: 150, y: 80 });
    expect(b.desk.history.done.at(-1)!.label).toBe('Move the guide');
  });
});

it('pens: a new path is a stroke as wide as the pen', () => {
  const b = benchWith([]);
  b.desk.habits.set({ pen: true, penWidth: 3 });
  b.click({ x: 10, y: 10 });
  b.click({ x: 50, y: 10 });
  expect(b.shapes[0]!.stroke).toEqual(plainStroke({ hex: '#2a2722' }, 3));
  const line: Path = b.shapes[0]!.paths[0]!;
  expect(line.closed).toBe(false);
});
