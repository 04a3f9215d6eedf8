import {
  addNode,
  corner,
  distance,
  negate,
  removeNodes,
  setFollow,
  setPath,
  snapAngle,
  subtract,
  together,
  withAnchor,
  withHandle,
  type Anchor,
  type Point,
  type Recipe,
} from '@mirrot/core';
import { NOTHING_CHOSEN } from '$lib/desk/choice';
import { newId } from '$lib/ids';
import type { Live } from '$lib/desk/changes';
import type { Desk } from '$lib/desk/desk.svelte';
import type { ReachOffer } from '$lib/desk/reaching.svelte';
import type { BedPointer, Grip } from './behaviour';
import { offerBorder } from '$lib/edits/border';
import { gripForm, gripRadius, radiusGripAt } from './forms';
import { gripGuide, guideAt } from './guides';
import { followOfNext, isNear, reachedPath, reaches } from './reaching';
import { fieldOf, hitTest } from './hit';
import { parentToDrawIn, newShape } from './new-shape';
import { gripInPart } from './parts';
import { EIGHTH_TURN, gripAnchor, gripSegment } from './grips';
import { gripHandle } from './handle-grip';
import { adding, askReach, blockInTarget, type BlockInTarget } from './block-in-target';
import { gripClosing, offerGoOn, offerJoin } from './ending';

/** Two clicks nearer than this while drawing make one anchor. */
const SAME_SPOT = 2;

/** Whether this anchor's leaving handle shapes the next segment; O turns it once. */
function carries(desk: Desk): boolean {
  return desk.habits.carry !== desk.next.carryOnce;
}

/** The anchor as a drag shapes it: handles pulled out, Alt or J turning only the leaving one. */
function pulledOut(base: Anchor, way: Point, frozenIn: Point | null | undefined): Anchor {
  if (way.x === 0 && way.y === 0) return base;
  if (frozenIn !== undefined) return { ...base, kind: 'corner', in: frozenIn, out: way };
  return { ...base, kind: 'smooth', in: negate(way), out: way };
}

/** Grip of a new anchor: it is there at once; a drag pulls its handles out. The first one starts a path. */
function gripNewAnchor(desk: Desk, at: Point, reached: ReachOffer | null = null): Grip | null {
  const first = desk.live === null;
  /** A pen's strokes follow middles without saying so. */
  const followsStroke = (offer: ReachOffer): boolean => offer.follow === 'middle' && !desk.habits.pen;
  const layer = first ? parentToDrawIn(desk) : null;
  if (first && !layer) return null;
  const { straightOnly } = desk.habits;
  const bare: Anchor = {
    ...corner(at.x, at.y),
    kind:
      desk.habits.flowingClicks && !straightOnly
        ? 'flowing'
        : reached && !reached.corner
          ? 'smooth'
          : 'corner',
  };
  const made = first
    ? {
        ...newShape(desk, 'Shape', { id: 'path', closed: false, anchors: [bare] }),
        // Straight pieces over a picture's curves follow no edge of it.
        ...(straightOnly && ({ unmeasured: true } as const)),
        ...(desk.next.follow && { follow: desk.next.follow }),
        ...(reached && followsStroke(reached) && ({ follow: 'middle' } as const)),
      }
    : null;
  const several = reached?.segments.length ?? 0;
  const label = first ? 'Start a path' : several > 1 ? `Add ${several} anchors` : 'Add an anchor';
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
    if (offer.segments.length > 0) return setPath(live.shape, reachedPath(before, offer));
    const begun: Anchor = { ...bare, ...offer.at, kind: offer.corner ? 'corner' : 'smooth' };
    const begin = made && setPath(live.shape, { ...before, anchors: [begun] });
    return begin && followsStroke(offer) ? together(begin, setFollow([live.shape], 'middle')) : begin;
  };
  const onEdge = made || !reached ? null : onto(reached);
  const late = reached || !reaches(desk) ? null : desk.picture.reaching.latest;
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
      desk.pointing.snapTarget = placed.snap;
      anchor = { ...bare, x: placed.at.x, y: placed.at.y };
      desk.pointing.focus = placed.at;
      return show();
    }
    let way = subtract(p.sheet, at);
    if (p.shift) way = snapAngle(way, EIGHTH_TURN);
    const broken = breaking || p.alt;
    if (broken && frozenIn === undefined) frozenIn = anchor.in;
    if (!broken) frozenIn = undefined;
    anchor = pulledOut(bare, way, frozenIn);
    show();
    desk.pointing.focus = p.sheet;
  };
  if (onEdge) gesture.show(onEdge);
  else show();
  desk.choosing.live = live;
  desk.next.fresh = false;
  desk.next.follow = null;
  if (made) {
    desk.choosing.choice = NOTHING_CHOSEN;
    desk.picture.inks.choose(made, desk.picture.traced);
  }
  const finish = (): void => {
    gesture.keep({ live });
    desk.next.carryOnce = false;
    desk.pointing.focus = null;
    desk.pointing.snapTarget = null;
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
      desk.pointing.focus = null;
      desk.pointing.snapTarget = null;
    },
    key(key) {
      if (key === 'o') {
        desk.next.carryOnce = !desk.next.carryOnce;
        return true;
      }
      if (key !== 'j') return false;
      breaking = !breaking;
      if (lastPointer) shapeTo(lastPointer);
      return true;
    },
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
      desk.pointing.focus = p.sheet;
    },
    release() {
      gesture.keep();
      desk.pointing.focus = null;
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

/** A press while blocking in. */
export function pressBlockIn(desk: Desk, p: BedPointer): Grip | null {
  const corner = desk.pointing.held.has('t') ? null : radiusGripAt(desk, p);
  if (corner !== null) return gripRadius(desk, corner, p);
  desk.choosing.justEnded = null;
  if (desk.pointing.held.has('a')) return gripAdjust(desk, p);
  if (desk.next.form && !desk.live && !desk.next.fresh) return gripForm(desk, desk.next.form, p);
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
      if (p.again && last && distance(last, target.at) * desk.looking.view.scale <= SAME_SPOT) return null;
      // A finger comes without having pointed: what it would be offered is asked for now.
      const { asked } = desk.picture.reaching;
      if (!target.reached && !(asked && asked.after === desk.livePath && isNear(desk, asked, p.sheet)))
        desk.picture.reaching.ask(askReach(desk, p));
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

/** Turns what the path being drawn, or else the next one, follows: a stroke's middle, or an edge. */
export function turnFollow(desk: Desk): void {
  const { live } = desk;
  const now = followOfNext(desk, live !== null) ?? desk.picture.reaching.offer?.follow ?? 'edge';
  const to = now === 'edge' ? 'middle' : 'edge';
  const words = to === 'edge' ? 'follows an edge' : 'follows the middle of a stroke';
  if (live) desk.change(`The path ${words}`, setFollow([live.shape], to), { live });
  else desk.next.follow = to;
  desk.say(`${live ? 'This' : 'The next'} path ${words}.`);
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
