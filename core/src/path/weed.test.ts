import { describe, expect, it } from 'vitest';
import { anchor, circlePath, pathOf, squarePath } from '../testing';
import { combine } from './combine';
import type { Path } from './path';
import { pathArea } from './path-measure';
import { crossingPlaces, linePieces, pieceAt, piecesUnder, withoutPieces } from './weed';

const idOf = (n: number): string => `new-${n}`;
const line = (id: string, ...points: readonly (readonly [number, number])[]): Path =>
  pathOf(
    points.map(([x, y]) => anchor(x, y)),
    false,
    id,
  );
/** Swipes along points over lines, and says what they become. */
function weed(
  lines: readonly Path[],
  ...swipe: readonly (readonly [number, number])[]
): readonly (readonly Path[] | null)[] {
  // prettier-ignore
  const known = linePieces(lines);
  const points = swipe.map(([x, y]) => ({ x, y }));
  const pressed = points.length === 1 ? pieceAt(known.pieces, points[0]!, 0.1) : null;
  const gone = pressed === null ? piecesUnder(known.pieces, points) : [pressed];
  return withoutPieces(known, gone, idOf).paths;
}
const places = (path: Path): number[][] =>
  path.anchors.map(({ x, y }) => [x, y].map((v) => Math.round(v * 1e9) / 1e9));

describe('weeding lines', () => {
  const cross = [line('a', [0, 50], [100, 50]), line('b', [50, 0], [50, 100])];

  it('takes a piece between crossings and leaves the rest as it is', () => {
    const [a, b] = weed(cross, [70, 40], [70, 60]);
    expect(a!.map(places)).toEqual([[[0, 50], [50, 50]]]); // prettier-ignore
    expect(a![0]!.id).toBe('a');
    expect(b).toBeNull();
  });

  it('joins ends that meet then: two arms of a cross taken leave a corner, in the lower line', () => {
    const [a, b] = weed(cross, [70, 70], [70, 40], [60, 20], [40, 20]);
    expect(a!.map(places)).toEqual([[[0, 50], [50, 50], [50, 100]]]); // prettier-ignore
    expect(b).toEqual([]);
  });

  it('takes a middle out of a line, which is two then', () => {
    const [a] = weed([...cross, line('c', [80, 0], [80, 100])], [60, 40], [60, 60]);
    expect(a!.map(places)).toEqual([[[0, 50], [50, 50]], [[80, 50], [100, 50]]]); // prettier-ignore
    expect(a!.map(({ id }) => id)).toEqual(['a', 'new-0']);
  });

  it('makes one closed outline of two rings whose inner pieces go, as Add does', () => {
    const [one, other] = [circlePath(0, 0, 30, 'a'), circlePath(35, 10, 30, 'b')];
    const known = linePieces([one, other]);
    const inner = known.pieces.flatMap(({ line: which, cubics }, n) => {
      const middle = cubics[Math.floor(cubics.length / 2)]![0];
      const [cx, cy] = which === 0 ? [35, 10] : [0, 0];
      return Math.hypot(middle.x - cx, middle.y - cy) < 29.9 ? [n] : [];
    });
    expect(known.pieces).toHaveLength(4);
    const { paths } = withoutPieces(known, inner, idOf);
    expect(paths[1]).toEqual([]);
    expect(paths[0]).toHaveLength(1);
    expect(paths[0]![0]!.closed).toBe(true);
    const added = combine([[one], [other]], 'add', idOf);
    expect(Math.abs(pathArea(paths[0]![0]!))).toBeCloseTo(pathArea(added[0]!), 6);
  });

  it('takes a whole ring that nothing crosses, and what lies under a press', () => {
    expect(weed([squarePath(0, 0, 10, 'q')], [5, -1], [5, 1])).toEqual([[]]);
    expect(weed([squarePath(0, 0, 10, 'q')], [5, 0.05])).toEqual([[]]);
    expect(weed(cross, [20, 20])).toEqual([null, null]);
    expect(weed([], [0, 0], [1, 1])).toEqual([]);
  });

  it('goes round the place where a closed line begins', () => {
    const square = squarePath(0, 0, 100, 'q');
    const [rest] = weed([square, line('c', [50, -10], [50, 110])], [70, -5], [70, 5]);
    expect(rest!.map(places)).toEqual([[[50, 100], [0, 100], [0, 0], [50, 0]]]); // prettier-ignore
    expect(rest![0]!.closed).toBe(false);
  });

  it('takes both of two lines that lie on each other', () => {
    const [a, b] = weed([...cross, line('d', [50, 50], [100, 50])], [70, 40], [70, 60]);
    expect(a!.map(places)).toEqual([[[0, 50], [50, 50]]]); // prettier-ignore
    expect(b).toBeNull();
    expect(weed([...cross, line('d', [50, 50], [100, 50])], [70, 40], [70, 60])[2]).toEqual([]);
  });
});

describe('places for anchors at crossings', () => {
  it('are told on both lines, and not where an anchor stands already', () => {
    const lines = [line('a', [0, 50], [100, 50]), line('b', [25, 0], [25, 100]), line('c', [75, 0], [75, 50], [80, 90])]; // prettier-ignore
    expect(crossingPlaces(lines)).toEqual([
      { line: 0, segment: 0, t: expect.closeTo(0.25, 9) },
      { line: 0, segment: 0, t: expect.closeTo(0.75, 9) },
      { line: 1, segment: 0, t: expect.closeTo(0.5, 9) },
    ]);
    expect(crossingPlaces([lines[0]!])).toEqual([]);
  });
});
