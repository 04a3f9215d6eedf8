import { setPath } from '../art/edits';
import { cross, dot } from '../geometry/vector';
import { setAnchorKind } from '../path/handle';
import { pathFound, type Check } from './finding';

/** How far two handles are out of line, degrees; 180 where they point the same way. */
const outOfLine = (a: { x: number; y: number }, b: { x: number; y: number }): number =>
  180 - (Math.abs(Math.atan2(cross(a, b), dot(a, b))) * 180) / Math.PI;

/** Out of line by less is not seen, degrees. */
const LEAST_SEEN = 0.5;

/** Two handles that are nearly in line: the line has a kink that nobody meant. */
export const kink: Check = {
  kind: 'kink',
  find: ({ shapes }, { kink: most }) =>
    shapes.flatMap(({ shape }) =>
      shape.lettering
        ? []
        : shape.paths.flatMap(({ id, anchors }) =>
            anchors.flatMap((a, index) => {
              if (a.kind !== 'corner' || !a.in || !a.out || a.protected) return [];
              const off = outOfLine(a.in, a.out);
              if (off < LEAST_SEEN || off > most) return [];
              return [{ kind: 'kink' as const, key: `kink ${id} ${index}`, shapes: [shape.id], at: { x: a.x, y: a.y }, amount: off, path: id, index }]; // prettier-ignore
            }),
          ),
    ),
  fix(art, finding) {
    const found = pathFound(art, finding);
    const index = finding.index ?? -1;
    if (!found?.path.anchors[index]) return null;
    return setPath(found.shape.id, setAnchorKind(found.path, index, 'smooth'));
  },
};
