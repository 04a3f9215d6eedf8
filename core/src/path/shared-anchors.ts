import type { Point } from '../geometry/vector';
import { withFittingKind, withoutMark, type Anchor } from './anchor';
import { anchorAt, type Path } from './path';

// Anchors that carry one key are the same anchor in the outlines of several shapes: what is done to one is done to all.

/** A name for a place: two anchors lie on one spot where their coordinates are the same. */
export const spotOf = ({ x, y }: Point): string => `${x} ${y}`;

/** The path with keys on the anchors that lie on the named spots. Those stand still from now on. */
export const withKeys = (path: Path, keys: ReadonlyMap<string, string>): Path =>
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
