import { setPath } from '../art/edits';
import { boxCentre } from '../geometry/bounds';
import { PX_PER } from '../art/units';
import { toRadians } from '../geometry/angle';
import { cross, distance, dot, mix, subtract, type Point } from '../geometry/vector';
import { flattenPath, pathBounds, pathLength } from '../path/path-measure';
import type { Path } from '../path/path';
import { fitPath } from '../path/fit-path';
import { pathFound, type Check } from './finding';
import { withoutSpare } from './spare-anchor';

/** Fewer anchors than this choke no machine, however near they stand. */
const FEWEST = 24;
/** How far a line may move while it is thinned for a machine: a tenth of a millimetre, the play of a cutter (common practice, no source). */
const MACHINE_PLAY_PX = PX_PER.mm / 10;

/** Anchors to the centimetre. */
const density = (path: Path): number => path.anchors.length / (pathLength(path) / PX_PER.cm);

/** So far to either side of a place a line's directions are told, and turns sharper than this are corners. */
const CORNER_REACH_PX = 8 * MACHINE_PLAY_PX;
const SHARPEST = toRadians(50);

/** Places at which the line turns sharply when looked at from `CORNER_REACH_PX` off: trembling is no turn. */
function cornersOf(points: readonly Point[], closed: boolean): number[] {
  const n = points.length;
  const far = (i: number, step: 1 | -1): Point | null => {
    for (let k = 1; k < n; k++) {
      const at = i + step * k;
      if (!closed && (at < 0 || at >= n)) return null;
      const p = points[((at % n) + n) % n]!;
      if (distance(p, points[i]!) >= CORNER_REACH_PX) return p;
    }
    return null;
  };
  const turns = points.map((p, i) => {
    const [before, after] = [far(i, -1), far(i, 1)];
    if (!before || !after) return 0;
    const [u, v] = [subtract(p, before), subtract(after, p)];
    return Math.abs(Math.atan2(cross(u, v), dot(u, v)));
  });
  return points.flatMap((p, i) => {
    const isSharpest = turns[i]! > SHARPEST && points.every((q, k) => k === i || distance(p, q) > CORNER_REACH_PX || turns[k]! < turns[i]! || (turns[k] === turns[i] && k > i)); // prettier-ignore
    return isSharpest ? [i] : [];
  });
}

/** The line through the same places with as few anchors as hold it. */
function drawnAnew(path: Path): Path {
  const { closed } = path;
  const places = flattenPath(path, MACHINE_PLAY_PX / 4).slice(0, closed ? -1 : undefined);
  const n = places.length;
  const kept = new Set(cornersOf(places, closed));
  // Between two places the line trembles less than at them; corners and ends stay where they are.
  const points = places.flatMap((p, i): Point[] => {
    const next = places[(i + 1) % n]!;
    const own = kept.has(i) || (!closed && (i === 0 || i === n - 1)) ? [p] : [];
    return !closed && i === n - 1 ? own : [...own, mix(p, next, 0.5)];
  });
  const corners = cornersOf(points, closed);
  const { anchors } = fitPath(points, { tolerance: MACHINE_PLAY_PX, closed, corners });
  return { id: path.id, closed, anchors };
}

/** Lines with more anchors than a machine follows smoothly. */
export const crowded: Check = {
  kind: 'crowded',
  find: ({ shapes }, { anchorsPerCm }) =>
    shapes.flatMap(({ shape }) =>
      shape.lettering
        ? []
        : shape.paths.flatMap((path) => {
            if (path.anchors.length < FEWEST || !(density(path) > anchorsPerCm)) return [];
            return [{ kind: 'crowded' as const, key: `crowded ${path.id}`, shapes: [shape.id], at: boxCentre(pathBounds(path)), amount: density(path), path: path.id }]; // prettier-ignore
          }),
    ),
  fix(art, finding, { anchorsPerCm, spare }) {
    const found = pathFound(art, finding);
    if (!found) return null;
    const path = withoutSpare(drawnAnew(found.path), spare);
    const enough = path.anchors.length < FEWEST || density(path) <= anchorsPerCm;
    return enough ? setPath(found.shape.id, path) : null;
  },
};
