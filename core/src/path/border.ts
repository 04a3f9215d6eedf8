import FlatQueue from 'flatqueue';
import { boxHas, growBox } from '../geometry/bounds';
import { distance, type Point } from '../geometry/vector';
import { withFittingKind, type Anchor } from './anchor';
import { insertAnchor } from './insert';
import { segmentCount, type Path } from './path';
import { reversePath } from './path-map';
import { nearestOnPath, pathBounds } from './path-measure';
import { spotOf } from './shared-anchors';

// A border that two shapes share is the same anchors with the same handles in both. Coordinates are copied, never worked
// out twice, so no gap is possible.

/** A path with the shape it belongs to. */
export interface PathOf {
  readonly shape: string;
  readonly path: Path;
}

/** A way along existing outlines, first anchor to last; each has the handles of the segments beside it on the way. */
export interface Border {
  readonly anchors: readonly Anchor[];
  readonly length: number;
  /** The segments it runs along, named by their ends, whichever way. */
  readonly edges: ReadonlySet<string>;
}

/** What lies between two points: the outlines with anchors added there where they had none, and the ways, shortest first. */
export interface Borders {
  readonly added: readonly PathOf[];
  readonly ways: readonly Border[];
}

/** The path with an anchor exactly at `p`, where its line runs through there within `within`; null where it does not. */
function withAnchorAt(path: Path, p: Point, within: number): Path | null {
  if (!boxHas(growBox(pathBounds(path), within), p)) return null;
  const n = nearestOnPath(path, p);
  if (!n || n.distance > within) return null;
  if (n.t <= 1e-9 || n.t >= 1 - 1e-9) return null;
  const grown = insertAnchor(path, n.segment, n.t);
  return {
    ...grown,
    anchors: grown.anchors.map((a, i) => (i === n.segment + 1 ? { ...a, x: p.x, y: p.y } : a)),
  };
}

interface Edge {
  readonly to: string;
  readonly from: Anchor;
  readonly end: Anchor;
  readonly length: number;
  readonly name: string;
}

/** About how long a segment is: between its chord and its handles' way round (enough to tell ways apart). */
function roughLength(a: Anchor, b: Anchor): number {
  const chord = distance(a, b);
  if (!a.out && !b.in) return chord;
  const [p, q] = [a.out ?? { x: 0, y: 0 }, b.in ?? { x: 0, y: 0 }];
  const between = Math.hypot(b.x + q.x - a.x - p.x, b.y + q.y - a.y - p.y);
  return (chord + Math.hypot(p.x, p.y) + between + Math.hypot(q.x, q.y)) / 2;
}

/** Segments as a graph of the spots their anchors lie on. */
function graphOf(paths: readonly PathOf[]): Map<string, Edge[]> {
  const graph = new Map<string, Edge[]>();
  const put = (at: string, edge: Edge): void => {
    const list = graph.get(at);
    if (list) list.push(edge);
    else graph.set(at, [edge]);
  };
  for (const { path } of paths) {
    const back = reversePath(path);
    const n = path.anchors.length;
    for (let i = 0; i < segmentCount(path); i++) {
      const j = (i + 1) % n;
      const [a, b] = [path.anchors[i]!, path.anchors[j]!];
      const [from, to] = [spotOf(a), spotOf(b)];
      if (from === to) continue;
      const length = roughLength(a, b);
      // Two outlines that share a border give the same segment twice: it has one name.
      const handles = [a.out, b.in].map((h) => (h ? spotOf(h) : '-'));
      const name =
        from < to ? `${from} ${to} ${handles.join(' ')}` : `${to} ${from} ${handles.reverse().join(' ')}`;
      put(from, { to, from: a, end: b, length, name });
      put(to, { to: from, from: back.anchors[n - 1 - j]!, end: back.anchors[n - 1 - i]!, length, name });
    }
  }
  return graph;
}

/** The shortest way (Dijkstra 1959) that uses none of the segments left out; null where there is none. */
function shortest(
  graph: ReadonlyMap<string, readonly Edge[]>,
  from: string,
  to: string,
  without: ReadonlySet<string>,
): Border | null {
  const reached = new Map<string, { length: number; by: Edge | null; before: string | null }>();
  const queue = new FlatQueue<string>();
  reached.set(from, { length: 0, by: null, before: null });
  queue.push(from, 0);
  const done = new Set<string>();
  for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
    if (done.has(at)) continue;
    done.add(at);
    if (at === to) break;
    for (const edge of graph.get(at) ?? []) {
      if (without.has(edge.name)) continue;
      const length = reached.get(at)!.length + edge.length;
      if (length >= (reached.get(edge.to)?.length ?? Infinity)) continue;
      reached.set(edge.to, { length, by: edge, before: at });
      queue.push(edge.to, length);
    }
  }
  const end = reached.get(to);
  if (!end?.by) return null;
  const edges: Edge[] = [];
  for (let at = to; at !== from; at = reached.get(at)!.before!) edges.unshift(reached.get(at)!.by!);
  const anchors = edges.map((e, i): Anchor => ({
    ...e.from,
    in: i === 0 ? null : edges[i - 1]!.end.in,
    out: e.from.out,
  }));
  anchors.push({ ...edges.at(-1)!.end, out: null });
  return { anchors, length: end.length, edges: new Set(edges.map((e) => e.name)) };
}

/**
 * Ways along existing outlines from one point to another: the shortest, and the shortest that uses none of its
 * segments (round a single closed neighbour, the other way round). The ways may run over several neighbours whose
 * anchors lie on exactly the same spots.
 *
 * @param within how far off a line may run to count as running through an end, in the paths' unit
 * @returns null when either point lies on no outline or they are one, or nothing joins them
 */
export function bordersBetween(
  paths: readonly PathOf[],
  from: Point,
  to: Point,
  within: number,
): Borders | null {
  if (distance(from, to) <= within) return null;
  const grown = new Map<string, PathOf>();
  const now = paths.map((p) => {
    let { path } = p;
    for (const end of [from, to]) {
      if (path.anchors.some((a) => a.x === end.x && a.y === end.y)) continue;
      path = withAnchorAt(path, end, within) ?? path;
    }
    if (path === p.path) return p;
    const next = { shape: p.shape, path };
    grown.set(path.id, next);
    return next;
  });
  const graph = graphOf(now);
  const first = shortest(graph, spotOf(from), spotOf(to), new Set());
  if (!first) return null;
  const second = shortest(graph, spotOf(from), spotOf(to), first.edges);
  return { added: [...grown.values()], ways: second ? [first, second] : [first] };
}

/** The open path closed along a border that runs from its last anchor to its first. */
export function closeAlong(path: Path, border: Border): Path {
  const n = path.anchors.length;
  const between = border.anchors.slice(1, -1).map(withFittingKind);
  const anchors = path.anchors.map((a, i): Anchor => {
    if (i > 0 && i < n - 1) return a;
    const out = i === n - 1 ? border.anchors[0]!.out : a.out;
    const arriving = i === 0 ? border.anchors.at(-1)!.in : a.in;
    return withFittingKind({ ...a, in: arriving, out });
  });
  return { ...path, closed: true, anchors: [...anchors, ...between] };
}
