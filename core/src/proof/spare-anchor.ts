import { setPath } from '../art/edits';
import { cubicPoint, type Cubic } from '../geometry/cubic';
import { cross, subtract } from '../geometry/vector';
import { segmentCount, segmentCubic, type Path } from '../path/path';
import { spareAnchors, thinOut } from '../path/thin';
import { pathFound, type Check } from './finding';

/** To which side of its chord a curve bends, by how much. */
function bend(cubic: Cubic): number {
  const [a, , , d] = cubic;
  return [0.25, 0.5, 0.75].reduce(
    (sum, t) => sum + cross(subtract(d, a), subtract(cubicPoint(cubic, t), a)),
    0,
  );
}

/** An anchor at which the line turns from bending one way to bending the other belongs there, though the line needs it not. */
function isTurn(path: Path, index: number): boolean {
  const count = segmentCount(path);
  if (!path.closed && (index === 0 || index >= count)) return false;
  const [before, after] = [
    segmentCubic(path, (index + count - 1) % count),
    segmentCubic(path, index % count),
  ];
  return bend(before) * bend(after) < 0;
}

/** Anchors that could go with the line as good as unmoved: one finding a path. */
export const spareAnchor: Check = {
  kind: 'spare-anchor',
  find: ({ shapes }, { spare }) =>
    shapes.flatMap(({ shape }) =>
      shape.lettering
        ? []
        : shape.paths.flatMap((path) => {
            const indices = path.form ? [] : spareOf(path, spare);
            const [first] = indices;
            if (first === undefined) return [];
            const { x, y } = path.anchors[first]!;
            return [{ kind: 'spare-anchor' as const, key: `spare-anchor ${path.id}`, shapes: [shape.id], at: { x, y }, amount: indices.length, path: path.id, index: first }]; // prettier-ignore
          }),
    ),
  fix(art, finding, { spare }) {
    const found = pathFound(art, finding);
    const path = found && withoutSpare(found.path, spare);
    return found && path !== found.path ? setPath(found.shape.id, path!) : null;
  },
};

/** The path without anchors that could go, looked at anew until none is left. */
export function withoutSpare(path: Path, tolerance: number): Path {
  const only = spareOf(path, tolerance);
  const thinned = only.length === 0 ? path : thinOut(path, { tolerance, only }).path;
  // Each turn takes one at least: what is told as spare and stays all the same ends it.
  return thinned.anchors.length < path.anchors.length ? withoutSpare(thinned, tolerance) : path;
}

/** Anchors that may go: those at turns stay. */
function spareOf(path: Path, tolerance: number): readonly number[] {
  const only = path.anchors.map((_, i) => i).filter((i) => !isTurn(path, i));
  return spareAnchors(path, { tolerance, only });
}
