import {
  cubicPoint,
  findShape,
  flowAll,
  formatLength,
  insertAnchor,
  mapShape,
  moveHandle,
  openSegment,
  pullSegment,
  removeAnchors,
  removePath,
  segmentCount,
  segmentCubic,
  segmentIsLine,
  setAnchorKind,
  setPath,
  setPaths,
  shapesOf,
  snapAngle,
  subtract,
  add,
  together,
  translation,
  type AnchorKind,
  type FlowOptions,
  type Path,
  type Point,
  type Recipe,
} from '@mirrot/core';
import { newId } from '$lib/ids';
import {
  chooseAnchors,
  chooseShapes,
  findPath,
  isAnchorChosen,
  sameAnchor,
  toggledAnchor,
  type AnchorRef,
  type HandleRef,
  type SegmentRef,
} from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import type { BedPointer, Grip } from './behaviour';
import { handleGrip } from './hit';
import { snapAt } from './snapping';

// Grips that shape what is there, whatever step they are used in, and the same changes for keys and buttons.

export const EIGHTH_TURN = Math.PI / 4;

const pathOf = (desk: Desk, ref: { shape: string; path: string }): Path | null =>
  findPath(findShape(desk.art, ref.shape), ref.path);

/** The longer of the two ways, the other coordinate kept. */
export const alongAxis = (d: Point): Point =>
  Math.abs(d.x) >= Math.abs(d.y) ? { x: d.x, y: 0 } : { x: 0, y: d.y };

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

const moved = (path: Path, indices: readonly number[], d: Point): Path => ({
  ...path,
  anchors: path.anchors.map((a, i) => (indices.includes(i) ? { ...a, x: a.x + d.x, y: a.y + d.y } : a)),
});

/** A recipe that moves the named anchors, handles along with them. */
const moveAnchors = (desk: Desk, refs: readonly AnchorRef[], d: Point): Recipe =>
  together(...byPath(desk, refs).map(({ shape, path, indices }) => setPath(shape, moved(path, indices, d))));

/** Moves whole shapes. */
const moveShapes = (desk: Desk, ids: readonly string[], d: Point): Recipe =>
  together(
    ...ids.flatMap((id) => {
      const shape = findShape(desk.art, id);
      return shape ? [mapShape(shape, translation(d.x, d.y))] : [];
    }),
  );

/** A way in words, in the sheet's unit: "12.3 mm, 45.0°", counted anticlockwise from level. */
const lengthAndAngle = (desk: Desk, d: Point): string =>
  `${formatLength(Math.hypot(d.x, d.y), desk.art.sheet.unit)}, ${((-Math.atan2(d.y, d.x) * 180) / Math.PI).toFixed(1)}°`;

/** A grip that shows a recipe for the way dragged and keeps it as one step. */
function dragging(
  desk: Desk,
  label: string,
  start: Point,
  recipe: (d: Point, p: BedPointer) => Recipe,
  focus: ((p: BedPointer) => Point) | null = null,
): Required<Pick<Grip, 'drag' | 'release' | 'cancel'>> {
  const gesture = desk.gesture(label);
  return {
    drag(p) {
      gesture.show(recipe(subtract(p.sheet, start), p));
      desk.focus = focus?.(p) ?? null;
    },
    release() {
      gesture.keep();
      desk.focus = null;
      desk.beside = null;
    },
    cancel() {
      gesture.drop();
      desk.focus = null;
      desk.beside = null;
    },
  };
}

/** Paths that move along with an anchor: its own, and those that share it. */
function movingWith(desk: Desk, refs: readonly AnchorRef[]): string[] {
  const keys = new Set(refs.map((r) => pathOf(desk, r)?.anchors[r.index]?.shared));
  const sharing = shapesOf(desk.art).flatMap(({ shape }) =>
    shape.paths.filter((p) => p.anchors.some((a) => a.shared !== undefined && keys.has(a.shared))),
  );
  return [...refs.map((r) => r.path), ...sharing.map((p) => p.id)];
}

/** Takes an anchor: click chooses it, drag moves it with all that are chosen; a double-click turns its kind. */
export function gripAnchor(desk: Desk, ref: AnchorRef, start: BedPointer): Grip {
  const wasChosen = isAnchorChosen(desk.choice, ref);
  if (start.again) return { click: () => turnKinds(desk, [ref]) };
  if (!wasChosen && !start.shift) desk.choose(chooseAnchors([ref]));
  // What is dragged is settled at the first movement, when the choice is.
  let grip: ReturnType<typeof dragging> | null = null;
  return {
    drag(p) {
      if (!grip) {
        if (!isAnchorChosen(desk.choice, ref)) desk.choose(toggledAnchor(desk.choice, ref));
        const refs = desk.choice.anchors;
        const from = desk;
        const snapshot = byPath(from, refs);
        const at = pathOf(desk, ref)!.anchors[ref.index]!;
        const without = movingWith(desk, refs);
        // One anchor goes to what attracts; several keep to the hand.
        const way = (d: Point, q: BedPointer): Point => {
          if (q.shift) return alongAxis(d);
          desk.taken = refs.length === 1 ? snapAt(desk, add(at, d), { without }) : null;
          if (!desk.taken) desk.beside = { at: add(at, d), text: lengthAndAngle(desk, d) };
          else desk.beside = null;
          return desk.taken ? subtract(desk.taken.at, at) : d;
        };
        grip = dragging(
          desk,
          refs.length > 1 ? `Move ${refs.length} anchors` : 'Move the anchor',
          start.sheet,
          (d, q) =>
            together(
              ...snapshot.map(({ shape, path, indices }) => setPath(shape, moved(path, indices, way(d, q)))),
            ),
          (q) => add(at, way(subtract(q.sheet, start.sheet), q)),
        );
      }
      grip.drag(p);
    },
    release(p) {
      grip?.release(p);
      desk.taken = null;
    },
    cancel() {
      grip?.cancel();
      desk.taken = null;
    },
    click(p) {
      if (p.shift) desk.choose(toggledAnchor(desk.choice, ref));
      else desk.choose(chooseAnchors([ref]));
    },
  };
}

/** Takes a handle: drag turns and stretches it, Shift by 45° steps, Alt or J breaks a smooth anchor. */
export function gripHandle(desk: Desk, ref: HandleRef, start: BedPointer): Grip {
  const path = pathOf(desk, ref)!;
  const anchor = path.anchors[ref.index]!;
  const handle = anchor[ref.side]!;
  const grip = handleGrip(anchor, ref.side, desk.view.scale)!;
  // A handle shorter than its grip moves by as much as the pointer, not to it.
  const end = add(anchor, handle);
  const relative = Math.hypot(grip.x - end.x, grip.y - end.y) > 1e-9;
  let breaking = false;
  desk.choose({ ...desk.choice, handle: ref, segment: null });
  let lastPointer: BedPointer | null = null;
  const inner = dragging(
    desk,
    'Turn the handle',
    start.sheet,
    (d, p) => {
      let vector = add(handle, d);
      if (p.shift) vector = snapAngle(vector, EIGHTH_TURN);
      const reach = (relative ? 1 : 4) / desk.view.scale;
      const to = Math.hypot(vector.x, vector.y) < reach ? anchor : add(anchor, vector);
      desk.beside = { at: p.sheet, text: lengthAndAngle(desk, subtract(to, anchor)) };
      return setPath(ref.shape, moveHandle(path, ref.index, ref.side, to, breaking || p.alt));
    },
    (p) => p.sheet,
  );
  return {
    ...inner,
    drag(p) {
      lastPointer = p;
      inner.drag(p);
    },
    key(key) {
      if (key !== 'j') return false;
      breaking = !breaking;
      if (lastPointer) inner.drag(lastPointer);
      return true;
    },
  };
}

/** Takes a segment: drag pulls it, click chooses its path and it, a double-click adds an anchor there. */
export function gripSegment(
  desk: Desk,
  ref: SegmentRef,
  t: number,
  start: BedPointer,
  onClick?: () => void,
): Grip {
  const path = pathOf(desk, ref)!;
  const at = cubicPoint(segmentCubic(path, ref.segment), t);
  const inner = dragging(
    desk,
    'Pull the segment',
    start.sheet,
    (d, p) =>
      setPath(
        ref.shape,
        pullSegment(path, ref.segment, t, add(at, d), { keepDirections: p.shift, leaveNeighbours: p.alt }),
      ),
    (p) => add(at, subtract(p.sheet, start.sheet)),
  );
  return {
    ...inner,
    drag(p) {
      // While it is drawn, a path's chosen anchors stay out of the way.
      if (!desk.live && !desk.choice.shapes.includes(ref.shape))
        desk.choose({ ...chooseShapes([ref.shape], 'path'), segment: ref });
      inner.drag(p);
    },
    click(p) {
      if (onClick) return onClick();
      if (p.again) return addAnchor(desk, ref, t);
      const ends = [ref.segment, (ref.segment + 1) % path.anchors.length];
      if (p.shift && desk.choice.level === 'path')
        desk.choose({
          ...ends.reduce((c, index) => {
            const end = { shape: ref.shape, path: ref.path, index };
            return isAnchorChosen(c, end) ? c : toggledAnchor(c, end);
          }, desk.choice),
        });
      else desk.choose({ ...chooseShapes([ref.shape], 'path'), segment: ref });
    },
  };
}

/** Takes chosen shapes: drag moves them, Shift along an axis. */
export function gripShapes(
  desk: Desk,
  ids: readonly string[],
  start: BedPointer,
  click: (p: BedPointer) => void,
): Grip {
  const shapes = ids.flatMap((id) => findShape(desk.art, id) ?? []);
  return {
    ...dragging(
      desk,
      ids.length > 1 ? `Move ${ids.length} shapes` : 'Move the shape',
      start.sheet,
      (d, p) => {
        const way = p.shift ? alongAxis(d) : d;
        return together(...shapes.map((s) => mapShape(s, translation(way.x, way.y))));
      },
    ),
    click,
  };
}

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

/** Makes all chosen anchors, or all of the chosen shapes, flowing, but for corners sharper than the desk says. */
export function flowChosen(desk: Desk): void {
  const { anchors } = desk.choice;
  const before = desk.figures.flowing;
  const options = { sharpest: (desk.sharpest * Math.PI) / 180 };
  const recipes =
    anchors.length > 0
      ? byPath(desk, anchors).map((g) => flowed(g.shape, g.path, { ...options, only: g.indices }))
      : desk.receivedShapes.flatMap((s) => s.paths.map((path) => flowed(s.id, path, options)));
  if (!desk.change('Flow all', together(...recipes), { choice: desk.choice }))
    desk.say(`No anchor there can flow: all turn by more than ${desk.sharpest}°, or lie in straight runs.`);
  else desk.say(`${desk.figures.flowing - before} more anchors flow.`, 'good');
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
  if (choice.shapes.length > 0) {
    const names = choice.shapes.length > 1 ? `${choice.shapes.length} shapes` : desk.chosenShapes[0]?.name;
    desk.change(`Delete ${names}`, together(...choice.shapes.map((id) => setPaths(id, []))), {
      choice: chooseShapes([]),
    });
  }
}

/** Moves what is chosen by a way in sheet pixels: a handle, anchors, or shapes. Nudges in a row are one step. */
export function nudge(desk: Desk, d: Point): boolean {
  const { choice } = desk;
  if (choice.handle) {
    const path = pathOf(desk, choice.handle);
    const anchor = path?.anchors[choice.handle.index];
    const h = anchor?.[choice.handle.side];
    if (!path || !anchor || !h) return false;
    const to = add(add(anchor, h), d);
    return desk.change(
      'Nudge the handle',
      setPath(choice.handle.shape, moveHandle(path, choice.handle.index, choice.handle.side, to)),
      { choice },
      'nudge a handle',
    );
  }
  if (choice.anchors.length > 0)
    return desk.change(
      'Nudge',
      moveAnchors(desk, choice.anchors, d),
      { choice },
      `nudge ${JSON.stringify(choice.anchors)}`,
    );
  if (choice.shapes.length > 0)
    return desk.change(
      'Nudge',
      moveShapes(desk, choice.shapes, d),
      { choice },
      `nudge ${choice.shapes.join(' ')}`,
    );
  return false;
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
