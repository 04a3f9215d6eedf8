import { formatPathData } from '../path/data';
import type { Anchor } from '../path/anchor';
import type { Path } from '../path/path';

const data = new WeakMap<readonly Path[], string>();

/** Path data of several paths to a thousandth of a sheet pixel. */
export function drawnData(paths: readonly Path[]): string {
  let d = data.get(paths);
  if (d === undefined) data.set(paths, (d = formatPathData(paths)));
  return d;
}

/** Segments in one run of a long line. */
const RUN = 96;
const runs = new WeakMap<Anchor, { readonly anchors: readonly Anchor[]; readonly d: string }>();

/**
 * The lines of paths in runs, so that a change to a long path redraws where it is and not all of it. Together they are
 * the line, not an outline: for strokes only. Short paths are one run.
 */
export function lineRuns(paths: readonly Path[]): readonly string[] {
  if (paths.every((p) => p.anchors.length <= 2 * RUN)) return [drawnData(paths)];
  return paths.flatMap((path) => {
    const ring = path.closed ? [...path.anchors, path.anchors[0]!] : path.anchors;
    const out: string[] = [];
    for (let from = 0; from + 1 < ring.length; from += RUN) {
      const anchors = ring.slice(from, from + RUN + 1);
      const known = runs.get(anchors[0]!);
      if (known?.anchors.length === anchors.length && known.anchors.every((a, i) => a === anchors[i])) {
        out.push(known.d);
        continue;
      }
      const d = formatPathData([{ id: path.id, closed: false, anchors }]);
      runs.set(anchors[0]!, { anchors, d });
      out.push(d);
    }
    return out;
  });
}
