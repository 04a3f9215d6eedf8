import { describe, expect, it } from 'vitest';
import { corner, cubicPoint, distance, pathLength, segmentCubic, type Path } from '@mirrot/core';
import { chooseAnchors, chooseShapes } from '$lib/desk/choice';
import { protectChosen } from '$lib/edits/anchors';
import { fieldOf, hitTest } from './hit';
import { shapeUnderPointer, walkAnchors, walkShapes } from './refine';
import { addInMiddle, closeOrOpen, deleteChosen, straighten, turnKinds } from '$lib/edits/shaping';
import { nudge } from '$lib/edits/nudging';
import { benchWith, shapeWith, smooth, square, type Bench } from './testing';

const fill = { fill: { hex: '#2f6b4f' } } as const;
const arch: Path = {
  id: 'arch',
  closed: false,
  anchors: [
    smooth(200, 100, { x: 0, y: -40 }),
    smooth(260, 60, { x: 30, y: 0 }),
    smooth(320, 100, { x: 0, y: 40 }),
  ],
};
const two = (): Bench =>
  benchWith(
    [shapeWith('low', [square('l', 0, 0, 100)], fill), shapeWith('high', [square('h', 40, 40, 100)], fill)],
    'refine',
  );
const anchorsOf = (b: Bench, shape = 0, path = 0) => b.shapes[shape]!.paths[path]!.anchors;

describe('choosing', () => {
  it('takes the inside of the topmost shape as a whole, an outline as a path, nothing as nothing', () => {
    const b = two();
    b.click({ x: 70, y: 70 });
    expect(b.desk.choice).toMatchObject({ level: 'shape', shapes: ['high'] });
    b.click({ x: 70, y: 0 });
    expect(b.desk.choice).toMatchObject({ level: 'path', shapes: ['low'], segment: { segment: 0 } });
    b.click({ x: 300, y: 250 });
    expect(b.desk.choice.shapes).toEqual([]);
  });

  it('adds with Shift and takes out again', () => {
    const b = two();
    b.click({ x: 10, y: 10 });
    b.click({ x: 120, y: 120 }, { shift: true });
    expect(b.desk.choice.shapes).toEqual(['low', 'high']);
    b.click({ x: 10, y: 10 }, { shift: true });
    expect(b.desk.choice.shapes).toEqual(['high']);
  });

  it('chooses by a box: shapes that lie wholly in it, or anchors of an open path', () => {
    const b = two();
    b.drag({ x: -10, y: -10 }, { x: 110, y: 110 });
    expect(b.desk.choice.shapes).toEqual(['low']);
    b.click({ x: 70, y: 0 });
    b.drag({ x: -12, y: -12 }, { x: 20, y: 110 });
    expect(b.desk.choice.anchors.map((a) => a.index)).toEqual([0, 3]);
    expect(b.desk.pointing.box).toBeNull();
  });

  it('gives the press to what is nearest, then to the chosen, then to the topmost', () => {
    const b = benchWith(
      [shapeWith('one', [square('1', 0, 0, 100)], fill), shapeWith('two', [square('2', 0, 0, 100)], fill)],
      'refine',
    );
    const at = (x: number, y: number) => hitTest(fieldOf(b.desk, { type: 'mouse' }), { x, y });
    expect(at(50, 1)).toMatchObject({ kind: 'segment', ref: { shape: 'two' } });
    b.desk.choose(chooseShapes(['one'], 'path'));
    expect(at(50, 1)).toMatchObject({ kind: 'segment', ref: { shape: 'one' } });
    // An anchor within 8 px goes before a segment within 5.
    expect(at(6, 0)).toMatchObject({ kind: 'anchor', ref: { index: 0 } });
    expect(at(9, 0)).toMatchObject({ kind: 'segment' });
    expect(at(50, 6)).toMatchObject({ kind: 'inside', shape: 'two' });
  });

  it('never chooses what is locked or hidden', () => {
    const b = two();
    b.desk.change('Lock', (d) => void (d.layers[0]!.children[1]!.locked = true));
    b.click({ x: 130, y: 130 });
    expect(b.desk.choice.shapes).toEqual([]);
    b.click({ x: 70, y: 70 });
    expect(b.desk.choice.shapes).toEqual(['low']);
  });

  it('walks anchors and shapes round and round', () => {
    const b = two();
    b.desk.choose(chooseShapes(['low'], 'path'));
    const seen: number[] = [];
    for (let i = 0; i < 5; i++) {
      walkAnchors(b.desk, 1);
      seen.push(b.desk.choice.anchors[0]!.index);
    }
    expect(seen).toEqual([0, 1, 2, 3, 0]);
    walkAnchors(b.desk, -1);
    expect(b.desk.choice.anchors[0]!.index).toBe(3);
    walkShapes(b.desk, 1);
    expect(b.desk.choice.shapes).toEqual(['high']);
    walkShapes(b.desk, 1);
    expect(b.desk.choice.shapes).toEqual(['low']);
  });

  it('knows the shape under the pointer for key 3', () => {
    const b = two();
    expect(shapeUnderPointer(b.desk)).toBeNull();
    b.desk.pointing.pointerAt = { x: 20 + 120, y: 10 + 120 };
    expect(shapeUnderPointer(b.desk)).toBe('high');
  });
});

describe.each([0.25, 1, 8])('shaping at %f screen px to the sheet px', (scale) => {
  const px = (n: number): number => n / scale;
  const start = (): Bench =>
    benchWith([shapeWith('s', [square('p', 0, 0, 100)]), shapeWith('a', [arch])], 'refine', scale);

  it('moves an anchor by as much as the pointer, and not at all under the threshold', () => {
    const b = start();
    b.drag({ x: px(4), y: px(3) }, { x: px(4) + 30, y: px(3) + 20 });
    expect(anchorsOf(b)[0]!.x).toBeCloseTo(30, 9);
    expect(anchorsOf(b)[0]!.y).toBeCloseTo(20, 9);
    const before = b.desk.art;
    b.drag({ x: 100, y: 100 }, { x: 100 + px(2), y: 100 });
    expect(b.desk.art).toBe(before);
  });

  it('keeps an anchor to an axis with Shift', () => {
    const b = start();
    b.desk.choose(chooseAnchors([{ shape: 's', path: 'p', index: 0 }]));
    b.press({ x: 0, y: 0 });
    b.move({ x: 20, y: 3 }, { shift: true });
    b.lift({ x: 20, y: 3 }, { shift: true });
    expect(anchorsOf(b)[0]).toMatchObject({ x: 20, y: 0 });
  });

  it('moves all chosen anchors together as one step', () => {
    const b = start();
    b.desk.choose(chooseAnchors([0, 1].map((index) => ({ shape: 's', path: 'p', index }))));
    b.drag({ x: 0, y: 0 }, { x: 0, y: 40 });
    expect(anchorsOf(b).map((a) => a.y)).toEqual([40, 40, 100, 100]);
    b.desk.undo();
    expect(anchorsOf(b).map((a) => a.y)).toEqual([0, 0, 100, 100]);
  });

  it('pulls a segment through the pointer wherever it is taken', () => {
    for (const t of [0.2, 0.5, 0.8]) {
      const b = start();
      const from = cubicPoint(segmentCubic(arch, 0), t);
      // Nearer than an anchor's reach the anchor has the press.
      if (arch.anchors.some((a) => distance(a, from) <= px(8))) continue;
      const to = { x: from.x - 18, y: from.y - 9 };
      b.drag(from, to);
      expect(distance(cubicPoint(segmentCubic(b.shapes[1]!.paths[0]!, 0), t), to)).toBeLessThan(1e-6);
    }
  });

  it('turns a smooth handle with the one across; Alt or J parts them; into the anchor removes it', () => {
    const b = start();
    b.desk.choose(chooseAnchors([{ shape: 'a', path: 'arch', index: 1 }]));
    b.drag({ x: 290, y: 60 }, { x: 260, y: 20 });
    expect(anchorsOf(b, 1)[1]).toMatchObject({ kind: 'smooth', out: { x: 0, y: -40 } });
    expect(anchorsOf(b, 1)[1]!.in!.y).toBeCloseTo(30, 9);
    b.press({ x: 260, y: 20 });
    b.move({ x: 300, y: 60 });
    b.machine.key('j');
    b.lift({ x: 300, y: 60 });
    expect(anchorsOf(b, 1)[1]).toMatchObject({ kind: 'corner', out: { x: 40, y: 0 } });
    expect(anchorsOf(b, 1)[1]!.in!.y).toBeCloseTo(30, 9);
    b.drag({ x: 300, y: 60 }, { x: 260, y: 60 });
    expect(anchorsOf(b, 1)[1]!.out).toBeNull();
  });
});

describe('double-clicks', () => {
  it('add an anchor on a segment without changing the line', () => {
    const b = benchWith([shapeWith('a', [arch])], 'refine');
    const length = pathLength(arch);
    b.doubleClick(cubicPoint(segmentCubic(arch, 1), 0.4));
    expect(anchorsOf(b)).toHaveLength(4);
    expect(pathLength(b.shapes[0]!.paths[0]!)).toBeCloseTo(length, 6);
  });

  it('turn an anchor from corner to smooth and back', () => {
    const b = benchWith([shapeWith('s', [square('p', 0, 0, 100)])], 'refine');
    b.doubleClick({ x: 0, y: 0 });
    expect(anchorsOf(b)[0]!.kind).toBe('smooth');
    b.doubleClick({ x: 0, y: 0 });
    expect(anchorsOf(b)[0]!.kind).toBe('corner');
  });
});

describe('a short handle', () => {
  it('is taken by its grip 14 px out and moves by as much as the pointer', () => {
    const near: Path = {
      id: 'n',
      closed: false,
      anchors: [smooth(100, 100, { x: 5, y: 0 }), corner(200, 100)],
    };
    const b = benchWith([shapeWith('n', [near])], 'refine');
    b.desk.choose(chooseAnchors([{ shape: 'n', path: 'n', index: 0 }]));
    b.drag({ x: 114, y: 100 }, { x: 124, y: 100 });
    expect(anchorsOf(b)[0]!.out!.x).toBeCloseTo(15, 9);
  });
});

describe('shapes', () => {
  it('move by a drag inside a chosen one, scale by a corner, turn outside it', () => {
    const b = two();
    b.click({ x: 10, y: 10 });
    b.drag({ x: 20, y: 20 }, { x: 30, y: 25 });
    expect(anchorsOf(b)[0]).toMatchObject({ x: 10, y: 5 });
    b.drag({ x: 110, y: 105 }, { x: 160, y: 105 });
    expect(anchorsOf(b)[2]!.x).toBeCloseTo(160, 6);
    expect(anchorsOf(b)[2]!.y).toBeCloseTo(105, 6);
    b.drag({ x: 172, y: 117 }, { x: 72, y: 177 }, { shift: true });
    expect(b.desk.history.done.at(-1)!.label).toContain('Turn');
  });

  it('are nudged by one, ten and a tenth of a screen pixel, each one step', () => {
    const b = benchWith([shapeWith('s', [square('p', 0, 0, 100)])], 'refine', 4);
    b.desk.choose(chooseShapes(['s']));
    nudge(b.desk, { x: 1 / 4, y: 0 });
    expect(anchorsOf(b)[0]!.x).toBe(0.25);
    b.desk.choose(chooseAnchors([{ shape: 's', path: 'p', index: 1 }]));
    nudge(b.desk, { x: 0, y: 0.1 });
    expect(anchorsOf(b)[1]!.y).toBe(0.1);
    expect(anchorsOf(b)[0]!.y).toBe(0);
    b.desk.undo();
    b.desk.undo();
    expect(anchorsOf(b)[0]!.x).toBe(0);
  });
});

describe('changes from keys and the ledge', () => {
  it('delete what is chosen: a handle, anchors with a refit, a segment, shapes', () => {
    const b = benchWith([shapeWith('a', [arch]), shapeWith('s', [square('p', 0, 0, 100)])], 'refine');
    b.desk.choose({
      ...chooseAnchors([]),
      shapes: ['a'],
      handle: { shape: 'a', path: 'arch', index: 1, side: 'out' },
    });
    deleteChosen(b.desk);
    expect(anchorsOf(b)[1]!.out).toBeNull();
    b.desk.undo();
    b.desk.choose(chooseAnchors([{ shape: 'a', path: 'arch', index: 1 }]));
    deleteChosen(b.desk);
    expect(anchorsOf(b)).toHaveLength(2);
    b.desk.choose({ ...chooseShapes(['s'], 'path'), segment: { shape: 's', path: 'p', segment: 3 } });
    deleteChosen(b.desk);
    expect(b.shapes[1]!.paths[0]!.closed).toBe(false);
    b.desk.choose(chooseShapes(['s']));
    deleteChosen(b.desk);
    expect(b.shapes.map((s) => s.id)).toEqual(['a']);
  });

  it('add in the middle, straighten, close and open, turn kinds', () => {
    const b = benchWith([shapeWith('a', [arch])], 'refine');
    b.desk.choose(chooseAnchors([0, 1].map((index) => ({ shape: 'a', path: 'arch', index }))));
    addInMiddle(b.desk);
    expect(anchorsOf(b)).toHaveLength(4);
    expect(b.desk.choice.anchors[0]!.index).toBe(1);
    turnKinds(b.desk);
    expect(anchorsOf(b)[1]!.kind).toBe('corner');
    b.desk.choose({ ...chooseShapes(['a'], 'path'), segment: { shape: 'a', path: 'arch', segment: 0 } });
    straighten(b.desk);
    expect([anchorsOf(b)[0]!.out, anchorsOf(b)[1]!.in]).toEqual([null, null]);
    closeOrOpen(b.desk);
    expect(b.shapes[0]!.paths[0]!.closed).toBe(true);
    closeOrOpen(b.desk);
    expect(b.shapes[0]!.paths[0]!.closed).toBe(false);
  });
});

describe('several anchors and their handles', () => {
  /** Two arches side by side, all middle anchors chosen. */
  const arches = (): Bench => {
    const second: Path = {
      ...arch,
      id: 'second',
      anchors: arch.anchors.map((a) => ({ ...a, y: a.y + 120 })),
    };
    const b = benchWith([shapeWith('a', [arch]), shapeWith('b', [second])], 'refine');
    b.desk.choose(
      chooseAnchors([
        { shape: 'a', path: 'arch', index: 1 },
        { shape: 'b', path: 'second', index: 1 },
      ]),
    );
    return b;
  };

  it('turn and stretch alike when one of the handles is dragged, as one step', () => {
    const b = arches();
    b.drag({ x: 290, y: 60 }, { x: 260, y: 105 });
    for (const shape of [0, 1]) {
      const a = b.shapes[shape]!.paths[0]!.anchors[1]!;
      expect(a.out!.x).toBeCloseTo(0, 9);
      expect(a.out!.y).toBeCloseTo(45, 9);
      expect(a.in!.x).toBeCloseTo(0, 9);
    }
    expect(b.desk.history.done).toHaveLength(1);
    expect(b.desk.history.done[0]!.label).toBe('Turn the handles');
  });

  it('only stretch while handles keep their angle, and turn again when they may', () => {
    const b = arches();
    b.desk.habits.set({ angleLocked: true });
    b.drag({ x: 290, y: 60 }, { x: 310, y: 100 });
    let a = anchorsOf(b)[1]!;
    expect(a.out).toEqual({ x: 50, y: 0 });
    b.drag({ x: 310, y: 60 }, { x: 200, y: 60 });
    a = anchorsOf(b)[1]!;
    expect(a.out).toBeNull();
    b.desk.undo();
    b.desk.habits.set({ angleLocked: false });
    b.drag({ x: 310, y: 60 }, { x: 260, y: 100 });
    expect(anchorsOf(b)[1]!.out!.x).toBeCloseTo(0, 9);
  });

  it('are protected and freed together, and survive the document', () => {
    const b = arches();
    protectChosen(b.desk);
    expect(b.shapes.map((s) => s.paths[0]!.anchors[1]!.protected)).toEqual([true, true]);
    expect(anchorsOf(b)[0]!.protected).toBeUndefined();
    b.drag({ x: 260, y: 60 }, { x: 260, y: 50 });
    expect(anchorsOf(b)[1]!.protected).toBe(true);
    protectChosen(b.desk);
    expect(b.shapes.some((s) => s.paths[0]!.anchors.some((a) => a.protected))).toBe(false);
  });
});

describe('a missing handle', () => {
  it('is pulled out of its anchor with Alt, on the side the hand goes to, and bends only that side', () => {
    const b = benchWith([shapeWith('s', [square('q', 100, 100, 100)])], 'refine');
    b.drag({ x: 200, y: 100 }, { x: 215, y: 150 }, { alt: true });
    let a = anchorsOf(b)[1]!;
    expect(a).toMatchObject({ x: 200, y: 100, kind: 'corner', in: null, out: { x: 15, y: 50 } });
    b.drag({ x: 200, y: 100 }, { x: 160, y: 80 }, { alt: true });
    a = anchorsOf(b)[1]!;
    expect(a.in).toEqual({ x: -40, y: -20 });
    expect(a.out).toEqual({ x: 15, y: 50 });
    expect(b.desk.history.done.map((s) => s.label)).toEqual(['Pull out a handle', 'Pull out a handle']);
    // With both there is none to pull out: the anchor moves.
    b.drag({ x: 200, y: 100 }, { x: 205, y: 110 }, { alt: true });
    expect(anchorsOf(b)[1]).toMatchObject({ x: 205, y: 110 });
  });

  it('is not pulled out at the end of an open path towards nothing', () => {
    const line: Path = { id: 'l', closed: false, anchors: [corner(50, 50), corner(150, 50)] };
    const b = benchWith([shapeWith('s', [line])], 'refine');
    b.drag({ x: 50, y: 50 }, { x: 20, y: 30 }, { alt: true });
    expect(anchorsOf(b)[0]).toMatchObject({ in: null, out: { x: -30, y: -20 } });
  });
});

describe('a point to turn about', () => {
  it('is picked by a click, and boxes turn about it instead of their middle', () => {
    const b = two();
    b.click({ x: 70, y: 70 });
    b.desk.pointing.task = { kind: 'about' };
    b.click({ x: 40, y: 40 });
    expect(b.desk.choosing.turnCentre).toEqual({ x: 40, y: 40 });
    expect(b.desk.pointing.task).toBeNull();
    expect(b.desk.choice.shapes).toEqual(['high']);
    // Outside the corner at 140, 140, turned by a quarter about 40, 40.
    b.drag({ x: 148, y: 148 }, { x: -68, y: 148 });
    expect(anchorsOf(b, 1)[0]!.x).toBeCloseTo(40, 9);
    expect(anchorsOf(b, 1)[0]!.y).toBeCloseTo(40, 9);
    expect(anchorsOf(b, 1)[2]!.x).toBeCloseTo(-60, 9);
  });
});

describe('a path of 3,000 anchors', () => {
  it('is hit where it is, at the nearest of its segments', () => {
    const many: Path = {
      id: 'many',
      closed: false,
      anchors: Array.from({ length: 3000 }, (_, i) => corner(i / 10, 100 + 30 * Math.sin(i / 40))),
    };
    const b = benchWith([shapeWith('m', [many])], 'refine', 16);
    for (const i of [0, 1400, 2998]) {
      const [p, q] = [many.anchors[i]!, many.anchors[i + 1]!];
      const at = { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 + 0.02 };
      const hit = hitTest({ ...fieldOf(b.desk, { type: 'mouse' }), scale: 400 }, at);
      expect(hit).toMatchObject({ kind: 'segment', ref: { segment: i } });
    }
  });
});
