import { addNode, combineAll, enclosedAreas, findNode, linePieces, pathArea, setPath, shapesOf, strokeToShape, wholePaths, widen, type Path, type Shape } from '@mirrot/core'; // prettier-ignore
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { chooseShapes } from '$lib/desk/choice';
import { linesOf, shapesEnclosing } from '$lib/desk/linework.svelte';
import { asOneShape, freePaths, strokesToShapes, strokeWishes, widening, widenWishes, type Outlined, type Widening } from '$lib/edits/outlining'; // prettier-ignore
import { combineChosen, outlinesOf } from '$lib/edits/combining';
import { freeChosenHole } from '$lib/edits/holes';
import { letAreasBe } from '$lib/edits/pouring';
import { anchorsAtCrossings, shapesToWeed } from '$lib/edits/weeding';
import type { OutlineWish } from '$lib/workers/paths';
import { fetchFollowing } from '$lib/desk/following';
import { fetchLineGrips } from './line-grips';
import { benchWith, shapeWith, square, type Bench } from './testing';

const line = (id: string, ...points: readonly (readonly [number, number])[]): Path => ({
  id,
  closed: false,
  anchors: points.map(([x, y]) => ({ x, y, kind: 'corner', in: null, out: null })),
});
const idOf = (n: number): string => `p${n}`;
let b: Bench;
beforeAll(async () => {
  await Promise.all([fetchLineGrips(), fetchFollowing()]);
});
/** A grid of two lines across and three down, which enclose two areas. */
beforeEach(() => {
  b = benchWith(
    [
      shapeWith('top', [line('t', [80, 100], [420, 100])]),
      shapeWith('foot', [line('f', [80, 300], [420, 300])]),
      shapeWith('left', [line('l', [100, 80], [100, 320])]),
      shapeWith('middle', [line('m', [250, 80], [250, 320])]),
      shapeWith('right', [line('r', [400, 80], [400, 320])]),
    ],
    'refine',
  );
});
const shape = (id: string): Shape => b.desk.shapeOf(id)!;
const order = (): string[] => shapesOf(b.desk.art).map((p) => p.shape.name);

describe('Pour', () => {
  beforeEach(() => {
    b.desk.pointing.task = { kind: 'pour' };
    b.desk.colouring.nextFill = { hex: '#2f6b4f' };
    look();
  });
  /** What the worker does. */
  function look(): void {
    const lines = linesOf(shapesEnclosing(b.desk.drawing.kept));
    b.desk.linework.areas = { lines, gap: 2, enclosed: enclosedAreas(lines.paths, idOf, 2) };
  }

  it('fills the area under a click as a shape below its lines, exactly', () => {
    b.click({ x: 170, y: 200 });
    expect(order()).toEqual(['Area 1', 'top', 'foot', 'left', 'middle', 'right']);
    const area = shapesOf(b.desk.art)[0]!.shape;
    expect(area).toMatchObject({ fill: { hex: '#2f6b4f' }, stroke: null, poured: { gap: 2 } });
    expect(area.poured!.between).toEqual(['top', 'foot', 'left', 'middle']);
    expect(pathArea(area.paths[0]!)).toBeCloseTo(150 * 200, 6);
    b.desk.undo();
    expect(order()).toEqual(['top', 'foot', 'left', 'middle', 'right']);
  });

  it('fills all that a drag goes through, as one step, however fast it went', () => {
    b.drag({ x: 170, y: 200 }, { x: 330, y: 200 });
    expect(order().slice(0, 2).sort()).toEqual(['Area 1', 'Area 2']);
    expect(b.desk.history.done).toHaveLength(1);
  });

  it('gives an area that is filled the colour, and does not fill it twice', () => {
    b.click({ x: 170, y: 200 });
    b.desk.colouring.nextFill = { hex: '#d4561c' };
    b.click({ x: 170, y: 200 });
    expect(order()).toHaveLength(6);
    expect(shapesOf(b.desk.art)[0]!.shape.fill).toEqual({ hex: '#d4561c' });
  });

  it('keeps up with its lines; refined by hand, or let be, it no longer does', () => {
    b.click({ x: 170, y: 200 });
    const { id } = shapesOf(b.desk.art)[0]!.shape;
    b.desk.change('Move', setPath('top', line('t', [80, 60], [420, 60])));
    // The lines across it no longer reach it: nothing is enclosed, and it stays.
    expect(pathArea(shape(id).paths[0]!)).toBeCloseTo(30_000, 6);
    b.desk.change('Move', setPath('top', line('t', [80, 90], [420, 90])));
    expect(pathArea(shape(id).paths[0]!)).toBeCloseTo(150 * 210, 6);
    b.desk.choose(chooseShapes([id]));
    letAreasBe(b.desk);
    b.desk.change('Move', setPath('top', line('t', [80, 100], [420, 100])));
    expect(pathArea(shape(id).paths[0]!)).toBeCloseTo(150 * 210, 6);
    expect(shape(id).poured).toBeUndefined();
  });

  it('that is split, or freed of a hole, leaves pieces that follow no line', () => {
    b.desk.change('Island', addNode('layer', shapeWith('island', [square('i', 150, 150, 30)])));
    look();
    b.click({ x: 200, y: 250 });
    const area = shapesOf(b.desk.art)[0]!.shape;
    expect(area.paths).toHaveLength(2);
    b.desk.choose(chooseShapes([area.id]));
    freeChosenHole(b.desk);
    expect(shapesOf(b.desk.art).filter((p) => p.shape.poured)).toHaveLength(0);
    b.desk.undo();
    b.desk.change('Over', addNode('layer', shapeWith('over', [square('o', 80, 220, 60)])));
    const shapes = [shape(area.id), shape('over')];
    const { split } = combineAll(outlinesOf(shapes), idOf);
    combineChosen(b.desk, shapes, 'split', { add: [], bite: [], overlap: [], either: [], split });
    expect(b.desk.choice.shapes).toHaveLength(3);
    expect(shapesOf(b.desk.art).some((p) => p.shape.poured)).toBe(false);
  });

  it('says so outside all areas, and while they are not known; a drag taken back leaves nothing', () => {
    b.click({ x: 500, y: 200 });
    expect(b.desk.notice?.text).toMatch(/No lines enclose this place.*Nothing was changed/);
    b.press({ x: 170, y: 200 });
    b.move({ x: 330, y: 200 });
    b.machine.cancel();
    expect(order()).toHaveLength(5);
    b.desk.change('Move', setPath('top', line('t', [80, 90], [420, 90])));
    b.click({ x: 170, y: 200 });
    expect(b.desk.notice?.text).toMatch(/still being looked for.*Nothing was changed/);
    expect(order()).toHaveLength(5);
  });
});

describe('Weed', () => {
  beforeEach(() => {
    b.desk.pointing.task = { kind: 'weed' };
    const lines = linesOf(shapesToWeed(b.desk));
    b.desk.linework.pieces = { lines, found: linePieces(lines.paths) };
  });

  it('takes the pieces that a swipe goes across, shown before they go', () => {
    b.press({ x: 170, y: 80 });
    b.move({ x: 170, y: 120 });
    expect(b.desk.linework.gone.size).toBe(1);
    expect(shape('top').paths).toHaveLength(1);
    b.lift({ x: 170, y: 120 });
    expect(shape('top').paths.map((p) => p.anchors.map(({ x }) => Math.round(x)))).toEqual([[80, 100], [250, 420]]); // prettier-ignore
    expect(b.desk.linework.gone.size).toBe(0);
    expect(b.desk.history.done).toHaveLength(1);
  });

  it('joins ends that meet then, and a line that is wholly gone goes', () => {
    // All that sticks out at the top left corner.
    b.press({ x: 90, y: 110 });
    b.move({ x: 90, y: 90 });
    b.lift({ x: 110, y: 90 });
    expect(shape('left')).toBeNull();
    expect(shape('top').paths[0]!.anchors.map(({ x, y }) => [Math.round(x), Math.round(y)])).toEqual([[420, 100], [100, 100], [100, 320]]); // prettier-ignore
  });

  it('takes nothing when it goes across nothing, is taken back, or nothing is known', () => {
    const before = b.desk.art;
    b.drag({ x: 500, y: 200 }, { x: 520, y: 220 });
    expect(b.desk.notice?.text).toMatch(/no line there.*Nothing was changed/);
    b.press({ x: 170, y: 80 });
    b.move({ x: 170, y: 120 });
    b.machine.cancel();
    expect(b.desk.linework.gone.size).toBe(0);
    b.desk.linework.pieces = null;
    b.drag({ x: 170, y: 80 }, { x: 170, y: 120 });
    expect(b.desk.notice?.text).toMatch(/still being looked for/);
    expect(b.desk.art).toBe(before);
  });
});

describe('anchors at crossings', () => {
  it('stand on what is chosen, where any line in sight crosses it', () => {
    b.desk.choose(chooseShapes(['top']));
    anchorsAtCrossings(b.desk);
    expect(shape('top').paths[0]!.anchors.map(({ x }) => Math.round(x))).toEqual([80, 100, 250, 400, 420]);
    expect(shape('left').paths[0]!.anchors).toHaveLength(2);
    anchorsAtCrossings(b.desk);
    expect(b.desk.notice?.text).toMatch(/Nothing was changed/);
  });
});

/** What the worker does. */
const outlined = (wishes: readonly OutlineWish[]): Outlined[] =>
  wishes.map((wish) => wish.kind === 'stroke' ? strokeToShape(wish.paths, wish.stroke, idOf) : widen(wish.paths, wish.by, wish.joins, idOf)); // prettier-ignore

describe('strokes as shapes', () => {
  const stroke = {
    paint: { hex: '#2a2722' },
    width: 10,
    ends: 'butt',
    joins: 'miter',
    miterLimit: 4,
    dash: [],
  } as const;

  it('are filled as they were painted; a shape with a fill keeps it, its line beside it', () => {
    b = benchWith([
      shapeWith('hose', [line('h', [100, 100], [200, 100])], { stroke }),
      shapeWith('tile', [square('s', 300, 100, 100)], { fill: { hex: '#d4561c' }, stroke }),
    ], 'colour'); // prettier-ignore
    const shapes = [shape('hose'), shape('tile')];
    const change = strokesToShapes(b.desk, shapes, outlined(strokeWishes(shapes)))!;
    b.desk.change('Stroke to shape', change.recipe);
    expect(order()).toEqual(['hose', 'tile', 'Line of tile']);
    expect(shape('hose')).toMatchObject({ fill: { hex: '#2a2722' }, stroke: null });
    expect(pathArea(shape('hose').paths[0]!)).toBeCloseTo(1000, 6);
    expect(shape('tile')).toMatchObject({ fill: { hex: '#d4561c' }, stroke: null });
    expect(shape(change.ids[1]!).paths).toHaveLength(2);
    b.desk.undo();
    expect(shape('hose').stroke).toEqual(stroke);
  });
});

describe('widened shapes', () => {
  const how: Widening = { by: 10, joins: 'miter', miterLimit: 4, place: 'behind', rings: 3 };
  const run = (values: Partial<Widening>): ReturnType<typeof widening> => {
    const all = { ...how, ...values };
    const shapes = [shape('tile')];
    const change = widening(b.desk, shapes, all, outlined(widenWishes(shapes, all)));
    if (change) b.desk.change('Widen', change.recipe);
    return change;
  };
  beforeEach(() => {
    b = benchWith([shapeWith('tile', [square('s', 300, 100, 100)], { fill: { hex: '#d4561c' } })], 'colour');
  });

  it('stand behind as rings, the widest lowest', () => {
    run({});
    const sizes = shapesOf(b.desk.art).map((p) => Math.round(Math.sqrt(pathArea(p.shape.paths[0]!))));
    expect(sizes).toEqual([160, 140, 120, 100]);
    expect(shapesOf(b.desk.art)[0]!.shape.stroke).toBeNull();
  });

  it('or become wider themselves; shrunk away, nothing is changed', () => {
    run({ place: 'itself' });
    expect(pathArea(shape('tile').paths[0]!)).toBeCloseTo(120 * 120, 6);
    expect(run({ place: 'itself', by: -80 })).toBeNull();
    expect(order()).toEqual(['tile']);
  });
});

describe('several paths as one shape', () => {
  it('are one, and apart again', () => {
    b.desk.choose(chooseShapes(['top', 'foot', 'left']));
    asOneShape(b.desk);
    expect(order()).toEqual(['top', 'middle', 'right']);
    expect(shape('top').paths.map((p) => p.closed)).toEqual([false, false, false]);
    freePaths(b.desk);
    expect(order()).toEqual(['top', 'top 2', 'top 3', 'middle', 'right']);
    expect(b.desk.choice.shapes).toHaveLength(3);
    expect(b.desk.choice.shapes.every((id) => findNode(b.desk.art, id))).toBe(true);
    expect(wholePaths(shape('top'))).toHaveLength(1);
  });
});
