import { describe, expect, it } from 'vitest';
import { changeArt } from '../../art/change';
import { addLayer, addNode, setNode, together } from '../../art/edits';
import { plainStroke } from '../../art/paint';
import { emptyArt } from '../../art/blank';
import type { Art, Shape } from '../../art/schema';
import { shapeOf } from '../../art/testing';
import { shapesOf } from '../../art/tree';
import { PX_PER } from '../../art/units';
import { cubicPoint } from '../../geometry/cubic';
import { splineCubics } from '../../geometry/spline';
import type { Point } from '../../geometry/vector';
import { plainForm } from '../../path/form';
import { formPath } from '../../path/form-path';
import { pathCubics, type Path } from '../../path/path';
import { nearestOnPath, pathLength } from '../../path/path-measure';
import { transformPath } from '../../path/path-map';
import { blob } from '../../path/testing';
import { anchor, pathOf, seeded, squarePath } from '../../testing';
import { readDxf } from './read';
import { writeDxf } from './write';

const MM = PX_PER.mm;
const drawn = (...shapes: Shape[]): Art =>
  changeArt(emptyArt({ width: 100 * MM, height: 80 * MM, unit: 'mm' }, 'layer'), together(...shapes.map((s) => addNode('layer', s)))).art; // prettier-ignore
const line = (path: Path): Shape => shapeOf(path.id, { fill: null, stroke: plainStroke({ hex: '#2340c7' }, 1), paths: [path] }); // prettier-ignore
const pathsOf = (art: Art): readonly Path[] => shapesOf(art).flatMap(({ shape }) => shape.paths);

/** A DXF of entities in millimetres, each as pairs of code and value. */
const dxf = (...entities: readonly (readonly (readonly [number, string | number])[])[]): string =>
  ['0', 'SECTION', '2', 'ENTITIES', ...entities.flatMap((pairs) => pairs.flatMap(([code, value]) => [String(code), String(value)])), '0', 'ENDSEC', '0', 'EOF', ''].join('\n'); // prettier-ignore
const LAYER = [8, '0'] as const;
const dxfLine = (x0: number, y0: number, x1: number, y1: number) => [[0, 'LINE'], LAYER, [10, x0], [20, y0], [11, x1], [21, y1]] as const; // prettier-ignore

describe('reading DXF', () => {
  it('gives back what was written: splines, polylines and circles to 1e-6 mm, on their layers, on a sheet as large', () => {
    const random = seeded(3);
    const curves = Array.from({ length: 12 }, (_, k) =>
      line({ ...transformPath(blob(random, `b${k}`, 160), [1, 0, 0, 1, 60, 60]), closed: k % 2 === 0 }),
    );
    const circle = line(formPath(plainForm('ellipse', { x: 90, y: 70, width: 40, height: 40 }), 'ring'));
    const bent = line(pathOf([anchor(10, 10), anchor(40, 12), anchor(33, 90)], false, 'bent'));
    let art = drawn(...curves, circle, bent);
    art = changeArt(art, together(addLayer({ id: 'two', type: 'layer', name: 'Score', shown: true, locked: false, opacity: 1, ink: null, children: [] }, null), addNode('two', line(squarePath(5, 5, 30, 'sq'))))).art; // prettier-ignore
    const { art: read, left } = readDxf(writeDxf(art));
    expect(left).toEqual([]);
    expect(read.layers.map(({ name }) => name)).toEqual(['Drawing', 'Score']);
    expect([read.sheet.width / MM, read.sheet.height / MM].map((v) => Number(v.toFixed(9)))).toEqual([
      100, 80,
    ]);
    expect(shapesOf(read)[0]!.shape.stroke!.paint).toEqual({ hex: '#2340c7' });
    const [before, after] = [pathsOf(art), pathsOf(read)];
    expect(after).toHaveLength(before.length);
    expect(after.map(({ closed }) => closed).sort()).toEqual(before.map(({ closed }) => closed).sort());
    // Whatever their order: each lies on one that was drawn, and is as long.
    for (const path of before) {
      const same = after.find((other) => Math.abs(pathLength(other) - pathLength(path)) < 1e-5 && pathCubics(path).every((c) => (nearestOnPath(other, cubicPoint(c, 0.37))?.distance ?? 9) < 1e-6 * MM)); // prettier-ignore
      expect(same, path.id).toBeDefined();
    }
    // And once more, now nothing changes at all.
    expect(pathsOf(readDxf(writeDxf(read)).art).map(({ anchors }) => anchors.length).sort()).toEqual(after.map(({ anchors }) => anchors.length).sort()); // prettier-ignore
  });

  // Source: DXF Reference (from memory): a bulge is the tangent of a quarter of the arc's angle.
  it('knows arcs, bulges, ellipses and units', () => {
    const arc = readDxf(dxf([[0, 'ARC'], LAYER, [10, 0], [20, 0], [40, 10], [50, 0], [51, 90]])).art; // prettier-ignore
    expect(pathLength(pathsOf(arc)[0]!) / MM).toBeCloseTo(5 * Math.PI, 2);
    const half = readDxf(dxf([[0, 'LWPOLYLINE'], LAYER, [90, 2], [70, 0], [10, 0], [20, 0], [42, 1], [10, 10], [20, 0]])).art; // prettier-ignore
    expect(pathLength(pathsOf(half)[0]!) / MM).toBeCloseTo(5 * Math.PI, 2);
    // Anticlockwise from (0, 0) to (10, 0): the half circle hangs below the chord.
    expect(half.sheet.height / MM).toBeCloseTo(5, 2);
    const slot = readDxf(dxf([[0, 'LWPOLYLINE'], LAYER, [90, 4], [70, 1], [10, 0], [20, 0], [10, 20], [20, 0], [42, 1], [10, 20], [20, 10], [10, 0], [20, 10], [42, 1]])).art; // prettier-ignore
    expect(pathsOf(slot)[0]).toMatchObject({ closed: true });
    expect(pathLength(pathsOf(slot)[0]!) / MM).toBeCloseTo(40 + 10 * Math.PI, 2);
    const ellipse = readDxf(dxf([[0, 'ELLIPSE'], LAYER, [10, 0], [20, 0], [11, 0], [21, 20], [40, 0.5], [41, 0], [42, 2 * Math.PI]])).art; // prettier-ignore
    expect([ellipse.sheet.width / MM, ellipse.sheet.height / MM].map((v) => Number(v.toFixed(2)))).toEqual([20, 40]); // prettier-ignore
    expect(pathsOf(ellipse)[0]!.closed).toBe(true);
    const inches = ['0', 'SECTION', '2', 'HEADER', '9', '$INSUNITS', '70', '1', '0', 'ENDSEC', ''].join('\n') + dxf(dxfLine(0, 0, 2, 0)); // prettier-ignore
    expect(readDxf(inches).art.sheet.width).toBeCloseTo(192, 9);
  });

  it('puts lines whose ends meet together, closed where they come round, and none where three meet', () => {
    const box = readDxf(dxf(dxfLine(0, 0, 10, 0), dxfLine(10, 10, 10, 0), dxfLine(10, 10, 0, 10), dxfLine(0, 0, 0, 10))).art; // prettier-ignore
    expect(pathsOf(box).map(({ closed, anchors }) => [closed, anchors.length])).toEqual([[true, 4]]);
    expect(pathLength(pathsOf(box)[0]!) / MM).toBeCloseTo(40, 9);
    const row = readDxf(dxf(dxfLine(10, 0, 20, 0), dxfLine(0, 0, 10, 0), dxfLine(30, 5, 20, 0))).art;
    expect(pathsOf(row).map(({ closed, anchors }) => [closed, anchors.length])).toEqual([[false, 4]]);
    const star = readDxf(dxf(dxfLine(0, 0, 10, 0), dxfLine(0, 0, 0, 10), dxfLine(0, 0, -10, -5))).art;
    expect(pathsOf(star)).toHaveLength(3);
  });

  it('takes blocks where they are put, turned and scaled, and counts what it leaves out', () => {
    const text = ['0', 'SECTION', '2', 'BLOCKS', '0', 'BLOCK', '8', '0', '2', 'leaf', '70', '0', '10', '0', '20', '0', '3', 'leaf', '0', 'LINE', '8', '0', '10', '0', '20', '0', '11', '10', '21', '0', '0', 'ENDBLK', '8', '0', '0', 'ENDSEC', ''].join('\n') // prettier-ignore
      + dxf([[0, 'INSERT'], [8, 'Cut'], [2, 'leaf'], [10, 100], [20, 0], [41, 2], [42, 2], [50, 90]], dxfLine(0, 0, 5, 0), [[0, 'TEXT'], LAYER, [10, 0], [20, 0], [40, 5], [1, 'mint']], [[0, 'INSERT'], LAYER, [2, 'nobody'], [10, 0], [20, 0]]); // prettier-ignore
    const { art, left } = readDxf(text);
    expect(art.layers.map(({ name }) => name).sort()).toEqual(['0', 'Cut']);
    expect(art.sheet.height / MM).toBeCloseTo(20, 9);
    expect(left).toEqual([{ what: 'text', count: 1 }, { what: 'insert', count: 1 }]); // prettier-ignore
    expect(readDxf(text, { layers: false }).art.layers).toHaveLength(1);
  });

  it('is refused in a sentence where it is none, cut short, empty or endless', () => {
    for (const wrong of [
      '',
      'hello',
      '0\nSECTION\n2\nENTITIES\n0\nLINE',
      dxf(),
      dxf([[0, 'TEXT'], LAYER, [1, 'x']]),
    ])
      expect(() => readDxf(wrong), wrong).toThrow(/Nothing was added\.$/);
    const itself = ['0', 'SECTION', '2', 'BLOCKS', '0', 'BLOCK', '8', '0', '2', 'a', '70', '0', '10', '0', '20', '0', '0', 'INSERT', '8', '0', '2', 'a', '10', '1', '20', '1', '0', 'INSERT', '8', '0', '2', 'a', '10', '1', '20', '2', '0', 'ENDBLK', '8', '0', '0', 'ENDSEC', ''].join('\n') // prettier-ignore
      + dxf([[0, 'INSERT'], LAYER, [2, 'a'], [10, 0], [20, 0]]); // prettier-ignore
    expect(() => readDxf(itself)).toThrow(/Nothing was added\.$/);
    expect(() => readDxf(dxf(dxfLine(0, 0, 1e12, 0)))).toThrow(/larger than a sheet/);
  });

  it('leaves hidden layers hidden', () => {
    const art = changeArt(drawn(line(squarePath(0, 0, 10, 'a'))), setNode('layer', { shown: true })).art;
    const hidden = writeDxf(art).replace(/(LAYER[\s\S]*?Drawing\n\s*70\n\s*)0/, '$11');
    expect(readDxf(hidden).art.layers[0]!.shown).toBe(false);
  });
});

describe('a B-spline as cubics', () => {
  // Source: de Boor's algorithm (A Practical Guide to Splines, 1978; from memory).
  const deBoor = (degree: number, knots: readonly number[], points: readonly Point[], t: number): Point => {
    let k = degree;
    while (k < points.length - 1 && knots[k + 1]! <= t) k++;
    const d = points.slice(k - degree, k + 1).map((p) => ({ ...p }));
    for (let r = 1; r <= degree; r++)
      for (let j = degree; j >= r; j--) {
        const [from, to] = [knots[j + k - degree]!, knots[j + 1 + k - r]!];
        const a = (t - from) / (to - from);
        d[j] = { x: (1 - a) * d[j - 1]!.x + a * d[j]!.x, y: (1 - a) * d[j - 1]!.y + a * d[j]!.y };
      }
    return d[degree]!;
  };

  it('is the same curve, whatever its degree and knots', () => {
    const random = seeded(9);
    for (let round = 0; round < 60; round++) {
      const degree = 1 + (round % 3);
      const n = degree + 1 + Math.floor(6 * random());
      const points = Array.from({ length: n }, () => ({ x: 100 * random(), y: 100 * random() }));
      // Clamped or not, evenly or unevenly, some knots twice.
      let u = 0;
      const inner = Array.from({ length: n + degree + 1 }, () => (u += random() < 0.2 ? 0 : 0.2 + random()));
      const clamped = inner.map((k, i) => (i <= degree ? inner[degree]! : i >= n ? inner[n]! : k));
      const knots = round % 2 === 0 ? clamped : inner;
      const start = knots[degree]!;
      const end = knots[n]!;
      if (!(end > start) || knots.some((k, i) => knots.filter((o) => o === k).length > degree + (i <= degree || i >= n ? 1 : 0))) continue; // prettier-ignore
      const cubics = splineCubics(degree, knots, points);
      const spans = [...new Set(knots.filter((k) => k >= start && k <= end))];
      expect(cubics).toHaveLength(spans.length - 1);
      cubics.forEach((cubic, i) => {
        for (const s of [0.01, 0.3, 0.77, 0.99]) {
          const want = deBoor(degree, knots, points, spans[i]! + s * (spans[i + 1]! - spans[i]!));
          const got = cubicPoint(cubic, s);
          expect(Math.hypot(want.x - got.x, want.y - got.y)).toBeLessThan(1e-9);
        }
      });
    }
  });

  it('is none where knots and points do not fit', () => {
    const points = [{ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 1, y: 1 }, { x: 2, y: 1 }]; // prettier-ignore
    expect(splineCubics(3, [0, 0, 0, 1, 1, 1], points)).toEqual([]);
    expect(splineCubics(4, [0, 0, 0, 0, 0, 1, 1, 1, 1], points)).toEqual([]);
    expect(splineCubics(3, [0, 0, 0, 0, 1, 1, 0, 1], points)).toEqual([]);
    expect(splineCubics(3, [], [])).toEqual([]);
  });
});
