import {
  corner,
  cubicBetween,
  flows,
  deriveFlow,
  segmentCubic,
  type Cubic,
  type Path,
  type Point,
  type Shape,
  type Snapped,
  lineCubic,
  transformPath,
} from '@mirrot/core';
import { findPath, type AnchorRef, type HandleRef } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { asksForShape } from '$lib/desk/task';
import type { ReachOffer } from '$lib/desk/reaching.svelte';
import type { BedPointer } from './behaviour';
import { axisPoint } from './axes';
import { blockInTarget } from './block-in-target';
import { boxGripAt } from './box';
import { radiusGripAt, radiusGrips } from './forms';
import { guideAt, pivotOf } from './guides';
import { fieldOf, hitTest } from './hit';
import { shapeAt } from './refine';
import { centreAt, snapAt } from './snapping';

/** What a press would do, shown before it is made. */
export type Foresight =
  | { readonly kind: 'none' }
  | { readonly kind: 'anchor'; readonly ref: AnchorRef; readonly at: Point }
  | { readonly kind: 'handle'; readonly ref: HandleRef; readonly at: Point }
  /** The segment that would bend, where on it, and the handles of its ends. */
  | { readonly kind: 'segment'; readonly shape: string; readonly cubic: Cubic; readonly t: number }
  | { readonly kind: 'inside'; readonly shape: string }
  | { readonly kind: 'turn' | 'scale' }
  | { readonly kind: 'radius'; readonly at: Point }
  | { readonly kind: 'guide'; readonly id: string; readonly about: Point | null }
  /** The segments that a click would draw, and the anchor-to-be. */
  | {
      readonly kind: 'add';
      readonly at: Point;
      readonly cubics: readonly Cubic[];
      readonly snap: Snapped | null;
      readonly reached?: ReachOffer | null;
    }
  | {
      readonly kind: 'close';
      readonly at: Point;
      readonly cubics: readonly Cubic[];
      readonly reached?: ReachOffer | null;
    }
  | { readonly kind: 'end'; readonly at: Point; readonly cubics: readonly Cubic[] };

const NONE: Foresight = { kind: 'none' };

/** What a press here would shape. */
function foreseeShaping(desk: Desk, p: BedPointer): Foresight {
  const round = foreseeRadius(desk, p);
  if (round) return round;
  const corner = boxGripAt(desk, p);
  if (corner) return { kind: corner.turning ? 'turn' : 'scale' };
  const hit = hitTest(fieldOf(desk, p), p.sheet);
  if (!hit) return foreseeGuide(desk, p);
  if (hit.kind === 'anchor') return hit;
  if (hit.kind === 'handle') return { kind: 'handle', ref: hit.ref, at: hit.grip };
  if (hit.kind === 'inside') return hit;
  const shape = desk.shapeOf(hit.ref.shape);
  const path = findPath(shape, hit.ref.path);
  if (!path) return NONE;
  const part = hit.map ? transformPath({ ...path, form: undefined }, hit.map) : path;
  return { kind: 'segment', shape: hit.ref.shape, cubic: segmentCubic(part, hit.ref.segment), t: hit.t };
}

function foreseeGuide(desk: Desk, p: BedPointer): Foresight {
  const guide = guideAt(desk, p);
  return guide ? { kind: 'guide', id: guide.id, about: pivotOf(desk, guide, p) } : NONE;
}

function foreseeRadius(desk: Desk, p: BedPointer): Foresight | null {
  const i = radiusGripAt(desk, p);
  return i === null ? null : { kind: 'radius', at: radiusGrips(desk)[i]! };
}

/** Where the axis being placed would go. */
function foreseeAxis(desk: Desk, p: BedPointer): Foresight {
  const task = desk.pointing.task?.kind === 'mirror-axis' ? desk.pointing.task : null;
  const from = task?.from ?? null;
  const { at, snap } = axisPoint(desk, p, from, task?.own ?? null);
  return { kind: 'add', at, snap, cubics: from ? [lineCubic(from, at)] : [] };
}

/** The segment that closing the path would draw. */
function closing(path: Path): Cubic {
  const whole = deriveFlow({ ...path, closed: true });
  return segmentCubic(whole, whole.anchors.length - 1);
}

const cubicsOf = ({ segments }: ReachOffer): Cubic[] => segments.map((s) => s.cubic);

/** What a press here would add. */
function foreseeAdding(desk: Desk, p: BedPointer): Foresight {
  const round = desk.pointing.held.has('t') ? null : foreseeRadius(desk, p);
  if (round) return round;
  if (desk.next.form && !desk.live && !desk.next.fresh && !desk.pointing.held.has('t')) {
    const snap = snapAt(desk, p.sheet);
    return { kind: 'add', at: snap?.at ?? p.sheet, snap, cubics: [] };
  }
  const path = desk.next.fresh ? null : desk.livePath;
  const last = path?.anchors.at(-1);
  const to = (at: Point): Cubic[] => {
    if (!path || !last) return [];
    const flowing = desk.habits.flowingClicks && !desk.habits.straightOnly;
    if (!flowing && !flows(path)) return [cubicBetween(last, corner(at.x, at.y))];
    // What flows bends with the anchor to come: the whole path is worked out with it.
    const next = {
      ...corner(at.x, at.y),
      kind: flowing ? ('flowing' as const) : ('corner' as const),
    };
    const whole = deriveFlow({ ...path, anchors: [...path.anchors, next] });
    return [segmentCubic(whole, whole.anchors.length - 2)];
  };
  const target = blockInTarget(desk, p);
  switch (target.kind) {
    case 'add':
      return {
        kind: 'add',
        at: target.at,
        cubics: target.reached ? cubicsOf(target.reached) : to(target.at),
        snap: target.snap,
        reached: target.reached,
      };
    case 'close':
      return path!.anchors.length > 1
        ? {
            kind: 'close',
            at: target.at,
            cubics: target.reached ? cubicsOf(target.reached) : [closing(path!)],
            reached: target.reached,
          }
        : NONE;
    case 'end':
      return { kind: 'end', at: target.at, cubics: to(target.at) };
    case 'own-segment':
      return {
        kind: 'segment',
        shape: desk.live!.shape,
        cubic: segmentCubic(path!, target.ref.index),
        t: target.t,
      };
    case 'own-anchor':
      return { kind: 'anchor', ref: target.ref, at: target.at };
    default:
      return {
        kind: 'anchor',
        ref: { shape: desk.live!.shape, path: path!.id, index: path!.anchors.length - 1 },
        at: target.at,
      };
  }
}

/** What a press would do at the pointer. */
export function foresee(desk: Desk, p: BedPointer | null): Foresight {
  if (
    !p ||
    desk.pointing.held.has('q') ||
    desk.pointing.held.has('shift+q') ||
    desk.pointing.held.has('d') ||
    desk.pointing.held.has('space')
  )
    return NONE;
  if (desk.pointing.task?.kind === 'mirror-axis' || desk.pointing.task?.kind === 'turn-axis')
    return foreseeAxis(desk, p);
  if (desk.pointing.task?.kind === 'about' || desk.pointing.task?.kind === 'ring-centre')
    return { kind: 'add', ...centreAt(desk, p.sheet), cubics: [] };
  if (desk.pointing.task?.kind === 'measure') {
    const snap = snapAt(desk, p.sheet);
    return { kind: 'add', at: snap?.at ?? p.sheet, snap, cubics: [] };
  }
  if (desk.pointing.task?.kind === 'pour' || desk.pointing.task?.kind === 'weed') return NONE;
  if (asksForShape(desk.pointing.task)) {
    const shape = shapeAt(desk, p);
    return shape === null ? NONE : { kind: 'inside', shape };
  }
  if (desk.step === 'block-in')
    return desk.pointing.held.has('a') ? foreseeShaping(desk, p) : foreseeAdding(desk, p);
  if (desk.step === 'refine')
    return desk.pointing.held.has('t') ? foreseeAdding(desk, p) : foreseeShaping(desk, p);
  if (desk.step === 'mount') {
    const corner = boxGripAt(desk, p);
    if (corner) return { kind: corner.turning ? 'turn' : 'scale' };
    return foreseeGuide(desk, p);
  }
  return NONE;
}

/** The node that a press would be about: a shape, or a group as a whole; null where it would be about none. */
export function nodeForeseen(desk: Desk, foresight: Foresight): string | null {
  if (foresight.kind === 'inside') return desk.choosing.wholeOf(foresight.shape);
  if (foresight.kind === 'segment') return foresight.shape;
  return foresight.kind === 'anchor' || foresight.kind === 'handle' ? foresight.ref.shape : null;
}

/** A path whose anchors are shown. */
export interface ShownPath {
  readonly shape: Shape;
  readonly path: Path;
}

/** Paths whose anchors are shown: the one being drawn, those chosen for shaping, and with A held the one pointed at. */
export function shownPaths(desk: Desk, foresight: Foresight): ShownPath[] {
  if (!desk.looking.seen.ink) return [];
  const paths: ShownPath[] = [];
  const addShape = (id: string): void => {
    const shape = desk.shapeOf(id);
    if (shape)
      for (const path of shape.paths) if (!paths.some((p) => p.path === path)) paths.push({ shape, path });
  };
  if (desk.live) addShape(desk.live.shape);
  else if (desk.choice.level === 'path') desk.choice.shapes.forEach(addShape);
  if (foresight.kind === 'segment') addShape(foresight.shape);
  if (foresight.kind === 'anchor' || foresight.kind === 'handle') addShape(foresight.ref.shape);
  return paths;
}

/** Handles shown while a path is drawn: those of its last anchor. */
export function liveHandles(desk: Desk): HandleRef[] {
  const { live, livePath } = desk;
  if (!live || !livePath) return [];
  const index = livePath.anchors.length - 1;
  const last = livePath.anchors[index]!;
  return (['in', 'out'] as const)
    .filter((side) => last[side])
    .map((side) => ({ shape: live.shape, path: live.path, index, side }));
}
