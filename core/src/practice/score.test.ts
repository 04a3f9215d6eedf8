import { describe, expect, it } from 'vitest';
import { parsePathData } from '../path/data';
import { rotation, scaling, translation } from '../geometry/affine';
import { transformPath } from '../path/path-map';
import type { Path } from '../path/path';
import { FAR_PX, isScore, scoreDrawing, scoreSchema, type DrawnShape } from './score';
import type { TruthShape } from './exercise';

const paths = (d: string): Path[] => parsePathData(d, (n) => `p${n}`);
const truthOfData = (d: string, fill: string | null = null): TruthShape => ({
  name: 'Shape',
  paths: paths(d),
  fill,
});
const drawnAs = (d: string | readonly Path[], fill: string | null = null): DrawnShape => ({
  paths: typeof d === 'string' ? paths(d) : d,
  fill,
});
/** A circle by four cubics: within 2.73e-4 of its radius. */
const circle = (cx: number, cy: number, r: number): string => {
  const k = 0.5522847498 * r;
  return `M${cx + r} ${cy}C${cx + r} ${cy + k} ${cx + k} ${cy + r} ${cx} ${cy + r}C${cx - k} ${cy + r} ${cx - r} ${cy + k} ${cx - r} ${cy}C${cx - r} ${cy - k} ${cx - k} ${cy - r} ${cx} ${cy - r}C${cx + k} ${cy - r} ${cx + r} ${cy - k} ${cx + r} ${cy}Z`;
};
const SQUARE = 'M100 100L300 100L300 300L100 300Z';

describe('the score', () => {
  it('is nothing off, in all of it, for the truth itself', () => {
    const score = scoreDrawing([drawnAs(SQUARE)], [truthOfData(SQUARE)]);
    expect(score).toMatchObject({ drawn: 1, astray: 0, anchors: 4, own: 4 });
    expect(score.mean).toBeCloseTo(0, 9);
    expect(score.worst!.distance).toBeCloseTo(0, 9);
  });

  it.each([0.3, 1, 2.5, 8])('is off by as much as a circle was grown: %f px', (by) => {
    const score = scoreDrawing([drawnAs(circle(200, 200, 120 + by))], [truthOfData(circle(200, 200, 120))]);
    expect(score.mean).toBeCloseTo(by, 1);
    expect(score.p95).toBeCloseTo(by, 1);
    expect(score.worst!.distance).toBeCloseTo(by, 1);
    expect(score.drawn).toBe(1);
  });

  it.each([1, 4])(
    'of a square moved aside by %f px: half its sides lie on the truth, half so far off',
    (by) => {
      const moved = paths(SQUARE).map((p) => transformPath(p, translation(by, 0)));
      const score = scoreDrawing([drawnAs(moved)], [truthOfData(SQUARE)]);
      // The two sides it was moved along stay on their lines, but for what sticks out at the corners.
      expect(score.mean).toBeGreaterThan(0.45 * by);
      expect(score.mean).toBeLessThan(0.52 * by);
      expect(score.p95).toBeCloseTo(by, 6);
      expect(score.worst!.distance).toBeCloseTo(by, 6);
    },
  );

  it('of an outline moved by a map’s known share of it: a circle scaled by 1.02 about its middle', () => {
    const about = (p: Path): Path => transformPath(transformPath(transformPath(p, translation(-200, -200)), scaling(1.02)), translation(200, 200)); // prettier-ignore
    const score = scoreDrawing([drawnAs(paths(circle(200, 200, 100)).map(about))], [truthOfData(circle(200, 200, 100))]); // prettier-ignore
    expect(score.mean).toBeCloseTo(2, 1);
  });

  it('is the same whichever way round a line runs, wherever it begins, and however it is turned with its truth', () => {
    const other = 'M300 300L300 100L100 100L100 300Z';
    expect(scoreDrawing([drawnAs(other)], [truthOfData(SQUARE)]).mean).toBeCloseTo(0, 9);
    const turn = rotation(0.7);
    const off = scoreDrawing([drawnAs(circle(200, 200, 123))], [truthOfData(circle(200, 200, 120))]);
    const turned = scoreDrawing(
      [drawnAs(paths(circle(200, 200, 123)).map((p) => transformPath(p, turn)))],
      [{ ...truthOfData(SQUARE), paths: paths(circle(200, 200, 120)).map((p) => transformPath(p, turn)) }],
    );
    expect(turned.mean).toBeCloseTo(off.mean!, 2);
  });

  it('tells what is not drawn, and what lies by nothing, and leaves both out of distances', () => {
    const half = scoreDrawing([drawnAs('M100 100L300 100L300 300')], [truthOfData(SQUARE)]);
    // Near the two ends the missing sides are still near what is drawn.
    expect(half.drawn).toBeGreaterThan(0.5);
    expect(half.drawn).toBeLessThan(0.5 + (2 * FAR_PX) / 800 + 0.01);
    const astray = scoreDrawing([drawnAs(SQUARE), drawnAs('M600 600L800 600')], [truthOfData(SQUARE)]);
    expect(astray.astray).toBeCloseTo(200 / 1000, 6);
    expect(astray.mean).toBeCloseTo(0, 9);
    expect(astray.anchors).toBe(6);
  });

  it('tells each shape of the truth by itself, its anchors beside its own, and its colour', () => {
    const truth = [
      { ...truthOfData(SQUARE, '#d4561c'), name: 'Box' },
      { ...truthOfData(circle(500, 200, 80), '#2f6b4f'), name: 'Ring' },
    ];
    const score = scoreDrawing(
      [
        drawnAs(circle(500, 200, 82), '#2f6b4f'),
        drawnAs('M100 100L200 101L300 100L300 300L100 300Z', '#d4561d'),
      ],
      truth,
    );
    const [box, ring] = score.shapes;
    expect(box).toMatchObject({ name: 'Box', anchors: 5, own: 4, drawn: 1 });
    expect(box!.deltaE).toBeLessThan(0.5);
    expect(ring).toMatchObject({ name: 'Ring', anchors: 4, own: 4, deltaE: 0 });
    expect(ring!.mean).toBeCloseTo(2, 1);
    expect(score.own).toBe(8);
    // As it is kept, so it is read.
    expect(scoreSchema.parse(JSON.parse(JSON.stringify(score)))).toEqual(score);
  });

  it('says so where nothing is drawn', () => {
    const score = scoreDrawing([], [truthOfData(SQUARE)]);
    expect(score).toMatchObject({ drawn: 0, astray: 0, anchors: 0, own: 4, worst: null });
    expect(score.mean).toBeNull();
    expect(isScore(score)).toBe(false);
    expect(scoreSchema.safeParse(score).success).toBe(false);
    expect(score.shapes[0]).toMatchObject({ drawn: 0, anchors: 0, deltaE: null });
  });

  it('takes a line of a single point, and segments without length', () => {
    const score = scoreDrawing([drawnAs('M100 100L100 100'), drawnAs(SQUARE)], [truthOfData(SQUARE)]);
    expect(score.mean).toBeCloseTo(0, 9);
    expect(score.astray).toBe(0);
  });
});
