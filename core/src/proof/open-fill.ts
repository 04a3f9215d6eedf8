import { setPath } from '../art/edits';
import { distance } from '../geometry/vector';
import { pathFound, type Check } from './finding';

/** A filled path left open: the fill closes it by a straight line that nobody drew. */
export const openFill: Check = {
  kind: 'open-fill',
  find: ({ shapes }) =>
    shapes.flatMap(({ shape }) =>
      shape.fill === null || shape.lettering
        ? []
        : shape.paths.flatMap(({ id, closed, anchors }) => {
            const [first, last] = [anchors[0], anchors.at(-1)];
            if (closed || anchors.length < 3 || !first || !last) return [];
            const at = { x: (first.x + last.x) / 2, y: (first.y + last.y) / 2 };
            return [{ kind: 'open-fill' as const, key: `open-fill ${id}`, shapes: [shape.id], at, amount: distance(first, last), path: id }]; // prettier-ignore
          }),
    ),
  fix(art, finding, { gap }) {
    const found = pathFound(art, finding);
    if (!found || found.path.closed) return null;
    const { anchors } = found.path;
    const [first, last] = [anchors[0]!, anchors.at(-1)!];
    // Ends as good as one are one; others are joined by the line that the fill has.
    const one = distance(first, last) <= gap && anchors.length > 3;
    const closed = one
      ? [{ ...first, kind: 'corner' as const, in: last.in }, ...anchors.slice(1, -1)]
      : anchors;
    return setPath(found.shape.id, { ...found.path, closed: true, anchors: closed });
  },
};
