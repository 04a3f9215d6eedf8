import { describe, expect, it } from 'vitest';
import { distance } from '../geometry/vector';
import { insertAnchor } from '../path/insert';
import { setMeantSegments } from '../path/meant';
import { parsePathData } from '../path/data';
import { nearestOnPath } from '../path/path-measure';
import { pathCubics, type Path } from '../path/path';
import { transformPath } from '../path/path-map';
import { circlePath, pathOf, anchor, squarePath } from '../testing';
import { measureDrift } from './drift';
import { measureEconomy, trackedEdge } from './economy';
import { fieldTiles } from './field-tiles';
import { EDGE_BLUR } from './field-tiles';
import { painted } from './testing';

const fieldOf = (path: Path, grain = 0) =>
  fieldTiles(painted(240, 240, [{ path, rgb: [40, 70, 60] }], [235, 228, 210], grain), 'edge', EDGE_BLUR);
const POT = parsePathData('M50 70L190 70L165 200C140 212 100 212 75 200Z')[0]!;
/** The same line with an anchor more in the middle of every segment, again and again. */
const crowded = (path: Path, times: number): Path => {
  let next = path;
  for (let k = 0; k < times; k++)
    for (let i = pathCubics(next).length - 1; i >= 0; i--) next = insertAnchor(next, i, 0.5);
  return next;
};

// Truth: outlines that the picture was painted from, whose fewest anchors are their own.
describe('economy', () => {
  it.each([
    ['a pot of straight sides and a curved foot', POT, 4],
    ['a square', squarePath(60, 60, 110), 4],
    ['a disc', circlePath(120, 120, 70), 4],
  ])('of %s drawn with four times its anchors is its own few', (_what, truth, own) => {
    for (const grain of [0, 12]) {
      const path = crowded(truth, 2);
      const drift = measureDrift(path, fieldOf(truth, grain), { reach: 8 });
      const found = measureEconomy(path, drift, 1)!;
      expect(found.anchors).toBe(4 * own);
      expect(found.fewest).toBeLessThanOrEqual(own);
      expect(found.fewest).toBeGreaterThanOrEqual(2);
      // Of anchors that lie on the true line nearly all but its own can go.
      expect(found.spare.length).toBeGreaterThanOrEqual(2 * own);
    }
  });

  it('is told of the edge, not of the line: a square where a disc is needs a disc’s anchors', () => {
    const disc = circlePath(120, 120, 60);
    const path = transformPath(squarePath(-52, -52, 104), [1, 0, 0, 1, 120, 120]);
    const drift = measureDrift(path, fieldOf(disc), { reach: 24 });
    const found = measureEconomy(path, drift, 1)!;
    expect(found.spare).toEqual([]);
    expect(found.fewest).toBeGreaterThanOrEqual(3);
    // A path that holds the edge needs no more anchors than it has.
    expect(
      measureEconomy(disc, measureDrift(disc, fieldOf(disc), { reach: 8 }), 0.2)!.fewest,
    ).toBeLessThanOrEqual(4);
  });

  it('follows the edge with corners where its sides meet', () => {
    const truth = squarePath(60, 60, 110);
    const path = squarePath(57, 58, 114);
    const { points, corners } = trackedEdge(path, measureDrift(path, fieldOf(truth), { reach: 8 }));
    expect(corners.length).toBe(4);
    for (const a of truth.anchors)
      expect(Math.min(...corners.map((c) => distance(points[c]!, a)))).toBeLessThan(0.15);
    for (const p of points) expect(nearestOnPath(truth, p)!.distance).toBeLessThan(0.3);
  });

  it('takes segments meant so for their own edge', () => {
    const truth = squarePath(60, 60, 110);
    const drawn = pathOf(
      [anchor(60, 60), anchor(170, 60), anchor(170, 170), anchor(60, 170), anchor(66, 115)],
      true,
    );
    const drift = measureDrift(drawn, fieldOf(truth), { reach: 10 });
    const left = (path: Path): number => Math.min(...trackedEdge(path, drift).points.filter((p) => Math.abs(p.y - 115) < 6).map((p) => p.x)); // prettier-ignore
    expect(left(drawn)).toBeLessThan(61);
    expect(left(setMeantSegments(drawn, [3, 4], true))).toBeGreaterThan(65);
  });

  it('says nothing where there is no edge and no line, and is there for open paths', () => {
    const flat = fieldTiles(painted(100, 100, [], [200, 200, 200]), 'edge', EDGE_BLUR);
    const path = squarePath(20, 20, 50);
    expect(measureEconomy(path, measureDrift(path, flat, { reach: 8 }), 1)).toBeNull();
    const dot = pathOf([anchor(20, 20)]);
    expect(measureEconomy(dot, measureDrift(dot, flat, { reach: 8 }), 1)).toBeNull();
    const open = crowded(pathOf([anchor(62, 60), anchor(168, 60)]), 3);
    const drift = measureDrift(open, fieldOf(squarePath(60, 60, 110)), { reach: 8 });
    expect(measureEconomy(open, drift, 1)).toMatchObject({
      anchors: 9,
      fewest: 2,
      spare: [1, 2, 3, 4, 5, 6, 7],
    });
    expect(() => measureEconomy(open, drift, 0)).toThrow('tolerance');
  });
});
