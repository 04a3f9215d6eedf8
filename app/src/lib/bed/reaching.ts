import {
  apply,
  applyLinear,
  closePath,
  extendPath,
  invert,
  meanScale,
  pathCubics,
  tangentAt,
  transformPath,
  unit,
  type Follow,
  type Path,
  type Point,
  type Snapped,
  type SnapKind,
} from '@mirrot/core';
import { rasterMap } from '$lib/desk/drifts.svelte';
import type { Desk } from '$lib/desk/desk.svelte';
import type { ReachAsk, ReachOffer } from '$lib/desk/reaching.svelte';
import type { BedPointer } from './behaviour';
import { SNAP_REACH } from './snapping';

/** Screen pixels that the pointer may have gone on since an offer was worked out. */
const STALE = 14;
/** Segments that are offered at once where one cannot hold the edge, at most. */
export const CHAIN_MOST = 8;
/** Turns ahead that are shown when the pointer rests. */
export const TURNS_AHEAD = 6;
/** What attracts before the picture's edge does: what is drawn, and guides. */
const FIRST: ReadonlySet<SnapKind> = new Set(['anchors', 'segments', 'crossings', 'guides']);
export const goesBeforeEdge = (snap: Snapped | null): boolean => snap !== null && FIRST.has(snap.kind);

/** Whether the next segment is offered on the edge now: the switch is on and nothing asks for a plain one. */
export const reaches = (desk: Desk): boolean =>
  desk.step === 'block-in' &&
  desk.habits.reach &&
  !desk.habits.straightOnly &&
  !desk.habits.flowingClicks &&
  !(desk.next.form && !desk.live) &&
  desk.pointing.task === null &&
  // The border that is offered is the next segment.
  desk.offer?.from !== 'border' &&
  !['a', 'c', 'd', 'q', 'shift+q', 'space'].some((k) => desk.pointing.held.has(k));

/** Whether something was offered, or asked for, at about this place. */
export const isNear = (desk: Desk, { pointer }: Pick<ReachOffer, 'pointer'>, p: Point): boolean =>
  Math.hypot(pointer.x - p.x, pointer.y - p.y) * desk.looking.view.scale <= STALE;

/** The offer that stands for a press at `p` that goes on from a path (or begins one), or null. */
export function reachedAt(
  desk: Desk,
  p: Pick<BedPointer, 'sheet' | 'shift'>,
  after: Path | null,
): ReachOffer | null {
  if (!reaches(desk) || p.shift) return null;
  const offer = tickedAt(desk, p, after);
  return offer && !offer.wild ? offer : null;
}

/** The same, also one whose segment is not offered any more: its tick still says how far one segment holds. */
export function tickedAt(desk: Desk, p: Pick<BedPointer, 'sheet'>, after: Path | null): ReachOffer | null {
  const { offer } = desk.picture.reaching;
  return offer && offer.after === after && isNear(desk, offer, p.sheet) ? offer : null;
}

/** A path with what is offered at its end, closed by the last of it where that is wanted. */
export function reachedPath(path: Path, { segments }: Pick<ReachOffer, 'segments'>, closes = false): Path {
  const onward = closes ? segments.slice(0, -1) : segments;
  const longer = onward.reduce((p, s) => extendPath(p, s, s.corner ? 'corner' : 'smooth'), path);
  return closes ? closePath(longer, segments.at(-1)!) : longer;
}

/** What the next segment follows; null where that is told by what the path begins on. */
export function followOfNext(desk: Desk, goesOn: boolean): Follow | null {
  const pen = desk.habits.pen ? 'middle' : null;
  if (!goesOn) return desk.next.follow ?? pen;
  const shape = desk.live && desk.shapeOf(desk.live.shape);
  return shape?.follow ?? pen ?? 'edge';
}

/**
 * What is asked for at the pointer.
 *
 * @param to where the segment has to end, on the sheet, and the direction back from there
 * @param hints further turns ahead
 */
export function reachAsk(
  desk: Desk,
  pointer: Point,
  after: Path | null,
  to: { readonly at: Point; readonly arrive: Point | null } | null,
  hints: number,
): ReachAsk | null {
  const by = desk.picture.driftSettings;
  if (!by || !reaches(desk)) return null;
  const map = rasterMap(by);
  const back = invert(map);
  if (!back) return null;
  const { step } = by.raster;
  const shown = meanScale(back) / desk.looking.view.scale;
  const last = after?.anchors.at(-1);
  const leave = after && last?.kind === 'smooth' ? tangentAt(after, after.anchors.length - 1, 'in') : null;
  const way = (v: Point): Point | null => unit(applyLinear(back, v));
  const { driftLight, pen, penWidth, reachWithin, reachChain } = desk.habits;
  const level = way({ x: 1, y: 0 });
  const follow = followOfNext(desk, after !== null);
  return {
    key: by.raster.key,
    raster: by.raster.pixels,
    map,
    step,
    after,
    pointer,
    to: to?.at ?? null,
    wish: {
      pointer: apply(back, pointer),
      start:
        after && last
          ? {
              at: apply(back, last),
              leave: leave && way(leave),
              drawn: pathCubics(transformPath(after, back)),
            }
          : null,
      options: {
        tolerance: reachWithin / step,
        light: driftLight,
        near: SNAP_REACH * shown,
        ...(to ? { to: { at: apply(back, to.at), arrive: to.arrive && way(to.arrive) } } : {}),
        hints,
        most: reachChain ? CHAIN_MOST : 1,
        ...(level ? { level } : {}),
      },
      follow,
      width: pen && follow === 'middle' ? penWidth * meanScale(back) : null,
      shown,
    },
  };
}
