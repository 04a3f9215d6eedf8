import { describe, expect, it } from 'vitest';
import { addGuide, boxHeight, boxWidth, lockGuides, setPicture } from '@mirrot/core';
import type { BedPointer } from './behaviour';
import { guideAt } from './guides';
import { cropEdges, cropOffer, ofRatio } from './mount';
import { benchWith, shapeWith, square, withPicture, type Bench } from './testing';

const mounted = (): Bench => {
  const b = benchWith([shapeWith('on', [square('p', 20, 20, 30)])], 'mount');
  withPicture(b);
  return b;
};
const over = (b: Bench, x: number, y: number): BedPointer => ({
  sheet: { x, y },
  screen: {
    x: x * b.desk.looking.view.scale + b.desk.looking.view.tx,
    y: y * b.desk.looking.view.scale + b.desk.looking.view.ty,
  },
  shift: false,
  alt: false,
  type: 'mouse',
  time: 0,
  again: false,
});
const whole = { x0: 0, y0: 0, x1: 200, y1: 100 };

describe('cropping', () => {
  const cropping = (ratio: number | null = null): Bench => {
    const b = mounted();
    b.desk.pointing.task = { kind: 'crop', box: whole, ratio };
    return b;
  };
  const box = (b: Bench) => (b.desk.pointing.task?.kind === 'crop' ? b.desk.pointing.task.box : null);

  it('moves corners and sides within the picture, and the box by its inside', () => {
    const b = cropping();
    b.drag({ x: 200, y: 100 }, { x: 150, y: 60 });
    expect(box(b)).toEqual({ x0: 0, y0: 0, x1: 150, y1: 60 });
    b.drag({ x: 0, y: 30 }, { x: 40, y: 99 });
    expect(box(b)).toEqual({ x0: 40, y0: 0, x1: 150, y1: 60 });
    b.drag({ x: 90, y: 30 }, { x: 300, y: 300 });
    expect(box(b)).toEqual({ x0: 90, y0: 40, x1: 200, y1: 100 });
    b.drag({ x: 200, y: 100 }, { x: 900, y: 900 });
    expect(box(b)).toMatchObject({ x1: 200, y1: 100 });
    b.drag({ x: 90, y: 40 }, { x: 900, y: 900 });
    expect(boxWidth(box(b)!)).toBe(1);
  });

  it('does nothing for a press elsewhere, and gives all back when cancelled', () => {
    const b = cropping();
    b.drag({ x: 300, y: 250 }, { x: 10, y: 10 });
    expect(box(b)).toEqual(whole);
    b.press({ x: 200, y: 100 });
    b.move({ x: 100, y: 50 });
    b.machine.cancel();
    expect(box(b)).toEqual(whole);
    expect(cropEdges(b.desk, { kind: 'crop', box: whole, ratio: null }, over(b, 100, 2))).toMatchObject({
      x: 0,
      y: -1,
    });
  });

  it('keeps a ratio, holding on to what was not moved', () => {
    const b = cropping(1);
    b.drag({ x: 200, y: 100 }, { x: 60, y: 80 });
    expect(boxWidth(box(b)!)).toBeCloseTo(boxHeight(box(b)!), 9);
    expect(box(b)).toMatchObject({ x0: 0, y0: 0 });
    for (const moved of [
      { x: 1, y: 1 },
      { x: -1, y: 0 },
      { x: 0, y: 1 },
      { x: 0, y: 0 },
    ]) {
      const kept = ofRatio(whole, 1.5, moved, 200, 100);
      expect(boxWidth(kept) / boxHeight(kept)).toBeCloseTo(1.5, 9);
      expect(kept.x0).toBeGreaterThanOrEqual(0);
      expect(kept.x1).toBeLessThanOrEqual(200);
      expect(kept.y1).toBeLessThanOrEqual(100);
    }
  });

  it('is taken as one step; of everything it is none', () => {
    const b = cropping();
    b.drag({ x: 200, y: 100 }, { x: 150, y: 60 });
    const steps = b.desk.history.done.length;
    const take = (): void => {
      b.desk.makeOffer(cropOffer(b.desk));
      b.desk.takeOffer();
    };
    take();
    expect(b.desk.picture.traced!.crop).toEqual({ x0: 0, y0: 0, x1: 150, y1: 60 });
    expect(b.desk.pointing.task).toBeNull();
    expect(b.desk.history.done.length).toBe(steps + 1);
    b.desk.pointing.task = { kind: 'crop', box: whole, ratio: null };
    take();
    expect(b.desk.picture.traced!.crop).toBeNull();
    take();
  });
});

describe('lines over the picture', () => {
  it('level it by a drag; a click says that it needs a line', () => {
    const b = mounted();
    b.desk.pointing.task = { kind: 'level' };
    b.press({ x: 10, y: 10 });
    b.move({ x: 60, y: 20 });
    expect(b.desk.pointing.rule).toEqual({ from: { x: 10, y: 10 }, to: { x: 60, y: 20 } });
    b.machine.cancel();
    expect(b.desk.pointing.rule).toBeNull();
    b.click({ x: 10, y: 10 });
    expect(b.desk.notice?.text).toContain('too short');
    expect(b.desk.pointing.task).not.toBeNull();
    b.drag({ x: 10, y: 10 }, { x: 110, y: 30 });
    expect(b.desk.picture.traced!.placement[1]).toBeLessThan(0);
    expect(b.desk.pointing.task).toBeNull();
  });

  it('measure a length, which waits to be told; a click measures nothing', () => {
    const b = mounted();
    b.desk.pointing.task = { kind: 'real-size' };
    b.click({ x: 10, y: 10 });
    expect(b.desk.picture.knownLength).toBeNull();
    b.drag({ x: 10, y: 10 }, { x: 110, y: 10 });
    expect(b.desk.picture.knownLength).toEqual({ from: { x: 10, y: 10 }, to: { x: 110, y: 10 } });
  });

  it('a click sets the origin', () => {
    const b = mounted();
    b.desk.pointing.task = { kind: 'origin' };
    b.click({ x: 30, y: 40 });
    expect(b.desk.picture.traced!.placement.slice(4)).toEqual([170, 110]);
    expect(b.shapes[0]!.paths[0]!.anchors[0]).toMatchObject({ x: 190, y: 130 });
  });
});

describe('guides', () => {
  it('are taken within four screen px, nearest first, unless locked or a task is on', () => {
    const b = mounted();
    b.desk.change('Guides', (d) => {
      addGuide({ id: 'flat', x: 0, y: 150, angle: 0 })(d);
      addGuide({ id: 'slant', x: 0, y: 0, angle: Math.PI / 4 })(d);
    });
    expect(guideAt(b.desk, over(b, 300, 152))?.id).toBe('flat');
    expect(guideAt(b.desk, over(b, 100, 103))?.id).toBe('slant');
    expect(guideAt(b.desk, over(b, 300, 160))).toBeNull();
    b.drag({ x: 300, y: 150 }, { x: 300, y: 180 });
    expect(b.desk.art.guides.lines[0]!.y).toBe(180);
    // Let go where the rulers are, it goes.
    b.drag({ x: 300, y: 180 }, { x: 300, y: -5 });
    expect(b.desk.art.guides.lines.map((g) => g.id)).toEqual(['slant']);
    b.desk.change('Lock', lockGuides(true));
    expect(guideAt(b.desk, over(b, 100, 100))).toBeNull();
  });
});

it('a picture that was traced over moves with what was traced, when that is wanted', () => {
  const b = mounted();
  b.desk.change('Unlock', setPicture('pic', { locked: false }));
  b.drag({ x: 100, y: 80 }, { x: 130, y: 90 });
  expect(b.shapes[0]!.paths[0]!.anchors[0]).toMatchObject({ x: 50, y: 30 });
  b.desk.picture.follow = false;
  b.drag({ x: 130, y: 90 }, { x: 100, y: 80 });
  expect(b.shapes[0]!.paths[0]!.anchors[0]).toMatchObject({ x: 50, y: 30 });
  expect(b.desk.picture.traced!.placement.slice(4)).toEqual([0, 0]);
});
