import { describe, expect, it } from 'vitest';
import { corner, findShape, plainStroke, shapeBounds, type Path } from '@mirrot/core';
import { chooseAnchors, chooseShapes, type AnchorRef } from '$lib/desk/choice';
import {
  addAt,
  addEvenly,
  arrange,
  canCut,
  canJoin,
  canMerge,
  cutHere,
  joinChosen,
  mergeChosen,
  reverseChosen,
  startHere,
} from './anchors';
import { chooseBetween, chooseKin, invertChoice } from './choosing-kin';
import { shapesAt } from '$lib/bed/listing';
import { nudge } from './nudging';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';

const open = (id: string, points: readonly (readonly [number, number])[]): Path => ({
  id,
  closed: false,
  anchors: points.map(([x, y]) => corner(x, y)),
});
const at = (index: number, path = 'p', shape = 's'): AnchorRef => ({ shape, path, index });
const begin = (...paths: Path[]): Bench =>
  benchWith(
    paths.map((p, i) => shapeWith(i === 0 ? 's' : `s${i + 1}`, [p])),
    'refine',
  );
const spots = (b: Bench, shape = 0, path = 0): number[][] =>
  b.shapes[shape]!.paths[path]!.anchors.map((a) => [a.x, a.y]);

describe('cutting, starting, reversing', () => {
  it('cuts a closed path open and an open one in two, one undo each', () => {
    const b = begin(square('p', 0, 0, 10));
    b.desk.choose(chooseAnchors([at(2)]));
    cutHere(b.desk);
    expect(b.shapes[0]!.paths[0]!.closed).toBe(false);
    expect(spots(b)).toEqual([
      [10, 10],
      [0, 10],
      [0, 0],
      [10, 0],
      [10, 10],
    ]);
    b.desk.choose(chooseAnchors([at(1)]));
    cutHere(b.desk);
    expect(b.shapes[0]!.paths).toHaveLength(2);
    b.desk.choose(chooseAnchors([at(0)]));
    expect(canCut(b.desk)).toBe(false);
    b.desk.undo();
    b.desk.undo();
    expect(b.shapes[0]!.paths[0]!.closed).toBe(true);
  });
  it('starts a closed path at the chosen anchor, and turns paths round', () => {
    const b = begin(square('p', 0, 0, 10));
    b.desk.choose(chooseAnchors([at(3)]));
    startHere(b.desk);
    expect(spots(b)[0]).toEqual([0, 10]);
    expect(b.desk.choice.anchors[0]!.index).toBe(0);
    reverseChosen(b.desk);
    expect(spots(b)).toEqual([
      [10, 10],
      [10, 0],
      [0, 0],
      [0, 10],
    ]);
  });
});

describe('merging and joining', () => {
  it('merges two neighbours halfway, round the end of a closed path too', () => {
    const b = begin(square('p', 0, 0, 10));
    b.desk.choose(chooseAnchors([at(0), at(3)]));
    expect(canMerge(b.desk)).toBe(true);
    mergeChosen(b.desk);
    expect(spots(b)).toEqual([
      [10, 0],
      [10, 10],
      [0, 5],
    ]);
    expect(b.desk.choice.anchors[0]!.index).toBe(2);
    b.desk.choose(chooseAnchors([at(0)]));
    expect(canMerge(b.desk)).toBe(false);
  });
  it('joins ends of two shapes straight or in the middle; the second shape goes', () => {
    for (const how of ['straight', 'middle'] as const) {
      const b = begin(
        open('p', [
          [0, 0],
          [10, 0],
        ]),
        open('q', [
          [20, 0],
          [30, 0],
        ]),
      );
      b.desk.choose(chooseAnchors([at(1), at(0, 'q', 's2')]));
      expect(canJoin(b.desk)).toBe(true);
      joinChosen(b.desk, how);
      expect(b.shapes).toHaveLength(1);
      expect(spots(b)).toEqual(
        how === 'straight'
          ? [
              [0, 0],
              [10, 0],
              [20, 0],
              [30, 0],
            ]
          : [
              [0, 0],
              [15, 0],
              [30, 0],
            ],
      );
    }
  });
  it('joins the ends of one path: closed, in the middle with one anchor less; two anchors are refused', () => {
    const b = begin(
      open('p', [
        [0, 0],
        [10, 0],
        [4, 8],
      ]),
    );
    b.desk.choose(chooseAnchors([at(0), at(2)]));
    joinChosen(b.desk, 'middle');
    expect(b.shapes[0]!.paths[0]!.closed).toBe(true);
    expect(spots(b)).toEqual([
      [2, 4],
      [10, 0],
    ]);
    b.desk.undo();
    joinChosen(b.desk, 'straight');
    expect(spots(b)).toHaveLength(3);
    const c = begin(
      open('p', [
        [0, 0],
        [10, 0],
      ]),
    );
    c.desk.choose(chooseAnchors([at(0), at(1)]));
    joinChosen(c.desk, 'middle');
    expect(c.desk.notice?.tone).toBe('bad');
    expect(c.shapes[0]!.paths[0]!.closed).toBe(false);
  });
});

describe('adding and arranging', () => {
  it('adds at extremes and evenly, and says when there is nothing to add', () => {
    const bow: Path = {
      id: 'p',
      closed: false,
      anchors: [
        { ...corner(0, 0), out: { x: 10, y: -40 } },
        { ...corner(60, 0), in: { x: -10, y: -40 } },
      ],
    };
    const b = begin(bow);
    b.desk.choose(chooseShapes(['s'], 'path'));
    addAt(b.desk, 'extremes');
    expect(spots(b)).toHaveLength(3);
    expect(shapeBounds(b.shapes[0]!).y0).toBeCloseTo(spots(b)[1]![1]!, 9);
    addAt(b.desk, 'extremes');
    expect(b.desk.notice?.text).toContain('already');
    b.desk.choose(chooseAnchors([at(0), at(1)]));
    addEvenly(b.desk, 3);
    expect(spots(b)).toHaveLength(6);
  });
  it('brings anchors onto one line at their mean, and evens out their steps', () => {
    const b = begin(
      open('p', [
        [0, 0],
        [3, 4],
        [20, 8],
        [30, 0],
      ]),
    );
    b.desk.choose(chooseAnchors([at(0), at(1), at(2)]));
    arrange(b.desk, 'level');
    expect(
      spots(b)
        .slice(0, 3)
        .map(([, y]) => y),
    ).toEqual([4, 4, 4]);
    arrange(b.desk, 'even-across');
    expect(spots(b).map(([x]) => x)).toEqual([0, 10, 20, 30]);
    b.desk.choose(chooseAnchors([at(0)]));
    const { art } = b.desk;
    arrange(b.desk, 'upright');
    expect(b.desk.art).toBe(art);
  });
});

describe('choosing', () => {
  it('all between two anchors the shorter way, the rest, all of a fill, a line, a layer', () => {
    const b = benchWith(
      [
        shapeWith('s', [square('p', 0, 0, 10)], { fill: { hex: '#aa0000' } }),
        shapeWith('t', [square('q', 20, 0, 10)], { fill: { hex: '#aa0000' } }),
        shapeWith('u', [square('r', 40, 0, 10)], { stroke: plainStroke({ hex: '#000000' }, 2) }),
        shapeWith('v', [square('w', 60, 0, 10)], { locked: true, fill: { hex: '#aa0000' } }),
      ],
      'refine',
    );
    b.desk.choose(chooseAnchors([at(0), at(3)]));
    chooseBetween(b.desk);
    expect(b.desk.choice.anchors.map((a) => a.index).sort()).toEqual([0, 3]);
    b.desk.choose(chooseAnchors([at(0), at(2)]));
    chooseBetween(b.desk);
    expect(b.desk.choice.anchors.map((a) => a.index)).toEqual([0, 1, 2]);
    invertChoice(b.desk);
    expect(b.desk.choice.anchors.map((a) => a.index)).toEqual([3]);
    b.desk.choose(chooseShapes(['s']));
    chooseKin(b.desk, 'fill');
    // Locked things are never chosen.
    expect(b.desk.choice.shapes).toEqual(['s', 't']);
    invertChoice(b.desk);
    expect(b.desk.choice.shapes).toEqual(['u']);
    chooseKin(b.desk, 'stroke');
    expect(b.desk.choice.shapes).toEqual(['u']);
    chooseKin(b.desk, 'layer');
    expect(b.desk.choice.shapes).toEqual(['s', 't', 'u']);
    invertChoice(b.desk);
    expect(b.desk.choice.shapes).toEqual([]);
  });
});

describe('steps', () => {
  it('nudges in a row are one step; after a pause, or of something else, they are another', () => {
    const b = begin(square('p', 0, 0, 10));
    b.desk.choose(chooseAnchors([at(0)]));
    for (let i = 0; i < 5; i++) nudge(b.desk, { x: 1, y: 0 });
    expect(b.desk.history.done).toHaveLength(1);
    b.wait(2000);
    nudge(b.desk, { x: 1, y: 0 });
    b.desk.choose(chooseAnchors([at(1)]));
    nudge(b.desk, { x: 1, y: 0 });
    expect(b.desk.history.done).toHaveLength(3);
    b.desk.undo();
    b.desk.undo();
    expect(spots(b)[0]).toEqual([5, 0]);
    b.desk.undo();
    expect(spots(b)[0]).toEqual([0, 0]);
    b.desk.redo();
    expect(spots(b)[0]).toEqual([5, 0]);
    // A nudge after an undo begins anew.
    nudge(b.desk, { x: 1, y: 0 });
    expect(b.desk.history.done).toHaveLength(2);
  });
  it('goes back and forth along the list', () => {
    const b = begin(square('p', 0, 0, 10));
    for (const x of [1, 2, 3])
      b.desk.change(`Step ${x}`, (d) => void (d.chips = [{ id: `c${x}`, name: '', hex: '#000000' }]));
    b.desk.goTo(1);
    expect(b.desk.art.chips[0]!.id).toBe('c1');
    b.desk.goTo(3);
    expect(b.desk.art.chips[0]!.id).toBe('c3');
    b.desk.goTo(0);
    expect(b.desk.art.chips).toEqual([]);
    b.desk.goTo(9);
    expect(b.desk.history.done).toHaveLength(3);
    expect(findShape(b.desk.art, 's')).not.toBeNull();
  });
});

it('everything at a spot is listed, topmost first, locked and hidden things left out', () => {
  const b = benchWith([
    shapeWith('low', [square('a', 0, 0, 100)]),
    shapeWith('locked', [square('b', 0, 0, 100)], { locked: true }),
    shapeWith('line', [open('c', [[0, 50], [100, 50]])]),
    shapeWith('top', [square('d', 40, 40, 20)]),
    shapeWith('far', [square('e', 200, 200, 20)]),
  ], 'refine'); // prettier-ignore
  const at = (x: number, y: number): string[] =>
    shapesAt(b.desk, {
      sheet: { x, y },
      screen: { x, y },
      shift: false,
      alt: false,
      type: 'mouse',
      time: 0,
      again: false,
    }).map((s) => s.id);
  expect(at(50, 52)).toEqual(['top', 'line', 'low']);
  expect(at(20, 20)).toEqual(['low']);
  expect(at(150, 150)).toEqual([]);
});
