import {
  findNode,
  findShape,
  flowAll,
  insertAnchor,
  moveHandle,
  openSegment,
  removeAnchors,
  removeNodes,
  removePath,
  segmentCount,
  segmentIsLine,
  setAnchorKind,
  setPath,
  setPaths,
  shapesOf,
  together,
  type AnchorKind,
  type FlowOptions,
  type Path,
  type Point,
  type Recipe,
  toRadians,
} from '@mirrot/core';
import { newId } from '$lib/ids';
import {
  chooseAnchors,
  chooseShapes,
  chosenNodes,
  findPath,
  isAnchorChosen,
  sameAnchor,
  type AnchorRef,
  type SegmentRef,
} from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';

// What keys and buttons do to what is chosen; grips do the same by hand.

export const pathOf = (desk: Desk, ref: { shape: string; path: string }): Path | null =>
  findPath(findShape(desk.art, ref.shape), ref.path);

/** Chosen anchors by path. */
export function byPath(
  desk: Desk,
  refs: readonly AnchorRef[],
): { shape: string; path: Path; indices: number[] }[] {
  const groups = new Map<string, { shape: string; path: Path; indices: number[] }>();
  for (const ref of refs) {
    const path = pathOf(desk, ref);
    if (!path) continue;
    const group = groups.get(ref.path) ?? { shape: ref.shape, path, indices: [] };
    group.indices.push(ref.index);
    groups.set(ref.path, group);
  }
  return [...groups.values()];
}

export const moved = (path: Path, indices: readonly number[], d: Point): Path => ({
  ...path,
  anchors: path.anchors.map((a, i) => (indices.includes(i) ? { ...a, x: a.x + d.x, y: a.y + d.y } : a)),
});

/** Adds an anchor where the segment is, without changing the line, and chooses it. */
export function addAnchor(desk: Desk, ref: SegmentRef, t: number): void {
  const path = pathOf(desk, ref);
  if (!path || ref.segment >= segmentCount(path)) return;
  const added = { shape: ref.shape, path: ref.path, index: ref.segment + 1 };
  desk.change('Add an anchor', setPath(ref.shape, insertAnchor(path, ref.segment, t)), {
    choice: chooseAnchors([added]),
  });
}

/** Corner to smooth and back; several become all smooth unless all are. */
export function turnKinds(desk: Desk, refs: readonly AnchorRef[] = desk.choice.anchors): void {
  const groups = byPath(desk, refs);
  const all = groups.flatMap(({ path, indices }) => indices.map((i) => path.anchors[i]!));
  if (all.length === 0) return;
  const kind: AnchorKind = all.every((a) => a.kind === 'smooth') ? 'corner' : 'smooth';
  const choice =
    refs.length === 1 && !isAnchorChosen(desk.choice, refs[0]!) ? chooseAnchors(refs) : desk.choice;
  desk.change(
    kind === 'smooth' ? 'Make smooth' : 'Make a corner',
    together(
      ...groups.map(({ shape, path, indices }) =>
        setPath(
          shape,
          indices.reduce((p, i) => setAnchorKind(p, i, kind), path),
        ),
      ),
    ),
    { choice },
  );
}

/** Makes chosen anchors flowing; those that flow already become smooth where they stand. */
export function flowKinds(desk: Desk): void {
  const groups = byPath(desk, desk.choice.anchors);
  const all = groups.flatMap(({ path, indices }) => indices.map((i) => path.anchors[i]!));
  if (all.length === 0) return;
  const kind: AnchorKind = all.every((a) => a.kind === 'flowing') ? 'smooth' : 'flowing';
  desk.change(
    kind === 'flowing' ? 'Make flowing' : 'Make smooth',
    together(
      ...groups.map(({ shape, path, indices }) =>
        setPath(shape, {
          ...path,
          anchors: path.anchors.map((a, i) => (indices.includes(i) ? { ...a, kind } : a)),
        }),
      ),
    ),
    { choice: desk.choice },
  );
}

/** A recipe that makes a path flow; one that does nothing where nothing can. */
const flowed = (shape: string, path: Path, options: FlowOptions): Recipe => {
  const next = flowAll(path, options);
  return next === path ? together() : setPath(shape, next);
};

const flowingIn = (desk: Desk): number =>
  shapesOf(desk.art)
    .flatMap(({ shape }) => shape.paths)
    .reduce((n, path) => n + path.anchors.filter((a) => a.kind === 'flowing').length, 0);

/** Makes all chosen anchors, or all of the chosen shapes, flowing, but for corners sharper than the desk says. */
export function flowChosen(desk: Desk): void {
  const { anchors } = desk.choice;
  const before = flowingIn(desk);
  const options = { sharpest: toRadians(desk.habits.sharpest) };
  const recipes =
    anchors.length > 0
      ? byPath(desk, anchors).map((g) => flowed(g.shape, g.path, { ...options, only: g.indices }))
      : desk.choosing.receivedShapes.flatMap((s) => s.paths.map((path) => flowed(s.id, path, options)));
  if (!desk.change('Flow all', together(...recipes), { choice: desk.choice }))
    desk.say(
      `No anchor there can flow: all turn by more than ${desk.habits.sharpest}°, or lie in straight runs.`,
    );
  else desk.say(`${flowingIn(desk) - before} more anchors flow.`, 'good');
}

/** Deletes what is chosen: a handle, anchors (the neighbours are refitted), a segment (the path opens), shapes. */
export function deleteChosen(desk: Desk): void {
  const { choice } = desk;
  if (choice.handle) {
    const path = pathOf(desk, choice.handle);
    const anchor = path?.anchors[choice.handle.index];
    if (path && anchor)
      desk.change(
        'Remove the handle',
        setPath(choice.handle.shape, moveHandle(path, choice.handle.index, choice.handle.side, anchor)),
        {
          choice: { ...choice, handle: null },
        },
      );
    return;
  }
  if (choice.anchors.length > 0) {
    const recipes = byPath(desk, choice.anchors).map(({ shape, path, indices }): Recipe => {
      const left = removeAnchors(path, indices);
      return left ? setPath(shape, left) : removePath(shape, path.id);
    });
    desk.change(
      choice.anchors.length > 1 ? `Remove ${choice.anchors.length} anchors` : 'Remove the anchor',
      together(...recipes),
      {
        choice: chooseShapes(choice.shapes, 'path'),
      },
    );
    return;
  }
  if (choice.segment) {
    const { shape, segment } = choice.segment;
    const path = pathOf(desk, choice.segment);
    const owner = findShape(desk.art, shape);
    if (!path || !owner) return;
    const left = openSegment(path, segment, newId());
    desk.change(
      'Open the segment',
      setPaths(
        shape,
        owner.paths.flatMap((p) => (p.id === path.id ? left : [p])),
      ),
      {
        choice: chooseShapes(choice.shapes, 'path'),
      },
    );
    return;
  }
  const chosen = chosenNodes(choice, desk.art);
  if (chosen.length > 0) {
    const names = chosen.length > 1 ? `${chosen.length} shapes` : findNode(desk.art, chosen[0]!)?.node.name;
    desk.change(`Delete ${names}`, removeNodes(chosen), { choice: chooseShapes([]) });
  }
}

/** Adds an anchor in the middle of the chosen segment, or of each segment between two chosen neighbours. */
export function addInMiddle(desk: Desk): void {
  const { choice } = desk;
  if (choice.segment) return addAnchor(desk, choice.segment, 0.5);
  const groups = byPath(desk, choice.anchors);
  const added: AnchorRef[] = [];
  const recipes = groups.map(({ shape, path, indices }): Recipe => {
    let next = path;
    const segments = indices
      .filter((i) => i < segmentCount(path) && indices.includes((i + 1) % path.anchors.length))
      .sort((a, b) => b - a);
    for (const s of segments) next = insertAnchor(next, s, 0.5);
    segments.reverse().forEach((s, k) => added.push({ shape, path: path.id, index: s + 1 + k }));
    return setPath(shape, next);
  });
  if (added.length > 0) desk.change('Add anchors', together(...recipes), { choice: chooseAnchors(added) });
}

export const canAddInMiddle = (desk: Desk): boolean => {
  if (desk.choice.segment) return true;
  return desk.choice.anchors.some((a) =>
    desk.choice.anchors.some(
      (b) => !sameAnchor(a, b) && a.path === b.path && Math.abs(a.index - b.index) === 1,
    ),
  );
};

/** Makes the chosen segments straight by taking their handles out. */
export function straighten(desk: Desk): void {
  const { segment } = desk.choice;
  const path = segment && pathOf(desk, segment);
  if (!segment || !path || segmentIsLine(path, segment.segment)) return;
  const last = (segment.segment + 1) % path.anchors.length;
  const anchors = path.anchors.map((a, i) => ({
    ...a,
    out: i === segment.segment ? null : a.out,
    in: i === last ? null : a.in,
  }));
  desk.change('Straighten', setPath(segment.shape, { ...path, anchors }));
}

/** Closes open chosen paths with a straight segment, or opens closed ones at their last segment. */
export function closeOrOpen(desk: Desk): void {
  const open = desk.chosenShapes.flatMap((s) =>
    s.paths.filter((p) => !p.closed && p.anchors.length > 1).map((p) => [s.id, p] as const),
  );
  if (open.length > 0) {
    desk.change('Close the path', together(...open.map(([id, p]) => setPath(id, { ...p, closed: true }))));
    return;
  }
  const closed = desk.chosenShapes.map((s) => [s, s.paths[0]!] as const);
  desk.change(
    'Open the path',
    together(
      ...closed.map(([s, p]) =>
        setPaths(
          s.id,
          s.paths.flatMap((q) => (q.id === p.id ? openSegment(q, segmentCount(q) - 1, newId()) : [q])),
        ),
      ),
    ),
  );
}

/** Segments between chosen neighbours, or the one chosen; null for all of the path. */
export function segmentsOf(desk: Desk, path: Path): number[] | null {
  const { segment, anchors } = desk.choice;
  if (segment) return segment.path === path.id ? [segment.segment] : [];
  if (anchors.length < 2) return null;
  const group = byPath(desk, anchors).find((g) => g.path.id === path.id);
  return (group?.indices ?? []).filter(
    (i) => i < segmentCount(path) && group!.indices.includes((i + 1) % path.anchors.length),
  );
}
