import Flatbush from 'flatbush';
import { distance, type Point } from '../../geometry/vector';
import { joinedAnchor } from '../../path/anchor';
import { joinEnds, type PathEnd } from '../../path/join';
import type { Path } from '../../path/path';

const sideOf = (end: number): PathEnd => (end % 2 === 0 ? 'start' : 'end');

/** An open path whose last anchor lies on its first: that is one. */
const closedAtEnds = (path: Path): Path =>
  path.anchors.length < 3
    ? path
    : {
        ...path,
        closed: true,
        anchors: [joinedAnchor(path.anchors.at(-1)!, path.anchors[0]!), ...path.anchors.slice(1, -1)],
      };

/**
 * Open paths whose ends meet, two at a place, as one: programs that write lines and arcs one by one mean one outline.
 *
 * @param within ends nearer than this meet, in the paths' unit
 * @returns closed ones as they are, then the others, closed where both of their ends meet
 */
export function chained(paths: readonly Path[], within: number): Path[] {
  const open = paths.filter((path) => !path.closed && path.anchors.length > 1);
  const rest = paths.filter((path) => !open.includes(path) && path.anchors.length > 1);
  if (open.length === 0) return rest;
  // Ends by number: of path n, 2n is its beginning and 2n + 1 its end.
  const ends: Point[] = open.flatMap(({ anchors }) => [anchors[0]!, anchors.at(-1)!]);
  const tree = new Flatbush(ends.length);
  for (const { x, y } of ends) tree.add(x, y, x, y);
  tree.finish();
  const others = ends.map((p, end) =>
    tree
      .search(p.x - within, p.y - within, p.x + within, p.y + within)
      .filter((other) => other !== end && distance(ends[other]!, p) <= within),
  );
  const partner = others.map((list, end) => {
    const [only] = list;
    return list.length === 1 && others[only!]!.length === 1 && others[only!]![0] === end ? only! : null;
  });
  const used = new Set<number>();
  const out: Path[] = [];
  /** From a path, entered at one of its ends, along all that hangs on its other end. */
  const follow = (enteredAt: number): void => {
    const first = enteredAt >> 1;
    used.add(first);
    let path = open[first]!;
    // Which end of what is joined so far goes on, and which end of a path as it came that is.
    let side: PathEnd = sideOf(enteredAt ^ 1);
    let end = enteredAt ^ 1;
    for (let next = partner[end]; next !== null && next !== undefined; next = partner[end]) {
      if (used.has(next >> 1)) {
        if (next >> 1 === first && next === enteredAt) path = closedAtEnds(path);
        break;
      }
      used.add(next >> 1);
      path = joinEnds(path, side, open[next >> 1]!, sideOf(next), within);
      side = 'end';
      end = next ^ 1;
    }
    out.push(path);
  };
  for (let end = 0; end < ends.length; end++) if (partner[end] === null && !used.has(end >> 1)) follow(end);
  for (let end = 0; end < ends.length; end += 2) if (!used.has(end >> 1)) follow(end);
  return [...rest, ...out];
}
