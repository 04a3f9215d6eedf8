import {
  add,
  addNode,
  closePath,
  corner,
  distance,
  extendPath,
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
  tangentAt,
  together,
  unit,
  length,
  wholePaths,
  withAnchor,
  withHandle,
  type Anchor,
  type Path,
  type Point,
  type Recipe,
  type Snapped,
} from '@mirrot/core';
import { chooseShapes, findPath, NOTHING_CHOSEN, type AnchorRef } from '$lib/desk/choice';
import { newId } from '$lib/ids';
import type { Desk, Live } from '$lib/desk/desk.svelte';
import type { ReachAsk, ReachOffer } from '$lib/desk/reaching.svelte';
import type { BedPointer, Grip } from './behaviour';
import { offerBorder } from './border';
import { gripForm, gripRadius, radiusGripAt } from './forms';
import { gripGuide, guideAt } from './guides';
import { isNear, goesBeforeEdge, reachAsk, reachedAt, reaches } from './reaching';
import { fieldOf, hitAnchor, hitEnd, hitSegment, hitTest, type HitField } from './hit';
import { layerToDrawOn, newShape } from './new-shape';
import { gripInPart } from './parts';
import { EIGHTH_TURN, gripAnchor, gripHandle, gripSegment } from './grips';
import { snapAt } from './snapping';

/** Two clicks nearer than this while drawing make one anchor. */
const SAME_SPOT = 2;

/** What a press would do while blocking in; shown before it is made. */
export type BlockInTarget =
  | {
      readonly kind: 'add';
      readonly at: Point;
      readonly snap: Snapped | null;
      /** The segment that a click takes, lying on the picture's edge. */
      readonly reached: ReachOffer | null;
    }
  | { readonly kind: 'close'; readonly at: Point; readonly reached: ReachOffer | null }
  | { readonly kind: 'last'; readonly at: Point }
  | { readonly kind: 'own-anchor'; readonly ref: AnchorRef; readonly at: Point }
  | { readonly kind: 'own-segment'; readonly ref: AnchorRef; readonly t: number; readonly at: Point }
  | { readonly kind: 'end'; readonly ref: AnchorRef; readonly end: 'start' | 'end'; readonly at: Point };

/**
 * DESIGN's table: what lies under the pointer decides.
 *
 * @param offered whether the segment offered on the picture's edge counts
 */
export function blockInTarget(desk: Desk, p: BedPointer, offered = true): BlockInTarget {
  const field = fieldOf(desk, p);
  const { live, livePath } = desk;
  if (desk.fresh || desk.held.has('t'))
    return adding(desk, p, desk.fresh ? null : (livePath ?? null), offered);
  if (live && livePath) {
    const own: HitField = {
      ...field,
      shapes: field.shapes
        .filter((s) => s.id === live.shape)
        .map((s) => ({ ...s, paths: [livePath], axis: undefined })),
    };
    const anchor = hitAnchor(own, p.sheet);
    const last = livePath.anchors.length - 1;
    // On a short path first and last may both be in reach: closing needs two anchors, and the nearer one wins.
    if (anchor) {
      const { index } = anchor.ref;
      if (index === last) return { kind: 'last', at: anchor.at };
      if (index === 0) {
        const reached = offered ? reachedAt(desk, p, livePath) : null;
        return { kind: 'close', at: anchor.at, reached: isAt(reached, anchor.at) ? reached : null };
      }
      return { kind: 'own-anchor', ref: anchor.ref, at: anchor.at };
    }
    const end = hitEnd(field, p.sheet, live.path);
    if (end) return { kind: 'end', ...end };
    const segment = hitSegment(own, p.sheet);
    if (segment && segment.ref.segment === last - 1)
      return { kind: 'own-segment', ref: { ...segment.ref, index: last - 1 }, t: segment.t, at: segment.at };
    return adding(desk, p, livePath, offered);
  }
  const end = hitEnd(field, p.sheet, null);
  return end ? { kind: 'end', ...end } : adding(desk, p, null, offered);
}

/** Where an anchor goes that is added at the pointer: with Shift in 45° steps from the last, else to what attracts. */
function adding(
  desk: Desk,
  p: BedPointer,
  after: Path | null,
  offered = true,
): Extract<BlockInTarget, { kind: 'add' }> {
  const last = after?.anchors.at(-1);
  if (p.shift && last)
    return {
      kind: 'add',
      at: add(last, snapAngle(subtract(p.sheet, last), EIGHTH_TURN)),
      snap: null,
      reached: null,
    };
  const snap = snapAt(desk, p.sheet, { after, without: after ? [after.id] : [] });
  const reached = offered ? reachedAt(desk, p, after) : null;
  const first = goesBeforeEdge(snap) ? snap : null;
  if (reached && (first ? isAt(reached, first.at) : reached.to === null))
    return { kind: 'add', at: reached.at, snap: first, reached };
  return { kind: 'add', at: snap?.at ?? p.sheet, snap, reached: null };
}

/** Whether an offer was made to end at a given place. */
const isAt = (reached: ReachOffer | null, at: Point): boolean =>
  !!reached?.to && distance(reached.to, at) < 1e-9;

/** What is asked for at the pointer: the next segment on the picture's edge, up to what a press would make. */
export function askReach(desk: Desk, p: BedPointer, hints = 0): ReachAsk | null {
  if (!reaches(desk) || p.shift) return null;
  const after = desk.fresh ? null : desk.livePath;
  const target = blockInTarget(desk, p, false);
  if (target.kind === 'add') {
    const to = after && goesBeforeEdge(target.snap) ? { at: target.snap!.at, arrive: null } : null;
    return !after && goesBeforeEdge(target.snap) ? null : reachAsk(desk, p.sheet, after, to, hints);
  }
  if (target.kind !== 'close' || !after || after.anchors.length < 2) return null;
  const first = after.anchors[0]!;
  const way = first.kind === 'smooth' ? tangentAt(after, 0, 'out') : null;
  return reachAsk(desk, p.sheet, after, { at: first, arrive: way && negate(way) }, 0);
}

/** Whether this anchor's leaving handle shapes the next segment; O turns it once. */
function carries(desk: Desk): boolean {
  return desk.carry !== desk.carryOnce;
}

/** The anchor as a drag shapes it: handles pulled out, Alt or J turning only the leaving one. */
function pulledOut(base: Anchor, way: Point, frozenIn: Point | null | undefined): Anchor {
  if (way.x === 0 && way.y === 0) return base;
  if (frozenIn !== undefined) return { ...base, kind: 'corner', in: frozenIn, out: way };
  return { ...base, kind: 'smooth', in: negate(way), out: way };
}

/** A path with the segment offered at its end. */
const reachedPath = (path: Path, { cubic, straight, corner: turns }: ReachOffer): Path =>
  extendPath(path, { cubic: cubic!, straight }, turns ? 'corner' : 'smooth');

/** Grip of a new anchor: it is there at once; a drag pulls its handles out. The first one starts a path. */
function gripNewAnchor(desk: Desk, at: Point, reached: ReachOffer | null = null): Grip | null {
  const first = desk.live === null;
  const layer = first ? layerToDrawOn(desk) : null;
  if (first && !layer) return null;
  const { straightOnly } = desk.habits;
  const bare: Anchor = {
    ...corner(at.x, at.y),
    kind: desk.flowingClicks && !straightOnly ? 'flowing' : reached && !reached.corner ? 'smooth' : 'corner',
  };
  const made = first ? newShape(desk, 'Shape', { id: 'path', closed: false, anchors: [bare] }) : null;
  const label = first ? 'Start a path' : 'Add an anchor';
  const row = `anchor ${newId()}`;
  const gesture = desk.gesture(label, row);
  const live: Live = made ? { shape: made.id, path: made.paths[0]!.id } : desk.live!;
  const before = made ? made.paths[0]! : desk.livePath!;
  const recipe = (anchor: Anchor): Recipe =>
    made
      ? addNode(layer!, { ...made, paths: [withAnchor(before, 0, anchor)] })
      : setPath(live.shape, { ...before, anchors: [...before.anchors, anchor] });
  /** What a click takes; a drag overrules it. */
  const onto = (offer: ReachOffer): Recipe | null => {
    if (offer.cubic) return setPath(live.shape, reachedPath(before, offer));
    const begun: Anchor = { ...bare, ...offer.at, kind: offer.corner ? 'corner' : 'smooth' };
    return made && setPath(live.shape, { ...before, anchors: [begun] });
  };
  const onEdge = made || !reached ? null : onto(reached);
  const late = reached || !reaches(desk) ? null : desk.reaching.latest;
  let frozenIn: Point | null | undefined;
  let breaking = false;
  let anchor: Anchor = bare;
  let lastPointer: BedPointer | null = null;
  const show = (): void => gesture.show(recipe(anchor));
  const shapeTo = (p: BedPointer): void => {
    lastPointer = p;
    if (straightOnly) {
      // No handles: the anchor itself goes along until it is let go.
      const placed = adding(desk, p, made ? null : before);
      desk.taken = placed.snap;
      anchor = { ...bare, x: placed.at.x, y: placed.at.y };
      desk.focus = placed.at;
      return show();
    }
    let way = subtract(p.sheet, at);
    if (p.shift) way = snapAngle(way, EIGHTH_TURN);
    const broken = breaking || p.alt;
    if (broken && frozenIn === undefined) frozenIn = anchor.in;
    if (!broken) frozenIn = undefined;
    anchor = pulledOut(bare, way, frozenIn);
    show();
    desk.focus = p.sheet;
  };
  if (onEdge) gesture.show(onEdge);
  else show();
  desk.live = live;
  desk.fresh = false;
  if (made) {
    desk.choice = NOTHING_CHOSEN;
    desk.inks.choose(made, desk.traced);
  }
  const finish = (): void => {
    gesture.keep({ live });
    desk.carryOnce = false;
    desk.focus = null;
    desk.taken = null;
    offerBorder(desk);
  };
  return {
    drag: shapeTo,
    release(p) {
      shapeTo(p);
      // With Carry off the next segment starts straight; the anchor stays smooth and grows a handle when pulled.
      if (!carries(desk) && anchor.kind === 'smooth') {
        anchor = { ...anchor, out: null };
        show();
      }
      finish();
    },
    click() {
      finish();
      const plain = desk.livePath;
      // A click quicker than the offer takes it when it comes, if nothing has happened since.
      void late?.then((offer) => {
        const meant = offer?.after === (made ? null : before) && desk.livePath === plain;
        const taken = meant && isNear(desk, offer, at) ? onto(offer) : null;
        if (taken) desk.change(label, taken, { live }, row);
      });
    },
    cancel() {
      gesture.drop();
      desk.focus = null;
      desk.taken = null;
    },
    key(key) {
      if (key === 'o') {
        desk.carryOnce = !desk.carryOnce;
        return true;
      }
      if (key !== 'j') return false;
      breaking = !breaking;
      if (lastPointer) shapeTo(lastPointer);
      return true;
    },
  };
}

/** Inks are chosen anew when a path ends. */
function chooseInk(desk: Desk, shapeId: string): void {
  const shape = findShape(desk.art, shapeId);
  if (shape) desk.inks.choose(shape, desk.traced);
}

/** Ends the path being drawn and keeps it, open. */
export function endPath(desk: Desk): void {
  const { live } = desk;
  if (!live) return;
  const shape = desk.shapeOf(live.shape);
  // Half an outline about an axis is a whole one: it gets its fill as if it had been closed.
  const whole = shape?.axis && shape.fill === null && wholePaths(shape).every((p) => p.closed);
  const fill = whole ? desk.nextFill : null;
  desk.endLive(styleShapes(fill ? [live.shape] : [], { fill: fill ? { kind: 'flat', hex: fill } : null }));
  chooseInk(desk, live.shape);
}

/** Closing: a click closes the path, a drag shapes the closing curve by the first anchor's arriving handle. */
function gripClosing(desk: Desk, start: BedPointer, reached: ReachOffer | null = null): Grip {
  const { shape } = desk.live!;
  const path = desk.livePath!;
  const first = path.anchors[0]!;
  const gesture = desk.gesture('Close the path');
  const closed = (anchor: Anchor): Path => ({ ...withAnchor(path, 0, anchor), closed: true });
  const fill = desk.nextFill;
  const close = (whole: Path): Recipe =>
    together(setPath(shape, whole), (draft) => {
      const made = findShape(draft as never, shape) as { fill: unknown } | null;
      if (made && made.fill === null && fill) made.fill = { kind: 'flat', hex: fill };
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
    desk.justEnded = before.shape;
    chooseInk(desk, before.shape);
  };
  return {
    drag: (p) => gesture.show(close(closed(desk.habits.straightOnly ? first : shaped(p)))),
    release: end,
    click() {
      gesture.show(
        close(reached?.cubic ? closePath(path, { ...reached, cubic: reached.cubic }) : closed(first)),
      );
      end();
    },
    cancel: () => gesture.drop(),
  };
}

/** The last anchor: a click drops its leaving handle, a drag pulls a new one. */
function gripLast(desk: Desk, start: BedPointer): Grip {
  const { shape } = desk.live!;
  const path = desk.livePath!;
  const index = path.anchors.length - 1;
  const last = path.anchors[index]!;
  const gesture = desk.gesture('Shape the last anchor');
  return {
    drag(p) {
      if (desk.habits.straightOnly) return;
      let way = subtract(p.sheet, last);
      if (p.shift) way = snapAngle(way, EIGHTH_TURN);
      const keepsLine = last.in !== null && Math.abs(angleBetween(negate(last.in), way)) < 1e-3;
      gesture.show(
        setPath(shape, withAnchor(path, index, { ...last, kind: keepsLine ? 'smooth' : 'corner', out: way })),
      );
      desk.focus = p.sheet;
    },
    release() {
      gesture.keep();
      desk.focus = null;
    },
    click() {
      // The second click of two at the same spot belongs to the anchor the first one made.
      if (start.again || !last.out) return gesture.drop();
      gesture.show(setPath(shape, withAnchor(path, index, { ...last, kind: 'corner', out: null })));
      gesture.keep();
    },
    cancel: () => gesture.drop(),
  };
}

const angleBetween = (a: Point, b: Point): number => Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y);

/** The end of another open path: the new or live path begins or ends there, and joining is offered. */
function gripEnd(desk: Desk, target: Extract<BlockInTarget, { kind: 'end' }>): Grip | null {
  const starting = !desk.live;
  const grip = gripNewAnchor(desk, target.at);
  if (!grip) return null;
  const offer = (): void => (starting ? offerGoOn(desk, target) : offerJoin(desk, target));
  return {
    ...grip,
    release(p) {
      grip.release?.(p);
      offer();
    },
    click(p) {
      grip.click?.(p);
      offer();
    },
  };
}

/** Enter drops the path just begun and goes on with the one whose end was pressed. */
function offerGoOn(desk: Desk, target: Extract<BlockInTarget, { kind: 'end' }>): void {
  const begun = desk.live!;
  const other = findPath(findShape(desk.art, target.ref.shape), target.ref.path);
  if (!other) return;
  desk.offer = {
    text: 'Enter goes on from this end',
    take() {
      const onward = target.end === 'end' ? other : reversePath(other);
      desk.change(
        'Go on from the end',
        together(removeNodes([begun.shape]), setPath(target.ref.shape, onward)),
        {
          live: { shape: target.ref.shape, path: other.id },
        },
      );
    },
  };
}

/** The live path ends on another's end; Enter makes one path of the two. */
function offerJoin(desk: Desk, target: Extract<BlockInTarget, { kind: 'end' }>): void {
  const { shape } = desk.live!;
  const path = desk.livePath!;
  endPath(desk);
  desk.offer = {
    text: 'Enter joins the two paths',
    take() {
      const other = findPath(findShape(desk.art, target.ref.shape), target.ref.path);
      if (!other) return;
      const joined = { ...joinEnds(path, 'end', other, target.end), id: path.id };
      desk.change(
        'Join the paths',
        together(removePath(target.ref.shape, other.id), setPath(shape, joined)),
        {
          choice: chooseShapes([shape], 'path'),
        },
      );
      desk.justEnded = shape;
    },
  };
}

/** A press while blocking in. */
export function pressBlockIn(desk: Desk, p: BedPointer): Grip | null {
  const corner = desk.held.has('t') ? null : radiusGripAt(desk, p);
  if (corner !== null) return gripRadius(desk, corner, p);
  desk.justEnded = null;
  if (desk.held.has('a')) return gripAdjust(desk, p);
  if (desk.form && !desk.live && !desk.fresh) return gripForm(desk, desk.form, p);
  const target = blockInTarget(desk, p);
  switch (target.kind) {
    case 'close':
      // Two anchors on top of each other are no path to close.
      return desk.livePath!.anchors.length > 1 ? gripClosing(desk, p, target.reached) : null;
    case 'last':
      return gripLast(desk, p);
    case 'own-anchor': {
      const grip = gripAnchor(desk, target.ref, { ...p, again: false });
      return { ...grip, click: () => addOver(desk, p, target.at) };
    }
    case 'own-segment': {
      const { ref, t } = target;
      return gripSegment(desk, { shape: ref.shape, path: ref.path, segment: ref.index }, t, p, () =>
        addOver(desk, p, p.sheet),
      );
    }
    case 'end':
      return gripEnd(desk, target);
    default: {
      const last = desk.livePath?.anchors.at(-1);
      // Two clicks within 300 ms and 2 px make one anchor.
      if (p.again && last && distance(last, target.at) * desk.view.scale <= SAME_SPOT) return null;
      // A finger comes without having pointed: what it would be offered is asked for now.
      const { asked } = desk.reaching;
      if (!target.reached && !(asked && asked.after === desk.livePath && isNear(desk, asked, p.sheet)))
        desk.reaching.ask(askReach(desk, p));
      return gripNewAnchor(desk, target.at, target.reached);
    }
  }
}

/** A click on what a drag would shape adds an anchor there. */
function addOver(desk: Desk, p: BedPointer, at: Point): void {
  gripNewAnchor(desk, at)?.click?.(p);
}

/** With A held a press shapes whatever lies under the pointer and adds nothing. */
function gripAdjust(desk: Desk, p: BedPointer): Grip | null {
  const hit = hitTest(fieldOf(desk, p), p.sheet);
  if (hit?.kind === 'handle') return gripHandle(desk, hit.ref, p);
  if (hit?.kind === 'anchor') return gripInPart(hit.map, p, (q) => gripAnchor(desk, hit.ref, q));
  if (hit?.kind === 'segment') return gripInPart(hit.map, p, (q) => gripSegment(desk, hit.ref, hit.t, q));
  const guide = guideAt(desk, p);
  return guide && gripGuide(desk, guide, p);
}

/** Takes the last anchor back; with the first the path goes. */
export function takeBack(desk: Desk): void {
  const { live, livePath } = desk;
  if (!live || !livePath) return;
  if (livePath.anchors.length === 1) {
    desk.change('Take back', removeNodes([live.shape]), { live: null });
    return;
  }
  desk.change('Take back', setPath(live.shape, { ...livePath, anchors: livePath.anchors.slice(0, -1) }));
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

/** J while drawing: the last anchor from smooth to corner and back. */
export function turnLast(desk: Desk): void {
  const { live, livePath } = desk;
  const last = livePath?.anchors.at(-1);
  if (!live || !livePath || !last) return;
  const index = livePath.anchors.length - 1;
  const turned: Anchor =
    last.kind === 'smooth'
      ? { ...last, kind: 'corner' }
      : withHandle({ ...last, kind: 'smooth' }, 'out', last.in ? negate(last.in) : last.out);
  desk.change('Turn the last anchor', setPath(live.shape, withAnchor(livePath, index, turned)));
}
