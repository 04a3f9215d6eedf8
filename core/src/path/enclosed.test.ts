import { describe, expect, it } from 'vitest';
import { insideEvenOdd } from '../geometry/flatten';
import { anchor, circlePath, pathOf, seeded, squarePath } from '../testing';
import { arrange } from './arrangement';
import { deepestPoint, enclosedAreas } from './enclosed';
import { facesOf } from './faces';
import type { Path } from './path';
import { flattenPath, nearestOnPath, pathArea } from './path-measure';

const idOf = (n: number): string => `area-${n}`;
const line = (...points: readonly (readonly [number, number])[]): Path =>
  pathOf(
    points.map(([x, y]) => anchor(x, y)),
    false,
    `l${points.flat().join('-')}`,
  );
const areaOf = (paths: readonly Path[]): number => paths.reduce((sum, p) => sum + pathArea(p), 0);
const areasOf = (lines: readonly Path[], gap = 0): number[] =>
  enclosedAreas(lines, idOf, gap)
    .areas.map(({ paths }) => areaOf(paths))
    .sort((a, b) => a - b);

const random = seeded(77);
const curve = (size: number): Path => {
  const at = (): number => size * random();
  const by = (): [number, number] => [size * (random() - 0.5), size * (random() - 0.5)];
  return pathOf([anchor(at(), at(), null, by()), anchor(at(), at(), by(), null)], false, `c${at()}`);
};

describe('areas that lines enclose', () => {
  it('are as many as Euler’s formula says: edges − vertices + parts that hang together', () => {
    // Source: Euler's polyhedron formula for planar graphs, V − E + F = 1 + C, the outside not counted.
    for (let round = 0; round < 40; round++) {
      const lines = Array.from({ length: 2 + Math.floor(10 * random()) }, () => curve(100));
      if (round % 3 === 0) lines.push(circlePath(50, 50, 30, 'ring'), { ...lines[0]!, id: 'twice' });
      const whole = arrange([], lines);
      const { vertices, stretches } = whole;
      const parts = new Set(vertices.keys());
      const lead = new Map<number, number>();
      const find = (v: number): number => (lead.has(v) ? find(lead.get(v)!) : v);
      const met = new Set<number>();
      for (const { start, end } of stretches) {
        met.add(start).add(end);
        const [a, b] = [find(start), find(end)];
        if (a !== b) {
          lead.set(a, b);
          parts.delete(a);
        }
      }
      const hanging = [...parts].filter((v) => met.has(v)).length;
      expect(facesOf(whole).length, `round ${round}`).toBe(stretches.length - met.size + hanging);
    }
  });

  it('do not lie over each other, and have their edges on the lines to 1e-6', () => {
    for (let round = 0; round < 10; round++) {
      const lines = Array.from({ length: 8 }, () => curve(100));
      const { areas } = enclosedAreas(lines, idOf);
      const polygons = areas.map(({ paths }) => paths.map((p) => flattenPath(p, 1e-4)));
      for (let k = 0; k < 200; k++) {
        const p = { x: 100 * random(), y: 100 * random() };
        expect(polygons.filter((polygon) => insideEvenOdd(polygon, p)).length).toBeLessThan(2);
      }
      for (const { paths, lines: bordering } of areas)
        for (const a of paths.flatMap((p) => p.anchors)) {
          const near = lines.flatMap((l, i) => ((nearestOnPath(l, a)?.distance ?? 1) <= 1e-6 ? [i] : []));
          expect(near.some((i) => bordering.includes(i))).toBe(true);
        }
    }
  });

  it('are bordered by the lines’ own pieces, whatever sticks out', () => {
    const hash = [line([10, 0], [10, 50]), line([40, 0], [40, 50]), line([0, 10], [50, 10]), line([0, 40], [50, 40])]; // prettier-ignore
    const { areas } = enclosedAreas([...hash, line([20, 20], [25, 30])], idOf);
    expect(areas).toHaveLength(1);
    expect(pathArea(areas[0]!.paths[0]!)).toBeCloseTo(900, 9);
    expect(areas[0]!.paths[0]!.anchors).toHaveLength(4);
    expect(areas[0]!.lines).toEqual([0, 1, 2, 3]);
  });

  it('leave islands out, which are areas of their own, and are not divided by a line from one to another', () => {
    const [outer, inside] = [squarePath(0, 0, 100, 'o'), squarePath(40, 40, 20, 'i')];
    expect(areasOf([outer, inside])).toEqual([400, 9600]);
    expect(areasOf([outer, inside, line([0, 50], [40, 50])])).toEqual([400, 9600]);
    // Touching the outline from within at one point.
    const touching = pathOf([anchor(0, 50), anchor(20, 40), anchor(20, 60)], true, 't');
    expect(areasOf([outer, touching])).toEqual([200, 9800]);
  });

  it('are found where one segment crosses itself', () => {
    const loop = pathOf([anchor(0, 0, null, [120, 100]), anchor(60, 0, [-120, 100], null)], false, 'loop');
    const { areas } = enclosedAreas([loop], idOf);
    expect(areas).toHaveLength(1);
    expect(areas[0]!.paths[0]!.anchors.length).toBe(2);
    const { x, y } = areas[0]!.paths[0]!.anchors[0]!;
    expect(nearestOnPath(loop, { x, y })!.distance).toBeLessThan(1e-6);
  });

  it('bridge gaps up to a size, from end to end or to a line ahead, and not where a line goes past another', () => {
    const open = line([0, 0], [100, 0], [100, 100], [0, 100], [0, 3]);
    expect(areasOf([open])).toEqual([]);
    expect(areasOf([open], 2)).toEqual([]);
    expect(areasOf([open], 4)[0]).toBeCloseTo(10_000, 6);
    const short = [line([0, 0], [97, 0]), line([0, 0], [50, 80], [99, 2])];
    expect(enclosedAreas(short, idOf, 3).bridges).toEqual([{ from: { x: 97, y: 0 }, to: { x: 99, y: 2 } }]);
    const towards = [line([0, 0], [100, 0]), line([20, 0], [50, 80], [70, 2])];
    const found = enclosedAreas(towards, idOf, 3);
    expect(found.areas).toHaveLength(1);
    expect(found.areas[0]!.bridges).toEqual([0]);
    expect(found.bridges[0]!.to.y).toBe(0);
    const past = [line([-2, 0], [102, 0]), line([0, -2], [50, 80], [101, -2])];
    expect(enclosedAreas(past, idOf, 5)).toMatchObject({ bridges: [], areas: [{ bridges: [] }] });
  });

  it('are none where there are no lines, a lone anchor, or lines that meet nowhere', () => {
    expect(enclosedAreas([], idOf)).toEqual({ areas: [], bridges: [] });
    expect(areasOf([line([5, 5])])).toEqual([]);
    expect(areasOf([line([0, 0], [9, 9]), line([20, 0], [30, 9])], 1)).toEqual([]);
  });

  it('have a deepest point well inside, also where the middle is not', () => {
    const c = line([0, 0], [100, 0], [100, 20], [20, 20], [20, 80], [100, 80], [100, 100], [0, 100]);
    const p = deepestPoint([{ ...c, closed: true }]);
    expect(insideEvenOdd([flattenPath(c, 0.1)], p)).toBe(true);
    expect(nearestOnPath({ ...c, closed: true }, p)!.distance).toBeGreaterThan(9);
  });
});
