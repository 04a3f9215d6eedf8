import Flatbush from 'flatbush';
import { setPath, together } from '../art/edits';
import { shapesOf } from '../art/tree';
import { distance, type Point } from '../geometry/vector';
import type { Anchor } from '../path/anchor';
import type { Path } from '../path/path';
import { pathFound, type Check, type Finding } from './finding';

interface End {
  readonly shape: string;
  readonly path: Path;
  /** The anchor's index. */
  readonly index: number;
  readonly at: Point;
}

const moved = (path: Path, index: number, { x, y }: Point): Path => ({
  ...path,
  anchors: path.anchors.map((a, i): Anchor => (i === index ? { ...a, x, y } : a)),
});

/** Ends of lines that nearly meet, and do not. Those of one filled path are told as a fill left open. */
export const nearEnds: Check = {
  kind: 'near-ends',
  find({ shapes }, { gap }) {
    const ends: End[] = shapes.flatMap(({ shape }) =>
      shape.fill !== null || shape.lettering
        ? []
        : shape.paths.flatMap((path) =>
            path.closed || path.anchors.length < 2
              ? []
              : [0, path.anchors.length - 1].map((index) => ({
                  shape: shape.id,
                  path,
                  index,
                  at: path.anchors[index]!,
                })),
          ),
    );
    if (ends.length === 0) return [];
    const tree = new Flatbush(ends.length);
    for (const { at } of ends) tree.add(at.x, at.y, at.x, at.y);
    tree.finish();
    const found: Finding[] = [];
    ends.forEach((a, i) => {
      for (const k of tree.search(a.at.x - gap, a.at.y - gap, a.at.x + gap, a.at.y + gap)) {
        const b = ends[k]!;
        const far = distance(a.at, b.at);
        if (k <= i || far === 0 || far > gap) continue;
        const at = { x: (a.at.x + b.at.x) / 2, y: (a.at.y + b.at.y) / 2 };
        found.push({ kind: 'near-ends', key: `near-ends ${a.path.id} ${a.index} ${b.path.id} ${b.index}`, shapes: [...new Set([a.shape, b.shape])], at, amount: far, path: a.path.id, index: a.index }); // prettier-ignore
      }
    });
    return found;
  },
  fix(art, finding, { gap }) {
    const own = pathFound(art, finding);
    const here = own?.path.anchors[finding.index ?? -1];
    if (!own || !here) return null;
    // The other end is the nearest one that does not lie on it: both move to the middle.
    let other: End | null = null;
    for (const { shape } of shapesOf(art)) {
      if (!finding.shapes.includes(shape.id)) continue;
      for (const path of shape.paths)
        for (const index of path.closed ? [] : [0, path.anchors.length - 1]) {
          const at = path.anchors[index]!;
          const far = distance(at, here);
          if (far > 0 && far <= gap && (!other || far < distance(other.at, here))) other = { shape: shape.id, path, index, at }; // prettier-ignore
        }
    }
    if (!other) return null;
    const middle = { x: (here.x + other.at.x) / 2, y: (here.y + other.at.y) / 2 };
    if (other.path.id === own.path.id) {
      const both = moved(moved(own.path, finding.index!, middle), other.index, middle);
      return setPath(own.shape.id, both);
    }
    return together(
      setPath(own.shape.id, moved(own.path, finding.index!, middle)),
      setPath(other.shape, moved(other.path, other.index, middle)),
    );
  },
};
