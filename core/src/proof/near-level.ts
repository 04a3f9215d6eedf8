import { setPath } from '../art/edits';
import { distance } from '../geometry/vector';
import { segmentCount, segmentIsLine, type Path } from '../path/path';
import { pathFound, type Check } from './finding';

/** Shorter lines show no direction, sheet pixels. */
const SHORTEST_PX = 8;
/** Off by less is so by rounding alone, degrees. */
const ROUNDING = 0.01;

const endsOf = (path: Path, index: number) =>
  [path.anchors[index]!, path.anchors[(index + 1) % path.anchors.length]!] as const;

/** How far a line is off level or upright, whichever is nearer: degrees. */
function offLevel(path: Path, index: number): { readonly off: number; readonly level: boolean } {
  const [a, b] = endsOf(path, index);
  const [dx, dy] = [Math.abs(b.x - a.x), Math.abs(b.y - a.y)];
  const level = dy < dx;
  return { off: (Math.atan2(Math.min(dx, dy), Math.max(dx, dy)) * 180) / Math.PI, level };
}

/** Straight lines that are nearly level or upright. */
export const nearLevel: Check = {
  kind: 'near-level',
  find: ({ shapes }, { level }) =>
    shapes.flatMap(({ shape }) =>
      shape.lettering
        ? []
        : shape.paths.flatMap((path) => {
            if (path.form) return [];
            return Array.from({ length: segmentCount(path) }, (_, index) => index).flatMap((index) => {
              const [a, b] = endsOf(path, index);
              if (!segmentIsLine(path, index) || distance(a, b) < SHORTEST_PX) return [];
              const { off } = offLevel(path, index);
              if (off < ROUNDING || off > level) return [];
              return [{ kind: 'near-level' as const, key: `near-level ${path.id} ${index}`, shapes: [shape.id], at: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, amount: off, path: path.id, index }]; // prettier-ignore
            });
          }),
    ),
  fix(art, finding) {
    const found = pathFound(art, finding);
    const index = finding.index ?? -1;
    if (!found || index < 0 || index >= segmentCount(found.path)) return null;
    const [a, b] = endsOf(found.path, index);
    const { level } = offLevel(found.path, index);
    const to = level ? { y: (a.y + b.y) / 2 } : { x: (a.x + b.x) / 2 };
    const other = (index + 1) % found.path.anchors.length;
    const anchors = found.path.anchors.map((anchor, i) =>
      i === index || i === other ? { ...anchor, ...to } : anchor,
    );
    return setPath(found.shape.id, { ...found.path, anchors });
  },
};
