import { describe, expect, it } from 'vitest';
import { corner, distance, deriveFlow, type Anchor, type Path } from '@mirrot/core';
import { chooseAnchors, chooseShapes } from '$lib/desk/choice';
import { flowChosen, flowKinds } from '$lib/edits/shaping';
import { benchWith, shapeWith, smooth, square } from './testing';
import { takeBack, turnLast } from './block-in';
import { closeLive, endPath } from './ending';
import { foresee } from './foresight';

const open = shapeWith('open', [{ id: 'o', closed: false, anchors: [corner(200, 200), corner(260, 200)] }]);

// Every press at several zooms: what was meant is what happens.
describe.each([0.25, 1, 8])('blocking in at %f screen px to the sheet px', (scale) => {
  const px = (n: number): number => n / scale;

  it('adds a corner by a click and a smooth anchor by a drag, then closes on the first', () => {
    const b = benchWith([], 'block-in', scale);
    b.click({ x: 10, y: 10 });
    b.drag({ x: 100, y: 10 }, { x: 130, y: 20 });
    b.click({ x: 60, y: 90 });
    expect(b.desk.live).not.toBeNull();
    b.click({ x: 10 + px(7), y: 10 });
    const [path] = b.shapes[0]!.paths;
    expect(b.desk.live).toBeNull();
    expect(path!.closed).toBe(true);
    expect(path!.anchors).toEqual([
      corner(10, 10),
      { x: 100, y: 10, kind: 'smooth', in: { x: -30, y: -10 }, out: { x: 30, y: 10 } },
      corner(60, 90),
    ]);
  });

  it('starts the next path at once, with the same settings', () => {
    const b = benchWith([], 'block-in', scale);
    b.desk.colouring.nextFill = { hex: '#2f6b4f' };
    for (const x of [0, 150]) {
      b.click({ x, y: 0 });
      b.click({ x: x + 100, y: 0 });
      b.click({ x: x + 50, y: 80 });
      b.click({ x, y: 0 });
    }
    expect(b.shapes.map((s) => [s.name, s.fill])).toEqual([
      ['Shape 1', { hex: '#2f6b4f' }],
      ['Shape 2', { hex: '#2f6b4f' }],
    ]);
  });

  it('presses inside and on finished shapes add; they never catch a press', () => {
    const b = benchWith(
      [shapeWith('s', [square('p', 0, 0, 100)], { fill: { hex: '#ffffff' } })],
      'block-in',
      scale,
    );
    b.click({ x: 50, y: 50 });
    b.click({ x: 100, y: 50 });
    b.drag({ x: 0, y: 0 }, { x: px(30), y: 0 });
    expect(b.shapes[1]!.paths[0]!.anchors).toHaveLength(3);
    expect(b.shapes[0]!.paths[0]).toEqual(square('p', 0, 0, 100));
  });

  it('shapes own anchors and the last segment by a drag, adds there by a click', () => {
    const b = benchWith([], 'block-in', scale);
    for (const x of [0, 100, 200]) b.click({ x, y: 0 });
    b.drag({ x: 100, y: 0 }, { x: 100, y: 40 });
    expect(b.desk.livePath!.anchors[1]).toMatchObject({ x: 100, y: 40 });
    b.drag({ x: 150, y: 20 }, { x: 150, y: 20 + px(30) });
    expect(b.desk.livePath!.anchors).toHaveLength(3);
    expect(b.desk.livePath!.anchors[1]!.out).not.toBeNull();
    b.click({ x: 100, y: 40 });
    expect(b.desk.livePath!.anchors).toHaveLength(4);
  });

  it('takes a short wobble for a click, and two clicks on a spot for one anchor', () => {
    const b = benchWith([], 'block-in', scale);
    b.press({ x: 10, y: 10 });
    b.move({ x: 10 + px(2), y: 10 });
    b.lift({ x: 10 + px(2), y: 10 });
    b.doubleClick({ x: 80, y: 10 });
    expect(b.desk.livePath!.anchors).toEqual([corner(10, 10), corner(80, 10)]);
  });
});

describe('while an anchor is pulled out', () => {
  it('turns only the leaving handle with Alt, or after J', () => {
    const b = benchWith([]);
    b.click({ x: 0, y: 0 });
    b.press({ x: 100, y: 0 });
    b.move({ x: 130, y: 0 });
    b.move({ x: 100, y: 40 }, { alt: true });
    b.lift({ x: 100, y: 40 }, { alt: true });
    expect(b.desk.livePath!.anchors[1]).toEqual({
      x: 100,
      y: 0,
      kind: 'corner',
      in: { x: -30, y: -0 },
      out: { x: 0, y: 40 },
    });
    b.press({ x: 200, y: 0 });
    b.move({ x: 230, y: 0 });
    expect(b.machine.key('j')).toBe(true);
    b.move({ x: 200, y: -50 });
    b.lift({ x: 200, y: -50 });
    expect(b.desk.livePath!.anchors[2]).toMatchObject({
      kind: 'corner',
      in: { x: -30 },
      out: { x: 0, y: -50 },
    });
  });

  it('steps by 45° with Shift, from the last anchor and for the handle', () => {
    const b = benchWith([]);
    b.click({ x: 0, y: 0 });
    b.click({ x: 100, y: 8 }, { shift: true });
    expect(b.desk.livePath!.anchors[1]!.y).toBeCloseTo(0, 12);
    b.drag({ x: 150, y: 60 }, { x: 190, y: 63 }, { shift: true });
    const { out } = b.desk.livePath!.anchors[2]!;
    expect(out!.y).toBeCloseTo(0, 12);
  });

  it('gives it all back when cancelled', () => {
    const b = benchWith([]);
    b.click({ x: 0, y: 0 });
    const before = b.desk.art;
    b.press({ x: 90, y: 0 });
    b.move({ x: 120, y: 20 });
    b.machine.cancel();
    expect(b.desk.art).toBe(before);
    expect(b.desk.livePath!.anchors).toHaveLength(1);
  });
});

describe('Carry', () => {
  it('off leaves no leaving handle; O does the other for one anchor', () => {
    const b = benchWith([]);
    b.desk.habits.set({ carry: false });
    b.click({ x: 0, y: 0 });
    b.drag({ x: 100, y: 0 }, { x: 130, y: 0 });
    b.desk.next.carryOnce = true;
    b.drag({ x: 200, y: 0 }, { x: 230, y: 0 });
    b.drag({ x: 300, y: 0 }, { x: 330, y: 0 });
    expect(b.desk.livePath!.anchors.map((a) => [a.kind, a.out !== null])).toEqual([
      ['corner', false],
      ['smooth', false],
      ['smooth', true],
      ['smooth', false],
    ]);
  });
});

describe('the last anchor and the first', () => {
  it('drops the leaving handle by a click and pulls a new one by a drag', () => {
    const b = benchWith([]);
    b.click({ x: 0, y: 0 });
    b.drag({ x: 100, y: 0 }, { x: 130, y: 0 });
    b.click({ x: 100, y: 0 });
    expect(b.desk.livePath!.anchors[1]).toMatchObject({ kind: 'corner', out: null, in: { x: -30 } });
    b.drag({ x: 100, y: 0 }, { x: 100, y: 50 });
    expect(b.desk.livePath!.anchors[1]).toMatchObject({ kind: 'corner', out: { x: 0, y: 50 } });
    b.drag({ x: 100, y: 0 }, { x: 160, y: 0 });
    expect(b.desk.livePath!.anchors[1]!.kind).toBe('smooth');
  });

  it('shapes the closing curve by a drag on the first', () => {
    const b = benchWith([]);
    b.click({ x: 0, y: 0 });
    b.click({ x: 100, y: 0 });
    b.click({ x: 50, y: 80 });
    b.drag({ x: 0, y: 0 }, { x: 30, y: -40 });
    const [path] = b.shapes[0]!.paths;
    expect(path!.closed).toBe(true);
    expect(path!.anchors[0]!.in).toEqual({ x: -30, y: 40 });
  });

  it('does not close on a lone first anchor', () => {
    const b = benchWith([]);
    b.click({ x: 0, y: 0 });
    b.click({ x: 1, y: 0 });
    expect(b.shapes[0]!.paths[0]!.closed).toBe(false);
    expect(b.desk.live).not.toBeNull();
  });
});

describe('ends of other paths', () => {
  it('starts there and offers to go on from it', () => {
    const b = benchWith([open]);
    b.click({ x: 261, y: 201 });
    expect(b.desk.offer?.text).toContain('goes on');
    b.desk.takeOffer();
    expect(b.desk.live).toEqual({ shape: 'open', path: 'o' });
    b.click({ x: 300, y: 260 });
    expect(b.shapes).toHaveLength(1);
    expect(b.shapes[0]!.paths[0]!.anchors).toHaveLength(3);
  });

  it('ends there and offers to join; left alone, both stay as they are', () => {
    const b = benchWith([open]);
    b.click({ x: 100, y: 100 });
    b.click({ x: 199, y: 199 });
    expect(b.desk.live).toBeNull();
    expect(b.desk.offer?.text).toContain('joins');
    expect(b.shapes).toHaveLength(2);
    b.desk.takeOffer();
    expect(b.shapes).toHaveLength(1);
    expect(b.shapes[0]!.paths[0]!.anchors.map((a) => [a.x, a.y])).toEqual([
      [100, 100],
      [200, 200],
      [260, 200],
    ]);
  });

  it('is over an end but adds when T was pressed', () => {
    const b = benchWith([open]);
    b.desk.next.fresh = true;
    b.click({ x: 260, y: 200 });
    expect(b.desk.offer).toBeNull();
    expect(b.shapes).toHaveLength(2);
  });
});

describe('ending and taking back', () => {
  it('keeps an open path, and drops one with a lone anchor', () => {
    const b = benchWith([]);
    b.click({ x: 0, y: 0 });
    b.click({ x: 100, y: 0 });
    endPath(b.desk);
    expect(b.shapes).toHaveLength(1);
    b.click({ x: 200, y: 100 });
    endPath(b.desk);
    expect(b.shapes).toHaveLength(1);
  });

  it('takes back anchor by anchor, the path with the first', () => {
    const b = benchWith([]);
    for (const x of [0, 100, 200]) b.click({ x, y: 0 });
    takeBack(b.desk);
    expect(b.desk.livePath!.anchors).toHaveLength(2);
    takeBack(b.desk);
    takeBack(b.desk);
    expect(b.shapes).toHaveLength(0);
    expect(b.desk.live).toBeNull();
    takeBack(b.desk);
  });

  it('opens an ended path again by the first undo, then goes anchor by anchor, and redoes all', () => {
    const b = benchWith([]);
    for (const x of [0, 100, 200]) b.click({ x, y: 0 });
    endPath(b.desk);
    b.desk.undo();
    expect(b.desk.livePath!.anchors).toHaveLength(3);
    b.desk.undo();
    expect(b.desk.livePath!.anchors).toHaveLength(2);
    b.desk.undo();
    b.desk.undo();
    expect(b.shapes).toHaveLength(0);
    for (let i = 0; i < 4; i++) b.desk.redo();
    expect(b.shapes[0]!.paths[0]!.anchors).toHaveLength(3);
    expect(b.desk.live).toBeNull();
  });

  it('closes with the ledge as a click on the first anchor would', () => {
    const b = benchWith([]);
    b.click({ x: 0, y: 0 });
    closeLive(b.desk);
    expect(b.shapes[0]!.paths[0]!.closed).toBe(false);
    b.click({ x: 100, y: 0 });
    b.click({ x: 50, y: 50 });
    closeLive(b.desk);
    expect(b.shapes[0]!.paths[0]!.closed).toBe(true);
  });

  it('turns the last anchor from smooth to corner and back', () => {
    const b = benchWith([]);
    b.click({ x: 0, y: 0 });
    b.drag({ x: 100, y: 0 }, { x: 130, y: 0 });
    turnLast(b.desk);
    expect(b.desk.livePath!.anchors[1]!.kind).toBe('corner');
    turnLast(b.desk);
    expect(b.desk.livePath!.anchors[1]!.kind).toBe('smooth');
  });
});

describe('held keys', () => {
  it('with A a press shapes what lies there and adds nothing', () => {
    const b = benchWith([shapeWith('s', [square('p', 0, 0, 100)])]);
    b.desk.pointing.hold('a', true);
    b.drag({ x: 0, y: 0 }, { x: -10, y: -10 });
    b.drag({ x: 100, y: 50 }, { x: 130, y: 50 });
    b.click({ x: 300, y: 250 });
    expect(b.shapes).toHaveLength(1);
    const [path] = b.shapes[0]!.paths;
    expect(path!.anchors[0]).toMatchObject({ x: -10, y: -10 });
    expect(path!.anchors[1]!.out).not.toBeNull();
  });

  it('with T in Refine a press adds', () => {
    const b = benchWith([shapeWith('s', [square('p', 0, 0, 100)])], 'refine');
    b.desk.pointing.hold('t', true);
    b.click({ x: 0, y: 0 });
    b.click({ x: 50, y: 50 });
    expect(b.shapes[1]!.paths[0]!.anchors).toHaveLength(2);
  });

  it('says so when every layer is locked', () => {
    const b = benchWith([]);
    b.desk.change('Lock', (d) => void (d.layers[0]!.locked = true));
    b.click({ x: 0, y: 0 });
    expect(b.shapes).toHaveLength(0);
    expect(b.desk.notice?.text).toContain('hidden or locked');
  });
});

describe('what a press would do is shown before it', () => {
  const over = (b: ReturnType<typeof benchWith>, x: number, y: number) =>
    foresee(b.desk, {
      sheet: { x, y },
      screen: { x: x + 20, y: y + 10 },
      shift: false,
      alt: false,
      type: 'mouse',
      time: 0,
      again: false,
    });

  it('the next segment, the closing one, an end to join, an own anchor', () => {
    const b = benchWith([open]);
    expect(over(b, 5, 5)).toMatchObject({ kind: 'add', cubics: [] });
    b.drag({ x: 0, y: 0 }, { x: 30, y: 0 });
    b.click({ x: 100, y: 100 });
    b.click({ x: 0, y: 100 });
    expect(over(b, 50, 250)).toMatchObject({ kind: 'add', at: { x: 50, y: 250 } });
    expect(over(b, 2, 2)).toMatchObject({ kind: 'close' });
    expect(over(b, 200, 200)).toMatchObject({ kind: 'end' });
    expect(over(b, 100, 100)).toMatchObject({ kind: 'anchor', ref: { index: 1 } });
    expect(over(b, 50, 100)).toMatchObject({ kind: 'segment' });
    b.desk.pointing.hold('q', true);
    expect(over(b, 50, 250)).toEqual({ kind: 'none' });
  });

  it('in Refine the segment that would bend, a corner of the box, or nothing', () => {
    const b = benchWith([shapeWith('s', [square('p', 0, 0, 100)])], 'refine');
    expect(over(b, 50, 1)).toMatchObject({ kind: 'segment' });
    expect(over(b, 300, 250)).toEqual({ kind: 'none' });
    b.click({ x: 50, y: 50 });
    expect(over(b, 101, 101)).toEqual({ kind: 'scale' });
    expect(over(b, 112, 112)).toEqual({ kind: 'turn' });
  });
});

it('keeps smooth what was smooth: the preview is the segment that a click makes', () => {
  const b = benchWith([]);
  b.drag({ x: 0, y: 0 }, { x: 40, y: 30 });
  const shown = foresee(b.desk, {
    sheet: { x: 120, y: 0 },
    screen: { x: 140, y: 10 },
    shift: false,
    alt: false,
    type: 'mouse',
    time: 0,
    again: false,
  });
  b.click({ x: 120, y: 0 });
  const [a] = b.desk.livePath!.anchors;
  expect(shown.kind).toBe('add');
  if (shown.kind === 'add')
    expect(distance(shown.cubics[0]![1], { x: a!.x + a!.out!.x, y: a!.y + a!.out!.y })).toBe(0);
  expect(smooth(0, 0, { x: 1, y: 0 }).in).toEqual({ x: -1, y: -0 });
});

describe('flowing', () => {
  it('clicks make anchors that flow, shown before the click as they will be', () => {
    const b = benchWith([]);
    b.desk.habits.set({ flowingClicks: true });
    for (const [x, y] of [
      [0, 0],
      [60, 40],
    ] as const)
      b.click({ x, y });
    const at = { x: 120, y: 0 };
    const shown = foresee(b.desk, { sheet: at, screen: { x: 140, y: 10 }, shift: false, alt: false, type: 'mouse', time: 0, again: false }); // prettier-ignore
    b.click(at);
    const path = b.desk.livePath!;
    expect(path.anchors.map((a) => a.kind)).toEqual(['flowing', 'flowing', 'flowing']);
    expect(path.anchors[1]!.out).not.toBeNull();
    if (shown.kind === 'add') expect(distance(shown.cubics[0]![2], { x: path.anchors[2]!.x + path.anchors[2]!.in!.x, y: path.anchors[2]!.y + path.anchors[2]!.in!.y })).toBeLessThan(1e-9); // prettier-ignore
    expect(shown.kind).toBe('add');
    b.click({ x: 60, y: -60 });
    b.click({ x: 0, y: 0 });
    expect(b.shapes[0]!.paths[0]!.closed).toBe(true);
    expect(b.shapes[0]!.paths[0]!.anchors.every((a) => a.in && a.out)).toBe(true);
  });

  it('anchors follow their neighbours, and freeze when a handle is touched', () => {
    const wave = [0, 1, 2, 3].map((i): Anchor => ({ ...corner(i * 60, (i % 2) * 50), kind: 'flowing' }));
    const b = benchWith([shapeWith('s', [deriveFlow({ id: 'w', closed: false, anchors: wave })])], 'refine');
    const before = b.shapes[0]!.paths[0]!.anchors[2]!;
    b.drag({ x: 60, y: 50 }, { x: 60, y: 90 });
    const after = b.shapes[0]!.paths[0]!.anchors[2]!;
    expect(after.kind).toBe('flowing');
    expect(distance(after.in!, before.in!)).toBeGreaterThan(1);
    b.desk.choose(chooseAnchors([{ shape: 's', path: 'w', index: 2 }]));
    const end = { x: after.x + after.out!.x, y: after.y + after.out!.y };
    b.drag(end, { x: end.x, y: end.y + 20 });
    expect(b.shapes[0]!.paths[0]!.anchors.map((a) => a.kind)).toEqual([
      'flowing',
      'flowing',
      'smooth',
      'smooth',
    ]);
  });

  it('all of a path flows but for its sharp corners; one undo brings all back', () => {
    const rough: Path = { id: 'r', closed: false, anchors: [[0, 0], [40, 10], [80, 0], [80, -90], [120, -100], [160, -90]].map(([x, y]) => corner(x!, y!)) }; // prettier-ignore
    const b = benchWith([shapeWith('s', [rough])], 'refine');
    b.desk.choose(chooseShapes(['s'], 'path'));
    flowChosen(b.desk);
    expect(b.shapes[0]!.paths[0]!.anchors.map((a) => a.kind[0]).join('')).toBe('cfccfc');
    expect(b.desk.notice?.text).toBe('2 more anchors flow.');
    b.desk.habits.set({ sharpest: 5 });
    const now = b.desk.art;
    flowChosen(b.desk);
    expect(b.desk.art).toBe(now);
    expect(b.desk.notice?.text).toContain('No anchor there can flow');
    b.desk.undo();
    expect(b.shapes[0]!.paths[0]).toEqual(rough);
    b.desk.choose(chooseAnchors([{ shape: 's', path: 'r', index: 1 }]));
    flowKinds(b.desk);
    expect(b.shapes[0]!.paths[0]!.anchors[1]!.kind).toBe('flowing');
    flowKinds(b.desk);
    expect(b.shapes[0]!.paths[0]!.anchors[1]!.kind).toBe('smooth');
  });
});
