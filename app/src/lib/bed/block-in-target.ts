import {
  add,
  distance,
  negate,
  snapAngle,
  subtract,
  tangentAt,
  type Path,
  type Point,
  type Snapped,
} from '@mirrot/core';
import { type AnchorRef } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import type { ReachAsk, ReachOffer } from '$lib/desk/reaching.svelte';
import type { BedPointer } from './behaviour';
import { goesBeforeEdge, reachAsk, reachedAt, reaches } from './reaching';
import { fieldOf, hitAnchor, hitEnd, hitSegment, type HitField } from './hit';
import { EIGHTH_TURN } from './grips';
import { snapAt } from './snapping';

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
  if (desk.next.fresh || desk.pointing.held.has('t'))
    return adding(desk, p, desk.next.fresh ? null : (livePath ?? null), offered);
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
export function adding(
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
  const after = desk.next.fresh ? null : desk.livePath;
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
