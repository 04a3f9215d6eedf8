import {
  cutAt,
  distance,
  evenSpots,
  extremeSpots,
  inflectionSpots,
  insertAnchors,
  joinEnds,
  mergeAnchors,
  removePath,
  reversePath,
  segmentCount,
  setPath,
  setPaths,
  startAt,
  together,
  type Anchor,
  type Path,
  type PathEnd,
  type Recipe,
  type Shape,
  type Spot,
} from '@mirrot/core';
import { newId } from '$lib/ids';
import { chooseAnchors, chooseShapes, findPath, type AnchorRef } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { byPath } from './shaping';

// What keys and buttons do to chosen anchors and paths, beyond moving and deleting them.

/** The one chosen anchor with its path; null when there is none or more. */
function oneAnchor(desk: Desk): { ref: AnchorRef; shape: Shape; path: Path } | null {
  const [ref, ...more] = desk.choice.anchors;
  const shape = ref && desk.shapeOf(ref.shape);
  const path = shape && findPath(shape, ref.path);
  return ref && shape && path && more.length === 0 ? { ref, shape, path } : null;
}

/** Paths that are worked on: those with chosen anchors or segment, else all of the chosen shapes. */
function chosenPaths(desk: Desk): { shape: string; path: Path }[] {
  const refs = [...desk.choice.anchors, ...(desk.choice.segment ? [desk.choice.segment] : [])];
  const ids = new Set(refs.map((r) => r.path));
  return desk.chosenShapes.flatMap((s) =>
    s.paths.filter((p) => ids.size === 0 || ids.has(p.id)).map((path) => ({ shape: s.id, path })),
  );
}

export const canCut = (desk: Desk): boolean => {
  const held = oneAnchor(desk);
  return (
    held !== null &&
    (held.path.closed || (held.ref.index > 0 && held.ref.index < held.path.anchors.length - 1))
  );
};

/** Cuts the path at the chosen anchor: a closed one opens there, an open one becomes two. */
export function cutHere(desk: Desk): void {
  const held = oneAnchor(desk);
  if (!held || !canCut(desk)) return;
  const parts = cutAt(held.path, held.ref.index, newId());
  desk.change(
    'Cut here',
    setPaths(
      held.shape.id,
      held.shape.paths.flatMap((p) => (p.id === held.path.id ? parts : [p])),
    ),
    { choice: chooseShapes([held.shape.id], 'path') },
  );
}

/** Closed paths begin at the chosen anchor. */
export function startHere(desk: Desk): void {
  const held = oneAnchor(desk);
  if (!held?.path.closed || held.ref.index === 0) return;
  desk.change('Start here', setPath(held.shape.id, startAt(held.path, held.ref.index)), {
    choice: chooseAnchors([{ ...held.ref, index: 0 }]),
  });
}

export function reverseChosen(desk: Desk): void {
  desk.change(
    'Reverse',
    together(...chosenPaths(desk).map(({ shape, path }) => setPath(shape, reversePath(path)))),
    {
      choice: chooseShapes(desk.choice.shapes, desk.choice.level),
    },
  );
}

/** Two chosen anchors next to each other on a path: the index of the first; null otherwise. */
function neighbours(desk: Desk): { shape: string; path: Path; first: number } | null {
  const [group, ...more] = byPath(desk, desk.choice.anchors);
  if (!group || more.length > 0 || group.indices.length !== 2) return null;
  const [a, b] = group.indices.toSorted((x, y) => x - y) as [number, number];
  const n = group.path.anchors.length;
  if (b === a + 1) return { shape: group.shape, path: group.path, first: a };
  return group.path.closed && a === 0 && b === n - 1
    ? { shape: group.shape, path: group.path, first: b }
    : null;
}

export const canMerge = (desk: Desk): boolean => (neighbours(desk)?.path.anchors.length ?? 0) > 2;

/** Makes two chosen neighbours one anchor, halfway. */
export function mergeChosen(desk: Desk): void {
  const two = neighbours(desk);
  if (!two || !canMerge(desk)) return;
  const index = two.first === two.path.anchors.length - 1 ? two.first - 1 : two.first;
  desk.change('Merge the anchors', setPath(two.shape, mergeAnchors(two.path, two.first)), {
    choice: chooseAnchors([{ shape: two.shape, path: two.path.id, index }]),
  });
}

interface End {
  readonly shape: Shape;
  readonly path: Path;
  readonly end: PathEnd;
}

/** Two chosen ends of open paths, or null. */
function twoEnds(desk: Desk): [End, End] | null {
  const ends = desk.choice.anchors.flatMap((ref): End[] => {
    const shape = desk.shapeOf(ref.shape);
    const path = findPath(shape, ref.path);
    if (!shape || !path || path.closed || shape.axis || path.anchors.length < 2) return [];
    if (ref.index === 0) return [{ shape, path, end: 'start' }];
    return ref.index === path.anchors.length - 1 ? [{ shape, path, end: 'end' }] : [];
  });
  return ends.length === 2 && desk.choice.anchors.length === 2 ? (ends as [End, End]) : null;
}

export const canJoin = (desk: Desk): boolean => twoEnds(desk) !== null;

const endOf = ({ path, end }: End): Anchor => path.anchors[end === 'start' ? 0 : path.anchors.length - 1]!;
const movedTo = ({ path, end }: End, x: number, y: number): Path => ({
  ...path,
  anchors: path.anchors.map((a, i) =>
    i === (end === 'start' ? 0 : path.anchors.length - 1) ? { ...a, x, y } : a,
  ),
});

/**
 * Joins two chosen ends, of one path or of two: by a straight segment, or with both ends brought to the middle between
 * them. Ends on one spot become one anchor either way.
 */
export function joinChosen(desk: Desk, how: 'straight' | 'middle'): void {
  const ends = twoEnds(desk);
  if (!ends) return;
  const [one, two] = ends;
  const [a, b] = [endOf(one), endOf(two)];
  const meet = how === 'middle' || distance(a, b) < 1e-6;
  const [x, y] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
  const label = how === 'middle' ? 'Join in the middle' : 'Join the ends';
  if (one.path.id === two.path.id) {
    const { path, shape } = one;
    const n = path.anchors.length;
    if (meet && n < 3)
      return desk.say('A path needs three anchors for its ends to become one. Nothing was changed.', 'bad');
    const closed: Path = meet
      ? {
          ...path,
          closed: true,
          anchors: path.anchors
            .slice(0, -1)
            .map((q, i) => (i === 0 ? { ...q, x, y, in: path.anchors[n - 1]!.in, kind: 'corner' } : q)),
        }
      : { ...path, closed: true };
    desk.change(label, setPath(shape.id, closed), { choice: chooseShapes([shape.id], 'path') });
    return;
  }
  const first = meet ? movedTo(one, x, y) : one.path;
  const second = meet ? movedTo(two, x, y) : two.path;
  const joined = { ...joinEnds(first, one.end, second, two.end), id: one.path.id };
  desk.change(label, together(removePath(two.shape.id, two.path.id), setPath(one.shape.id, joined)), {
    choice: chooseShapes([one.shape.id], 'path'),
  });
}

/** Protects the chosen anchors from being thinned out; frees them when all are. */
export function protectChosen(desk: Desk): void {
  const groups = byPath(desk, desk.choice.anchors);
  const on = !groups.every((g) => g.indices.every((i) => g.path.anchors[i]!.protected));
  desk.change(
    on ? 'Protect the anchors' : 'Free the anchors',
    together(
      ...groups.map(({ shape, path, indices }) =>
        setPath(shape, {
          ...path,
          anchors: path.anchors.map((a, i) => {
            const { protected: _was, ...free } = a;
            return indices.includes(i) ? (on ? { ...free, protected: true as const } : free) : a;
          }),
        }),
      ),
    ),
    { choice: desk.choice },
  );
}

export type SpotKind = 'extremes' | 'inflections';
const SPOTS: Readonly<Record<SpotKind, (path: Path) => Spot[]>> = {
  extremes: extremeSpots,
  inflections: inflectionSpots,
};

/** Adds anchors where the chosen paths are extreme, or change the way they bend. */
export function addAt(desk: Desk, kind: SpotKind): void {
  const grown = chosenPaths(desk).map(({ shape, path }) => ({ shape, path, spots: SPOTS[kind](path) }));
  const count = grown.reduce((n, g) => n + g.spots.length, 0);
  if (count === 0) return desk.say(`Every such place has its anchor already.`);
  desk.change(
    `Add ${count} ${count === 1 ? 'anchor' : 'anchors'}`,
    together(...grown.map((g): Recipe => setPath(g.shape, insertAnchors(g.path, g.spots)))),
    { choice: chooseShapes(desk.choice.shapes, 'path') },
  );
}

/** Parts the chosen segment, or each segment between chosen neighbours, evenly by `count` anchors. */
export function addEvenly(desk: Desk, count: number): void {
  const { segment } = desk.choice;
  const groups = segment
    ? chosenPaths(desk).map(({ shape, path }) => ({ shape, path, segments: [segment.segment] }))
    : byPath(desk, desk.choice.anchors).map(({ shape, path, indices }) => ({
        shape,
        path,
        segments: indices.filter(
          (i) => i < segmentCount(path) && indices.includes((i + 1) % path.anchors.length),
        ),
      }));
  desk.change(
    'Add anchors evenly',
    together(
      ...groups.map((g) =>
        setPath(
          g.shape,
          insertAnchors(
            g.path,
            g.segments.flatMap((s) => evenSpots(g.path, s, count)),
          ),
        ),
      ),
    ),
    { choice: chooseShapes(desk.choice.shapes, 'path') },
  );
}

export type Arrangement = 'level' | 'upright' | 'even-across' | 'even-down';

/** Brings chosen anchors onto one level or upright line (their mean), or evens out the steps between them. */
export function arrange(desk: Desk, how: Arrangement): void {
  const groups = byPath(desk, desk.choice.anchors);
  const all = groups.flatMap((g) =>
    g.indices.map((index) => ({ path: g.path.id, index, a: g.path.anchors[index]! })),
  );
  const axis = how === 'level' || how === 'even-down' ? 'y' : 'x';
  const even = how.startsWith('even');
  if (all.length < (even ? 3 : 2)) return;
  const sorted = all.toSorted((p, q) => p.a[axis] - q.a[axis]);
  const [low, high] = [sorted[0]!.a[axis], sorted.at(-1)!.a[axis]];
  const mean = all.reduce((s, p) => s + p.a[axis], 0) / all.length;
  const to = new Map(
    sorted.map((p, k) => [
      `${p.path} ${p.index}`,
      even ? low + ((high - low) * k) / (sorted.length - 1) : mean,
    ]),
  );
  desk.change(
    even ? 'Even out' : how === 'level' ? 'Align level' : 'Align upright',
    together(
      ...groups.map(({ shape, path }) =>
        setPath(shape, {
          ...path,
          anchors: path.anchors.map((a, i) => ({ ...a, [axis]: to.get(`${path.id} ${i}`) ?? a[axis] })),
        }),
      ),
    ),
    { choice: desk.choice },
  );
}
