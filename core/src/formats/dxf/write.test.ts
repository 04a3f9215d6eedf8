import DxfParser, { type ICircleEntity, type ILwpolylineEntity, type ISplineEntity } from 'dxf-parser';
import { describe, expect, it } from 'vitest';
import { changeArt } from '../../art/change';
import { addLayer, addNode, setClip, together } from '../../art/edits';
import { plainStroke } from '../../art/paint';
import { shapeOf } from '../../art/testing';
import { emptyArt } from '../../art/blank';
import { PX_PER } from '../../art/units';
import type { Art, Group, Shape } from '../../art/schema';
import type { Point } from '../../geometry/vector';
import { plainForm } from '../../path/form';
import { formPath } from '../../path/form-path';
import { blob } from '../../path/testing';
import { pathCubics, segmentIsLine, type Path } from '../../path/path';
import { cubicPoint } from '../../geometry/cubic';
import { seeded, squarePath } from '../../testing';
import { writeDxf } from './write';

const HEIGHT = 80 * PX_PER.mm;
const drawn = (...shapes: Shape[]): Art =>
  changeArt(emptyArt({ width: 100 * PX_PER.mm, height: HEIGHT, unit: 'mm' }, 'layer'), together(...shapes.map((s) => addNode('layer', s)))).art; // prettier-ignore
const read = (art: Art) => new DxfParser().parseSync(writeDxf(art))!;
const toMm = (p: Point): Point => ({ x: p.x / PX_PER.mm, y: (HEIGHT - p.y) / PX_PER.mm });

/** A point of a B-spline by de Boor's algorithm (de Boor, A Practical Guide to Splines, 1978; from memory). */
function splinePoint({ controlPoints, knotValues, degreeOfSplineCurve: p }: ISplineEntity, t: number): Point {
  let span = p;
  while (span < controlPoints!.length - 1 && knotValues![span + 1]! <= t) span++;
  const d = controlPoints!.slice(span - p, span + 1).map(({ x, y }) => ({ x, y }));
  for (let r = 1; r <= p; r++)
    for (let j = p; j >= r; j--) {
      const [from, to] = [knotValues![j + span - p]!, knotValues![j + 1 + span - r]!];
      const a = to === from ? 0 : (t - from) / (to - from);
      d[j] = { x: (1 - a) * d[j - 1]!.x + a * d[j]!.x, y: (1 - a) * d[j - 1]!.y + a * d[j]!.y };
    }
  return d[p]!;
}

// Source outside: dxf-parser.
describe('writing DXF', () => {
  it('gives splines that are the same curves, in millimetres, y upward', () => {
    const random = seeded(5);
    let curved = 0;
    for (let k = 0; k < 30; k++) {
      const path = { ...blob(random, 'p', 300), closed: k % 2 === 0 };
      if (pathCubics(path).every((_, i) => segmentIsLine(path, i))) continue;
      curved++;
      const [entity] = read(drawn(shapeOf('a', { paths: [path], fill: { hex: '#2f6b4f' } })))
        .entities as ISplineEntity[];
      expect(entity!.type).toBe('SPLINE');
      expect(entity!.closed ?? false).toBe(path.closed);
      const cubics = pathCubics(path);
      cubics.forEach((cubic, i) => {
        for (const t of [0, 0.21, 0.5, 0.83, 0.999999]) {
          const [one, other] = [splinePoint(entity!, i + t), toMm(cubicPoint(cubic, t))];
          expect(Math.hypot(one.x - other.x, one.y - other.y)).toBeLessThan(1e-6);
        }
      });
    }
    expect(curved).toBeGreaterThan(15);
  });

  it('gives straight paths as polylines and circles as circles', () => {
    const circle = formPath(plainForm('ellipse', { x: 100, y: 120, width: 60, height: 60 }), 'c');
    const { entities } = read(
      drawn(shapeOf('a', { paths: [squarePath(10, 20, 30), circle], fill: { hex: '#2f6b4f' } })),
    );
    const [square, round] = entities as [ILwpolylineEntity, ICircleEntity];
    expect([square.type, square.shape, square.vertices.length]).toEqual(['LWPOLYLINE', true, 4]);
    expect(square.vertices[0]!.x).toBeCloseTo(10 / PX_PER.mm, 9);
    expect(square.vertices[0]!.y).toBeCloseTo(toMm({ x: 10, y: 20 }).y, 9);
    expect(round.type).toBe('CIRCLE');
    expect(round.radius).toBeCloseTo(30 / PX_PER.mm, 9);
    expect(round.center.y).toBeCloseTo(toMm({ x: 100, y: 120 }).y, 9);
  });

  it('keeps layers and colours, and names what DXF can hold', () => {
    let art = drawn(shapeOf('a', { paths: [squarePath(0, 0, 9)], fill: { hex: '#2f6b4f' } }));
    for (const [id, name] of [
      ['l2', 'Cut: <1>'],
      ['l3', 'cut  1'],
      ['l4', '🌱 Blätter'],
    ] as const) {
      // prettier-ignore
      art = changeArt(art, together(addLayer({ id, type: 'layer', name, shown: true, locked: false, opacity: 1, ink: null, children: [] }, null), addNode(id, shapeOf(`s${id}`, { paths: [squarePath(0, 0, 9)], stroke: plainStroke({ hex: '#a32a21' }, 2) })))).art; // prettier-ignore
    }
    const dxf = read(art);
    expect(dxf.entities.map((e) => e.layer)).toEqual(['Drawing', 'Cut   1', 'cut  1', '🌱 Blätter']);
    expect(Object.keys(dxf.tables.layer.layers)).toEqual(expect.arrayContaining(['Drawing', '🌱 Blätter']));
    expect(dxf.entities.map((e) => e.color)).toEqual([0x2f6b4f, 0xa32a21, 0xa32a21, 0xa32a21]);
    // 4 is millimetres.
    expect(dxf.header.$INSUNITS).toBe(4);
  });

  it('gives areas that a group cuts as they are seen, in any size and place', () => {
    const group: Group = { id: 'g', type: 'group', name: 'G', shown: true, locked: false, opacity: 1, children: [shapeOf('edge', { paths: [squarePath(0, 0, 50, 'e')], fill: null }), shapeOf('cut', { paths: [squarePath(20, 20, 80, 'f')], fill: { hex: '#2f6b4f' } }), shapeOf('line', { paths: [squarePath(30, 30, 80, 'l')], fill: null, stroke: plainStroke({ hex: '#a32a21' }, 2) })] }; // prettier-ignore
    const art = changeArt(drawn(), together(addNode('layer', group), setClip('g', 'edge'))).art;
    const [cut] = read(art).entities as ILwpolylineEntity[];
    const across = cut!.vertices.map(({ x }) => x * PX_PER.mm);
    expect([Math.min(...across), Math.max(...across)].map((v) => Math.round(v))).toEqual([20, 50]);
    // Twice as large, from the corner of what is drawn.
    const larger = new DxfParser().parseSync(writeDxf(art, { area: 'drawing', scale: 2 }))!.entities as ILwpolylineEntity[]; // prettier-ignore
    const wide = larger[0]!.vertices.map(({ x }) => (x * PX_PER.mm) / 2);
    expect(Math.max(...wide) - Math.min(...wide)).toBeCloseTo(30, 6);
    expect(Math.min(...larger[0]!.vertices.map(({ y }) => y))).toBeGreaterThan(-1e-6);
  });

  it('refuses a drawing without a line', () => {
    expect(() => writeDxf(drawn())).toThrow(/no line/);
    expect(() => writeDxf(drawn(shapeOf('a', { fill: null })))).toThrow(/no line/);
  });

  it('takes coordinates at the limit and a shape of no size', () => {
    const far: Path = squarePath(-9e5, 8e5, 1e5);
    const point: Path = squarePath(5, 5, 0);
    const { entities } = read(drawn(shapeOf('a', { paths: [far, point], fill: { hex: '#2f6b4f' } })));
    expect((entities[0] as ILwpolylineEntity).vertices[0]!.x).toBeCloseTo(-9e5 / PX_PER.mm, 6);
    expect(entities).toHaveLength(2);
  });
});
