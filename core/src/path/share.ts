import FlatQueue from 'flatqueue';
import { boxHas, growBox } from '../geometry/bounds';
import { distance, type Point } from '../geometry/vector';
import { withFittingKind, withoutMark } from './anchor';
import { insertAnchor } from './insert';
import {
  anchorAt,
  nearestOnPath,
  pathBounds,
  reversePath,
  segmentCount,
  type Anchor,
  type Path,
} from './path';

// A border that two shapes share is the same anchors with the same handles in both: they carry one key, and what is
// done to them in one is done in the other. Coordinates are copied, never worked out twice, so no gap is possible.

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

export const spotOf = ({ x, y }: Point): string => `${x} ${y}`;

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

/** The path with keys on the anchors that lie on the named spots. Those stand still from now on. */
export const keyed = (path: Path, keys: ReadonlyMap<string, string>): Path =>
  path.anchors.some((a) => keys.has(spotOf(a)))
    ? {
        ...path,
        anchors: path.anchors.map((a) => {
          const key = keys.get(spotOf(a));
          return key === undefined || a.shared === key ? a : withFittingKind({ ...a, shared: key });
        }),
      }
    : path;

/** Anchors that share no longer flow: their neighbours could not follow. */
export const holdShared = (path: Path): Path =>
  path.anchors.some((a) => a.shared && a.kind === 'flowing')
    ? { ...path, anchors: path.anchors.map((a) => (a.shared ? withFittingKind(a) : a)) }
    : path;

export const shares = (path: Path): boolean => path.anchors.some((a) => a.shared !== undefined);

/** Anchors strictly between two, going on from `a` by `step`; null when `b` is not met. */
function between(path: Path, a: number, b: number, step: 1 | -1): number[] | null {
  const out: number[] = [];
  let i = anchorAt(path, a, step);
  while (i !== null && i !== b) {
    out.push(i);
    if (out.length > path.anchors.length) return null;
    i = anchorAt(path, i, step);
  }
  return i === b ? out : null;
}

const keysOf = (path: Path, run: readonly number[]): string =>
  run.map((i) => path.anchors[i]!.shared ?? '').join(' ');

/** A key for an anchor put in between two that share, the same whoever works it out. */
function newKey(from: string, to: string, at: Point): string {
  // FNV-1a (Fowler, Noll, Vo), twice with different beginnings.
  const text = `${[from, to].sort().join(' ')} ${spotOf(at)}`;
  const hash = (start: number): number => {
    let h = start;
    for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
    return h >>> 0;
  };
  return `b${hash(0x811c9dc5).toString(36)}${hash(0x9e3779b9).toString(36)}`;
}

const sameHandle = (a: Point | null, b: Point | null): boolean =>
  a === b || (a !== null && b !== null && a.x === b.x && a.y === b.y);

const sameAnchor = (a: Anchor, b: Anchor): boolean =>
  a.x === b.x &&
  a.y === b.y &&
  a.kind === b.kind &&
  a.shared === b.shared &&
  sameHandle(a.in, b.in) &&
  sameHandle(a.out, b.out);

/** Runs between anchors that both paths share, as the path has them now and before. */
interface Run {
  readonly from: number;
  readonly to: number;
  readonly inside: readonly number[];
  /** Keys of what was between them, and the handles of its segments, in order. */
  readonly before: string;
  readonly handles: readonly (Point | null)[];
}

/** Handles along a stretch of a path, two to a segment: leaving, then arriving; run backwards when asked. */
const handlesOf = (path: Path, run: readonly number[], back = false): (Point | null)[] =>
  run.slice(1).flatMap((to, k) => {
    const [a, b] = [path.anchors[run[k]!]!, path.anchors[to]!];
    return back ? [a.in, b.out] : [a.out, b.in];
  });

function runsWith(before: Path, after: Path, theirs: ReadonlySet<string>): Run[] {
  const then = new Map(before.anchors.map((a, i) => [a.shared, i]));
  const kept = after.anchors.flatMap((a, i) =>
    a.shared && theirs.has(a.shared) && then.has(a.shared) ? [i] : [],
  );
  const pairs = kept.length < 2 ? [] : kept.map((from, k) => [from, kept[(k + 1) % kept.length]!] as const);
  return pairs.flatMap(([from, to]): Run[] => {
    const inside = between(after, from, to, 1);
    const [a, b] = [then.get(after.anchors[from]!.shared)!, then.get(after.anchors[to]!.shared)!];
    const was = between(before, a, b, 1);
    if (!inside || !was || was.some((i) => before.anchors[i]!.shared === undefined)) return [];
    return [{ from, to, inside, before: keysOf(before, was), handles: handlesOf(before, [a, ...was, b]) }];
  });
}

/**
 * Carries what was done to a path into another one that shares anchors with it: shared anchors take its places; along
 * borders that both have, segment for segment, its handles too, and anchors that it gained or lost there.
 *
 * @returns both paths: what the changed one gained on a shared border has keys now. Paths are themselves where nothing
 *   changed.
 */
export function carryShared(before: Path, after: Path, other: Path): { after: Path; other: Path } {
  const theirs = new Set(other.anchors.flatMap((a) => a.shared ?? []));
  const ours = [...after.anchors];
  const runs = runsWith(before, after, theirs);
  const moved = new Map(after.anchors.flatMap((a) => (a.shared ? [[a.shared, a] as const] : [])));
  let path: Path = {
    ...other,
    anchors: other.anchors.map((a) => {
      const to = a.shared && moved.get(a.shared);
      return to ? { ...a, x: to.x, y: to.y } : a;
    }),
  };
  for (const run of runs) {
    const [a, b] = [after.anchors[run.from]!, after.anchors[run.to]!];
    const at = (key: string): number => path.anchors.findIndex((q) => q.shared === key);
    const [i, j] = [at(a.shared!), at(b.shared!)];
    const on = between(path, i, j, 1);
    const back = between(path, i, j, -1);
    // Two outlines may share both ends and run apart between them: a border is one whose segments are the same.
    const alike = (way: readonly number[] | null, backward: boolean): boolean =>
      way !== null &&
      way.every((k) => path.anchors[k]!.shared) &&
      keysOf(path, way) === run.before &&
      handlesOf(path, [i, ...way, j], backward).every((h, k) => sameHandle(h, run.handles[k]!));
    const forward = alike(on, false);
    const backward = !forward && alike(back, true);
    if (!forward && !backward) continue;
    run.inside.forEach(
      (k) =>
        (ours[k] = ours[k]!.shared
          ? ours[k]!
          : { ...ours[k]!, shared: newKey(a.shared!, b.shared!, ours[k]!) }),
    );
    const inside = run.inside.map((k) => ours[k]!);
    const gone = new Set(forward ? on : back);
    const anchors: Anchor[] = [];
    path.anchors.forEach((q, k) => {
      if (gone.has(k)) return;
      if (forward) {
        const one = k === i ? { ...q, out: a.out } : k === j ? { ...q, in: b.in } : q;
        anchors.push(one);
        if (k === i) anchors.push(...inside);
      } else {
        const one = k === j ? { ...q, out: b.in } : k === i ? { ...q, in: a.out } : q;
        anchors.push(one);
        if (k === j) anchors.push(...[...inside].reverse().map((s) => ({ ...s, in: s.out, out: s.in })));
      }
    });
    path = { ...path, anchors };
  }
  const settled = path.anchors.map(withFittingKind);
  const unchanged =
    settled.length === other.anchors.length && settled.every((a, k) => sameAnchor(a, other.anchors[k]!));
  const grown = ours.some((a, k) => a !== after.anchors[k]);
  return {
    after: grown ? { ...after, anchors: ours } : after,
    other: unchanged ? other : { ...path, anchors: settled },
  };
}

/**
 * A change worked out from how a path was, brought to how it is now: shared anchors that the change left alone keep
 * what a neighbour's change made of them meanwhile.
 */
export function rebaseShared(was: Path, now: Path, next: Path): Path {
  if (was === now || !shares(next)) return next;
  const then = new Map(was.anchors.flatMap((a) => (a.shared ? [[a.shared, a] as const] : [])));
  const current = new Map(now.anchors.flatMap((a) => (a.shared ? [[a.shared, a] as const] : [])));
  return {
    ...next,
    anchors: next.anchors.map((a) => {
      const old = a.shared && then.get(a.shared);
      const held = a.shared && current.get(a.shared);
      return old && held && sameAnchor(old, a) ? held : a;
    }),
  };
}

/** The path with the keys of the named anchors taken off: they go their own way from now on. */
export const partAnchors = (path: Path, indices: readonly number[]): Path => ({
  ...path,
  anchors: path.anchors.map((a, i) => (indices.includes(i) ? withoutMark(a, 'shared') : a)),
});
