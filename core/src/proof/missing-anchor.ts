import { setPath } from '../art/edits';
import { cubicPoint } from '../geometry/cubic';
import { insertAnchors, inflectionSpots } from '../path/spots';
import { segmentCubic, segmentCount } from '../path/path';
import { pathFound, type Check } from './finding';

/** A segment that bends this way and that by less than so many sheet pixels is as good as straight. */
const LEAST_SWING_PX = 0.5;

/** How far a curve swings off its chord to either side: the smaller of both. */
function swing(cubic: ReturnType<typeof segmentCubic>): number {
  const [a, , , d] = cubic;
  const chord = Math.hypot(d.x - a.x, d.y - a.y);
  if (chord === 0) return 0;
  let [low, high] = [0, 0];
  for (let k = 1; k < 16; k++) {
    const p = cubicPoint(cubic, k / 16);
    const off = ((d.x - a.x) * (p.y - a.y) - (d.y - a.y) * (p.x - a.x)) / chord;
    [low, high] = [Math.min(low, off), Math.max(high, off)];
  }
  return Math.min(-low, high);
}

/** A segment that bends one way and then the other: an anchor belongs where it turns (common practice, no source). */
export const missingAnchor: Check = {
  kind: 'missing-anchor',
  find: ({ shapes }) =>
    shapes.flatMap(({ shape }) =>
      shape.lettering
        ? []
        : shape.paths.flatMap((path) => {
            if (segmentCount(path) === 0) return [];
            return inflectionSpots(path).flatMap(({ segment, t }) => {
              const cubic = segmentCubic(path, segment);
              const amount = swing(cubic);
              if (amount < LEAST_SWING_PX) return [];
              return [{ kind: 'missing-anchor' as const, key: `missing-anchor ${path.id} ${segment}`, shapes: [shape.id], at: cubicPoint(cubic, t), amount, path: path.id, index: segment }]; // prettier-ignore
            });
          }),
    ),
  fix(art, finding) {
    const found = pathFound(art, finding);
    const spots = found && inflectionSpots(found.path).filter(({ segment }) => segment === finding.index);
    return found && spots!.length > 0 ? setPath(found.shape.id, insertAnchors(found.path, spots!)) : null;
  },
};
