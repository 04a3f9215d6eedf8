import { describe, expect, it } from 'vitest';
import { changeArt, type Recipe } from '../art/change';
import { addLayer, addNode, together } from '../art/edits';
import { emptyArt } from '../art/blank';
import { plainStroke } from '../art/paint';
import { outputBox } from '../art/output';
import { readArt } from '../art/check';
import type { Art } from '../art/schema';
import { frozen, shapeOf } from '../art/testing';
import { PX_PER } from '../art/units';
import { boxOfPoints } from '../geometry/bounds';
import { pathArea, pathLength } from '../path/path-measure';
import { anchor, circlePath, pathOf, squarePath } from '../testing';
import { shapesOf } from '../art/tree';
import { linedArt, PLAIN_LINES, type LineWork } from './line-work';

const layer = (id: string, name = id) => ({ id, type: 'layer', name, shown: true, locked: false, opacity: 1, ink: null, children: [] }) as const; // prettier-ignore
const drawing = (...recipes: Recipe[]): Art =>
  frozen(changeArt(emptyArt({ width: 200, height: 100, unit: 'mm' }, 'layer'), together(...recipes)).art);
const add = (...nodes: Parameters<typeof addNode>[1][]): Recipe =>
  together(...nodes.map((node) => addNode('layer', node)));
const square = (id: string, x: number, y: number, size: number) => shapeOf(id, { paths: [squarePath(x, y, size, `${id}-p`)] }); // prettier-ignore
const lines = (art: Art, work: Partial<LineWork> = {}, area: 'sheet' | 'drawing' = 'sheet') =>
  linedArt(art, { area }, { ...PLAIN_LINES, ...work });
const drawn = (art: Art) =>
  shapesOf(art).map(({ shape }) => [shape.name, Number(shape.paths.reduce((sum, p) => sum + pathLength(p), 0).toFixed(3))]); // prettier-ignore

describe('a drawing as lines', () => {
  const two = drawing(add(square('low', 20, 20, 20), square('high', 30, 30, 20)));

  it('has hairlines and no fills, each in its colour, and is a drawing of its own', () => {
    const { art, anchors } = lines(two);
    expect(readArt(JSON.parse(JSON.stringify(art)))).toEqual(art);
    expect(shapesOf(art).map(({ shape }) => [shape.fill, shape.stroke!.paint, shape.stroke!.width])).toEqual([
      [null, { hex: '#2f6b4f' }, PX_PER.mm / 10],
      [null, { hex: '#2f6b4f' }, PX_PER.mm / 10],
    ]); // prettier-ignore
    expect(anchors).toEqual({ before: 8, after: 8 });
    expect(art.sheet).toMatchObject({ width: 200, height: 100, unit: 'mm', ground: null });
    expect(lines(drawing()).art.layers).toEqual([]);
  });

  it('stands on a sheet that is just what is written, with marks outside of it', () => {
    expect(lines(two, {}, 'drawing').art.sheet).toMatchObject({ width: 30, height: 30 });
    const marked = lines(two, { marks: true }, 'drawing').art;
    const room = 24 * PX_PER.mm;
    expect(marked.sheet.width).toBeCloseTo(30 + room, 9);
    const [marks] = marked.layers;
    expect([marks!.name, marks!.children.length]).toEqual(['Marks', 1]);
    // Nothing of a mark lies on the drawing, and all of it on the sheet; none at the lower right.
    const ends = shapesOf(marked).find(({ shape }) => shape.id === 'marks')!.shape.paths.flatMap(({ anchors }) => anchors); // prettier-ignore
    const inner = { x0: room / 2, y0: room / 2, x1: 30 + room / 2, y1: 30 + room / 2 };
    for (const { x, y } of ends) {
      expect(x > inner.x0 && x < inner.x1 && y > inner.y0 && y < inner.y1).toBe(false);
      expect(Math.min(x, y)).toBeGreaterThan(0);
      expect(x > inner.x1 && y > inner.y1).toBe(false);
    }
  });

  it('is turned left for right about its middle', () => {
    const { art } = lines(two, { mirrored: true });
    const boxes = shapesOf(art).map(({ shape }) => boxOfPoints(shape.paths[0]!.anchors));
    expect(boxes).toEqual([{ x0: 160, y0: 20, x1: 180, y1: 40 }, { x0: 150, y0: 30, x1: 170, y1: 50 }]); // prettier-ignore
  });

  it('leaves out what is not seen where that is asked for', () => {
    expect(drawn(lines(two).art)).toEqual([['low', 80], ['high', 80]]); // prettier-ignore
    expect(drawn(lines(two, { seen: true }).art)).toEqual([['low', 60], ['high', 80]]); // prettier-ignore
    const hidden = drawing(add(square('in', 35, 35, 5), square('over', 30, 30, 20)));
    expect(drawn(lines(hidden, { seen: true }).art)).toEqual([['over', 80]]);
  });

  it('takes strokes by their middle, or as what they paint', () => {
    const line = shapeOf('line', { fill: null, stroke: { ...plainStroke({ hex: '#112233' }, 4), ends: 'butt' }, paths: [pathOf([anchor(10, 10), anchor(50, 10)], false, 'l')] }); // prettier-ignore
    const both = shapeOf('both', { stroke: { ...plainStroke({ hex: '#000000' }, 4), joins: 'miter' }, paths: [squarePath(60, 20, 20, 'b')] }); // prettier-ignore
    const art = drawing(add(line, both));
    expect(drawn(lines(art).art)).toEqual([['line', 40], ['both', 80]]); // prettier-ignore
    expect(drawn(lines(art, { weighted: true }).art)).toEqual([['line', 88], ['both', 96]]); // prettier-ignore
  });

  it('grows areas by the margin of the blade, holes smaller, and the drawing with them', () => {
    const ring = drawing(add(shapeOf('ring', { paths: [circlePath(50, 50, 30, 'o'), circlePath(50, 50, 10, 'h')] }))); // prettier-ignore
    const { art } = lines(ring, { bladeMargin: 2 }, 'drawing');
    const areas = shapesOf(art)[0]!.shape.paths.map((p) => Math.abs(pathArea(p)));
    expect(areas.map((a) => Number(Math.sqrt(a / Math.PI).toFixed(1)))).toEqual([32, 8]);
    expect(art.sheet.width).toBeCloseTo(64, 1);
  });

  it('goes without anchors that are not needed, and says how many', () => {
    const path = circlePath(50, 50, 30, 'c');
    const many = pathOf(
      Array.from({ length: 24 }, (_, k) => {
        const [c, s, h] = [Math.cos((k * Math.PI) / 12), Math.sin((k * Math.PI) / 12), (4 / 3) * Math.tan(Math.PI / 48) * 30]; // prettier-ignore
        return anchor(50 + 30 * c, 50 + 30 * s, [h * s, -h * c], [-h * s, h * c], 'smooth');
      }),
      true,
      'many',
    );
    const { art, anchors } = lines(drawing(add(shapeOf('m', { paths: [many] }))), { thinned: 0.1 });
    expect([anchors.before, anchors.after <= 8]).toEqual([24, true]);
    expect(Math.abs(pathArea(shapesOf(art)[0]!.shape.paths[0]!))).toBeCloseTo(Math.abs(pathArea(path)), -1.5);
  });

  it('puts layers to use: drawn, scored, then cut; some left out, the rest as they were', () => {
    const art = drawing(
      addLayer(layer('fold'), null),
      addLayer(layer('edge'), null),
      addLayer(layer('notes'), null),
      addLayer(layer('own', 'Own pen'), null),
      addNode('edge', square('e', 0, 0, 50)),
      addNode('fold', square('f', 10, 10, 10)),
      addNode('notes', square('n', 70, 10, 10)),
      addNode('own', square('o', 90, 10, 10)),
    );
    const used = lines(art, { uses: { edge: 'cut', fold: 'score', notes: 'none' } }).art;
    expect(used.layers.map(({ name, children }) => [name, children.map(({ id }) => id)])).toEqual([['Own pen', ['o']], ['Score', ['f']], ['Cut', ['e']]]); // prettier-ignore
    expect(outputBox(used)).toMatchObject({ x1: 200, y1: 100 });
  });
});
