import { describe, expect, it } from 'vitest';
import { changeArt } from '../art/change';
import { addNode, together } from '../art/edits';
import { emptyArt } from '../art/blank';
import { frozen, shapeOf } from '../art/testing';
import { PX_PER } from '../art/units';
import { readHpgl } from '../formats/hpgl/read';
import { anchor, circlePath, pathOf, squarePath } from '../testing';
import { plainStroke } from '../art/paint';
import { byDepth } from './inner-first';
import { joinStrokes } from './join';
import { PLAIN_LINES } from './line-work';
import { plotFile } from './plot-file';

const MM = PX_PER.mm;
const square = (id: string, x: number, y: number, size: number) => shapeOf(id, { paths: [squarePath(x * MM, y * MM, size * MM, id)] }); // prettier-ignore
const art = frozen(
  changeArt(
    emptyArt({ width: 100 * MM, height: 60 * MM, unit: 'mm' }, 'layer'),
    together(
      addNode('layer', shapeOf('ring', { paths: [circlePath(30 * MM, 30 * MM, 20 * MM, 'o'), circlePath(30 * MM, 30 * MM, 8 * MM, 'h')] })), // prettier-ignore
      addNode('layer', square('far', 80, 40, 10)),
      addNode('layer', square('near', 2, 50, 6)),
    ),
  ).art,
);

describe('a file for a plotter', () => {
  it('holds the lines of the drawing, in its real size, as the way says that goes with it', () => {
    const file = plotFile(art);
    const { strokes } = readHpgl(file.text);
    expect(strokes).toHaveLength(4);
    expect(file.kept).toEqual(file.way);
    expect(file.written).toEqual({ x0: 0, y0: 0, x1: 100 * MM, y1: 60 * MM });
    expect(file.way.lifts).toBe(4);
    expect(file.way.drawn).toBeCloseTo(2 * Math.PI * 28 + 4 * 16, 0);
    expect(file.places).toBe(strokes.reduce((sum, { points }) => sum + points.length + 1, 0));
    expect(plotFile(art, { order: 'short' }).way.travel).toBeLessThan(file.kept.travel);
    const twice = plotFile(art, { range: { scale: 2 } });
    expect(twice.way.drawn / file.way.drawn).toBeCloseTo(2, 3);
  });

  it('cuts what lies inside before what it lies in, in either order', () => {
    for (const order of ['kept', 'short'] as const) {
      const { strokes } = readHpgl(plotFile(art, { order, innerFirst: true }).text);
      const size = (i: number): number => Math.max(...strokes[i]!.points.map(({ x }) => x)) - Math.min(...strokes[i]!.points.map(({ x }) => x)); // prettier-ignore
      expect(size(0)).toBeCloseTo(16, 1);
      expect(strokes).toHaveLength(4);
    }
    // Three deep; what lies on another pen does not count.
    const nested = [40, 30, 20, 10].map((half, n) => ({ pen: n === 3 ? 2 : 1, closed: true, points: [{ x: -half, y: -half }, { x: half, y: -half }, { x: half, y: half }, { x: -half, y: half }] })); // prettier-ignore
    expect(byDepth(nested).map((group) => group.map(({ points }) => points[1]!.x))).toEqual([
      [20],
      [30],
      [40, 10],
    ]);
    expect(byDepth([])).toEqual([]);
  });

  it('needs fewer lifts in a short way where strokes meet, or nearly so for the width of the line', () => {
    const line = (id: string, ...xs: readonly number[]) => shapeOf(id, { fill: null, stroke: plainStroke({ hex: '#000000' }, 1), paths: [pathOf(xs.map((x) => anchor(x * MM, 20 * MM)), false, id)] }); // prettier-ignore
    const row = changeArt(
      emptyArt({ width: 100 * MM, height: 60 * MM, unit: 'mm' }, 'layer'),
      together(...[line('a', 10, 20), line('c', 30.1, 40), line('b', 20, 30), line('d', 50, 60)].map((one) => addNode('layer', one))),
    ).art; // prettier-ignore
    const lifts = (join: number) => { const { kept, way } = plotFile(row, { order: 'short', join }); return [kept.lifts, way.lifts]; }; // prettier-ignore
    expect(lifts(0)).toEqual([4, 3]);
    expect(lifts(0.15)).toEqual([4, 2]);
    expect(readHpgl(plotFile(row, { order: 'short', join: 0.15 }).text).strokes).toHaveLength(2);
    // Another pen is another stroke, and a ring is drawn by itself.
    const strokes = [{ pen: 1, closed: false, points: [{ x: 0, y: 0 }, { x: 1, y: 0 }] }, { pen: 2, closed: false, points: [{ x: 1, y: 0 }, { x: 2, y: 0 }] }, { pen: 2, closed: true, points: [{ x: 2, y: 0 }, { x: 3, y: 0 }, { x: 3, y: 1 }] }]; // prettier-ignore
    expect(joinStrokes(strokes, 1)).toEqual(strokes);
  });

  it('is led ahead of a knife, and mirrored, where that is asked for', () => {
    const led = readHpgl(plotFile(art, { lead: 0.5 }).text).strokes;
    // Squares get an arc at each corner, and none comes back to just where it began.
    expect(led.every(({ closed }) => !closed)).toBe(true);
    const mirrored = readHpgl(plotFile(art, { lines: { ...PLAIN_LINES, mirrored: true } }).text).strokes;
    expect(Math.min(...mirrored[2]!.points.map(({ x }) => x))).toBeCloseTo(10, 1);
  });

  it('is none where there is no line', () => {
    expect(() => plotFile(emptyArt({ width: 10, height: 10, unit: 'px' }, 'layer'))).toThrow(/no line/);
    expect(() => plotFile(art, { lines: { ...PLAIN_LINES, uses: { layer: 'none' } } })).toThrow(/no line/);
  });
});
