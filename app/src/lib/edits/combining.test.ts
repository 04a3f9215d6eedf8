import { addNode, combineAll, groupNodes, setAxis, shapesOf, type Shape } from '@mirrot/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { chooseShapes } from '$lib/desk/choice';
import { combineChosen, outlinesOf, toCombine, waysFor, type CombineWay } from './combining';

let b: Bench;
const run = (way: CombineWay, ...ids: string[]): void => {
  b.desk.choose(chooseShapes(ids));
  const shapes = toCombine(b.desk).shapes;
  combineChosen(
    b.desk,
    shapes,
    way,
    combineAll(outlinesOf(shapes), (n) => `p${n}`),
  );
};
const names = (): string[] => shapesOf(b.desk.art).map(({ shape }) => shape.name);
const shape = (id: string): Shape => b.desk.shapeOf(id)!;

beforeEach(() => {
  b = benchWith(
    [
      shapeWith('plate', [square('pp', 100, 100, 300)], { fill: { hex: '#2f6b4f' } }),
      shapeWith('mark', [square('pm', 200, 200, 100)], { fill: { hex: '#d4561c' } }),
      shapeWith('beside', [square('pb', 350, 150, 200)], { fill: { hex: '#6a3fa0' } }),
    ],
    'colour',
  );
});

describe('combining chosen shapes', () => {
  it('gives the lowest the outlines, with its name and fill; one step, undone to the same', () => {
    const before = b.desk.art;
    run('bite', 'plate', 'mark', 'beside');
    expect(names()).toEqual(['plate']);
    expect(shape('plate')).toMatchObject({ fill: { hex: '#2f6b4f' } });
    expect(
      shape('plate')
        .paths.map((p) => p.anchors.length)
        .sort(),
    ).toEqual([4, 8]);
    expect(b.desk.choice.shapes).toEqual(['plate']);
    expect(b.desk.history.done).toHaveLength(1);
    b.desk.undo();
    expect(b.desk.art).toEqual(before);
    b.desk.redo();
    expect(names()).toEqual(['plate']);
  });

  it('split up, each piece is painted as the topmost it was a part of, beside the lowest', () => {
    run('split', 'plate', 'beside');
    expect(names()).toEqual(['plate', 'beside 2', 'beside 3', 'mark']);
    expect(shapesOf(b.desk.art).map((s) => s.shape.fill)).toEqual([{ hex: '#2f6b4f' }, { hex: '#6a3fa0' }, { hex: '#6a3fa0' }, { hex: '#d4561c' }]); // prettier-ignore
    expect(b.desk.choice.shapes).toHaveLength(3);
    b.desk.undo();
    expect(names()).toEqual(['plate', 'mark', 'beside']);
  });

  it('changes nothing, and says so, where nothing would be left or nothing overlaps', () => {
    const before = b.desk.art;
    run('overlap', 'mark', 'beside');
    expect(b.desk.notice?.text).toBe('Overlap only would leave nothing of them. Nothing was changed.');
    run('split', 'mark', 'beside');
    expect(b.desk.notice?.text).toMatch(/Nothing here overlaps.*Nothing was changed/);
    expect(b.desk.art).toBe(before);
    // One within another is a piece of its own, whatever lies apart.
    run('split', 'plate', 'mark');
    expect(names()).toEqual(['plate', 'mark 2', 'beside']);
  });

  it('is of two closed shapes or more, out of groups too, and whole ones about an axis', () => {
    b.desk.choose(chooseShapes(['plate']));
    expect(toCombine(b.desk).shapes).toEqual([]);
    b.desk.change('Line', addNode('layer', shapeWith('line', [{ ...square('pl', 0, 0, 9), closed: false }])));
    b.desk.choose(chooseShapes(['plate', 'line']));
    // An open line has no inside: it cuts.
    expect(toCombine(b.desk)).toMatchObject({ shapes: [{ id: 'plate' }], lines: [{ id: 'line' }] });
    expect(waysFor(toCombine(b.desk))).toEqual(['split']);
    b.desk.change('Group', groupNodes(['mark', 'beside'], { id: 'g', type: 'group', name: 'g', shown: true, locked: false, opacity: 1 })); // prettier-ignore
    b.desk.change('Axis', setAxis(['mark'], { kind: 'mirror', x: 350, y: 0, angle: Math.PI / 2 }));
    run('add', 'plate', 'mark');
    expect(shape('plate').axis).toBeUndefined();
    // The plate, and the other half of the mark right of it: 400 to 500.
    const xs = shape('plate').paths.flatMap((p) => p.anchors.map((a) => a.x));
    expect(Math.max(...xs)).toBe(500);
  });
});
