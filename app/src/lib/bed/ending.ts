import {
  findShape,
  joinEnds,
  negate,
  removeNodes,
  removePath,
  reversePath,
  scale as scaled,
  setPath,
  snapAngle,
  styleShapes,
  subtract,
  together,
  unit,
  length,
  wholePaths,
  withAnchor,
  type Anchor,
  type Path,
  type Recipe,
} from '@mirrot/core';
import { chooseShapes, findPath, NOTHING_CHOSEN } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import type { ReachOffer } from '$lib/desk/reaching.svelte';
import type { BedPointer, Grip } from './behaviour';
import { EIGHTH_TURN } from './grips';
import type { BlockInTarget } from './block-in-target';
import { reachedPath } from './reaching';

/** Inks are chosen anew when a path ends. */
function chooseInk(desk: Desk, shapeId: string): void {
  const shape = findShape(desk.art, shapeId);
  if (shape) desk.picture.inks.choose(shape, desk.picture.traced);
}

/** Ends the path being drawn and keeps it, open. */
export function endPath(desk: Desk): void {
  const { live } = desk;
  if (!live) return;
  const shape = desk.shapeOf(live.shape);
  // Half an outline about an axis is a whole one: it gets its fill as if it had been closed.
  const whole = shape?.axis && shape.fill === null && wholePaths(shape).every((p) => p.closed);
  const fill = whole ? desk.colouring.nextFill : null;
  desk.endLive(styleShapes(fill ? [live.shape] : [], { fill }));
  chooseInk(desk, live.shape);
}

/** Closing: a click closes the path, a drag shapes the closing curve by the first anchor's arriving handle. */
export function gripClosing(desk: Desk, start: BedPointer, reached: ReachOffer | null = null): Grip {
  const { shape } = desk.live!;
  const path = desk.livePath!;
  const first = path.anchors[0]!;
  const gesture = desk.gesture('Close the path');
  const closed = (anchor: Anchor): Path => ({ ...withAnchor(path, 0, anchor), closed: true });
  const fill = desk.colouring.nextFill;
  const close = (whole: Path): Recipe =>
    together(setPath(shape, whole), (draft) => {
      const made = findShape(draft as never, shape) as { fill: unknown } | null;
      if (made && made.fill === null && fill) made.fill = fill;
    });
  const shaped = (p: BedPointer): Anchor => {
    let way = subtract(p.sheet, start.sheet);
    if (p.shift) way = snapAngle(way, EIGHTH_TURN);
    const handle = negate(way);
    if (p.alt || !first.out) return { ...first, kind: first.out ? 'corner' : first.kind, in: handle };
    // The leaving handle stays where it is: the arriving one keeps in line with it and takes the length pulled.
    const line = unit(first.out);
    return first.kind === 'smooth' && line
      ? { ...first, in: scaled(line, -length(way)) }
      : { ...first, in: handle };
  };
  const end = (): void => {
    const before = desk.live!;
    gesture.keep({ live: null, choice: NOTHING_CHOSEN });
    desk.choosing.justEnded = before.shape;
    chooseInk(desk, before.shape);
  };
  return {
    drag: (p) => gesture.show(close(closed(desk.habits.straightOnly ? first : shaped(p)))),
    release: end,
    click() {
      gesture.show(close(reached ? reachedPath(path, reached, true) : closed(first)));
      end();
    },
    cancel: () => gesture.drop(),
  };
}

/** Enter drops the path just begun and goes on with the one whose end was pressed. */
export function offerGoOn(desk: Desk, target: Extract<BlockInTarget, { kind: 'end' }>): void {
  const begun = desk.live!;
  const other = findPath(findShape(desk.art, target.ref.shape), target.ref.path);
  if (!other) return;
  const onward = target.end === 'end' ? other : reversePath(other);
  desk.makeOffer({
    text: 'Enter goes on from this end',
    label: 'Go on from the end',
    recipe: together(removeNodes([begun.shape]), setPath(target.ref.shape, onward)),
    after: { live: { shape: target.ref.shape, path: other.id } },
  });
}

/** The live path ends on another's end; Enter makes one path of the two. */
export function offerJoin(desk: Desk, target: Extract<BlockInTarget, { kind: 'end' }>): void {
  const { shape } = desk.live!;
  const path = desk.livePath!;
  const other = findPath(desk.shapeOf(target.ref.shape), target.ref.path);
  endPath(desk);
  if (!other) return;
  const joined = { ...joinEnds(path, 'end', other, target.end), id: path.id };
  desk.makeOffer({
    text: 'Enter joins the two paths',
    label: 'Join the paths',
    recipe: together(removePath(target.ref.shape, other.id), setPath(shape, joined)),
    after: { choice: chooseShapes([shape], 'path') },
    taken: () => (desk.choosing.justEnded = shape),
  });
}

/** Closes the live path as a click on its first anchor would. */
export function closeLive(desk: Desk): void {
  if (!desk.live || (desk.livePath?.anchors.length ?? 0) < 2) return;
  const at = desk.livePath!.anchors[0]!;
  const p: BedPointer = {
    screen: at,
    sheet: at,
    shift: false,
    alt: false,
    type: 'mouse',
    time: 0,
    again: false,
  };
  gripClosing(desk, p).click?.(p);
}
