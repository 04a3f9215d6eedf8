import { describe, expect, it } from 'vitest';
import { anchor, circlePath, pathOf, squarePath } from '../testing';
import { cutAt, mergeAnchors, startAt } from './cut';
import { insertAnchor } from './insert';
import { joinEnds } from './join';
import { meantSegments, setMeantSegments } from './meant';
import { reversePath, transformPath } from './path-map';
import { segmentCubic, type Path } from './path';
import { removeAnchors } from './remove';
import { thinOut } from './thin';

const marked = (path: Path): number[] => [...meantSegments(path)];
/** Middles of the segments that are marked. */
const places = (path: Path): string[] =>
  marked(path)
    .map((i) => segmentCubic(path, i))
    .map(([a, , , d]) => `${((a.x + d.x) / 2).toFixed(1)} ${((a.y + d.y) / 2).toFixed(1)}`)
    .toSorted();

describe('segments meant so', () => {
  const square = setMeantSegments(squarePath(0, 0, 10), [1, 3], true);
  it('are marked and freed, one by one', () => {
    expect(marked(square)).toEqual([1, 3]);
    expect(marked(setMeantSegments(square, [1], false))).toEqual([3]);
    // An open path's last anchor has no segment to mark.
    expect(marked(setMeantSegments(pathOf([anchor(0, 0), anchor(5, 0)]), [0, 1], true))).toEqual([0]);
  });

  it('stay the same pieces of the line when the path is reversed, begun elsewhere, moved, cut and joined', () => {
    for (const path of [reversePath(square), startAt(square, 2), transformPath(square, [1, 0, 0, 1, 0, 0])])
      expect(places(path)).toEqual(places(square));
    expect(places(reversePath(reversePath(square)))).toEqual(places(square));
    const open = setMeantSegments(
      pathOf([anchor(0, 0), anchor(10, 0), anchor(20, 5), anchor(30, 0)]),
      [1],
      true,
    );
    expect(places(reversePath(open))).toEqual(places(open));
    const [one, two] = cutAt(open, 1, 'q') as [Path, Path];
    expect([places(one), places(two)]).toEqual([[], places(open)]);
    expect(places(joinEnds(one, 'end', two, 'start'))).toEqual(places(open));
    expect(places(joinEnds(two, 'start', one, 'end'))).toEqual(places(open));
    expect(places(cutAt(square, 1, 'q')[0]!)).toEqual(places(square));
  });

  it('lend the mark to both halves, and lose it when made one with what is not', () => {
    expect(marked(insertAnchor(square, 1, 0.5))).toEqual([1, 2, 4]);
    const round = setMeantSegments(circlePath(0, 0, 10), [0, 1], true);
    expect(marked(insertAnchor(round, 0, 0.4))).toEqual([0, 1, 2]);
    expect(marked(removeAnchors(round, [1])!)).toEqual([0]);
    expect(marked(removeAnchors(round, [2])!)).toEqual([0]);
    expect(marked(mergeAnchors(square, 0))).toEqual([0, 2]);
    const fine = setMeantSegments(insertAnchor(circlePath(0, 0, 10), 0, 0.5), [0], true);
    expect(marked(thinOut(fine, { tolerance: 0.1 }).path)).toEqual([]);
  });
});
