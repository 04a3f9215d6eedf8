import {
  apply,
  axisMaps,
  boxCentre,
  boxHas,
  compose,
  crossingsOf,
  distance,
  faintLines,
  invert,
  meanScale,
  nearestAnchor,
  nearestEdge,
  nearSegments,
  scaling,
  seenBox,
  shapeBounds,
  snapPoint,
  type Path,
  type Point,
  type SnapKind,
  type SnapLine,
  type Snapped,
  type SnapSpot,
} from '@mirrot/core';
import { fieldWithout } from '$lib/desk/snap-fields';
import type { Desk } from '$lib/desk/desk.svelte';
import { pixelsKey } from '$lib/desk/rasters';

/** Screen pixels within which something attracts. */
export const SNAP_REACH = 8;

/** What the switches are called. */
export const SNAP_WORDS: Readonly<Record<SnapKind, string>> = {
  anchors: 'Anchors',
  segments: 'Segments',
  crossings: 'Crossings',
  guides: 'Guides and axes',
  lines: 'Faint lines',
  sheet: 'Sheet',
  edge: 'Edge of the picture',
  grid: 'Grid',
};

/** Whether anything attracts now: the switch is on and C is not held. */
export const snapping = (desk: Desk): boolean => desk.habits.snapOn && !desk.pointing.held.has('c');

/** Level and upright lines are exactly so: what snaps to them gets no rounding. */
const level = (v: number): number => (Math.abs(v) < 1e-15 ? 0 : v);

/** Lines and spots that stand on the sheet whatever is drawn. */
function standing(desk: Desk): { spots: SnapSpot[]; lines: SnapLine[] } {
  const { sheet, guides, axis } = desk.art;
  const { snap } = desk.habits;
  const spots: SnapSpot[] = [];
  const lines: SnapLine[] = [];
  const line = (kind: SnapKind, at: Point, angle: number, why: string): void =>
    void lines.push({ kind, at, along: { x: level(Math.cos(angle)), y: level(Math.sin(angle)) }, why });
  if (snap.guides) {
    for (const g of guides.lines) line('guides', g, g.angle, 'guide');
    if (axis?.kind === 'mirror') line('guides', axis, axis.angle, 'mirror axis');
    if (axis?.kind === 'turn')
      spots.push({ kind: 'guides', at: { x: axis.x, y: axis.y }, why: 'centre of the turn' });
  }
  if (snap.sheet) {
    const { width: w, height: h } = sheet;
    for (const x of [0, w]) {
      line('sheet', { x, y: 0 }, Math.PI / 2, 'side of the sheet');
      for (const y of [0, h]) spots.push({ kind: 'sheet', at: { x, y }, why: 'corner of the sheet' });
    }
    for (const y of [0, h]) line('sheet', { x: 0, y }, 0, 'side of the sheet');
    spots.push({ kind: 'sheet', at: { x: w / 2, y: h / 2 }, why: 'middle of the sheet' });
  }
  return { spots, lines };
}

/** The picture's edge near a point of the sheet, in the traced picture's loaded pixels; null where there is none. */
function edgeNear(desk: Desk, p: Point, reach: number): Point | null {
  const picture = desk.picture.traced;
  const { raster } = desk.picture.inks;
  if (!picture?.shown || !raster || raster.key !== pixelsKey(picture)) return null;
  const toSheet = compose(picture.placement, scaling(raster.step));
  const back = invert(toSheet);
  if (!back) return null;
  const found = nearestEdge(raster.pixels, apply(back, p), reach * meanScale(back));
  if (!found) return null;
  const seen = { x: found.x * raster.step, y: found.y * raster.step };
  return boxHas(seenBox(picture), seen) ? apply(toSheet, found) : null;
}

/** What a point that is being placed minds. */
export interface SnapAim {
  /** Paths that do not attract: those that move along. */
  readonly without?: readonly string[];
  /** The path it would go on, whose faint lines attract. */
  readonly after?: Path | null;
  /** Lines that attract besides. */
  readonly lines?: readonly SnapLine[];
}

/** Where a point of the sheet goes that lies near something; null when nothing attracts, or snapping is off. */
export function snapAt(desk: Desk, p: Point, aim: SnapAim = {}): Snapped | null {
  if (!snapping(desk)) return null;
  const { snap } = desk.habits;
  const reach = SNAP_REACH / desk.looking.view.scale;
  const field = fieldWithout(desk.art, new Set(aim.without));
  const { spots, lines } = standing(desk);
  const anchor = snap.anchors ? nearestAnchor(field, p, reach) : null;
  if (anchor) spots.push({ kind: 'anchors', at: anchor, why: 'anchor' });
  const axis = aim.after && desk.live ? desk.shapeOf(desk.live.shape)?.axis : undefined;
  if (snap.anchors && aim.after && axis?.kind === 'turn' && aim.after.anchors.length > 1)
    for (const map of axisMaps(axis).slice(1))
      spots.push({
        kind: 'anchors',
        at: apply(map, aim.after.anchors[0]!),
        why: 'beginning of the next part',
      });
  if (aim.lines) lines.push(...aim.lines);
  if (snap.lines && aim.after) lines.push(...faintLines(aim.after));
  const { grid } = desk.art;
  const segments = snap.segments || snap.crossings ? nearSegments(field, p, reach) : [];
  return snapPoint(p, reach, {
    spots,
    lines,
    segments,
    crossings: snap.crossings ? () => crossingsOf(field, segments) : null,
    onSegments: snap.segments,
    edge: snap.edge ? () => edgeNear(desk, p, reach) : null,
    grid: snap.grid && grid.shown ? grid.step : null,
  });
}

/** The middle of a shape is taken within this of the pointer, screen pixels. */
const CENTRE_PX = 8;

/** The middle of a shape that lies near a point; null where none does. */
function centreNear(desk: Desk, p: Point): Point | null {
  const reach = CENTRE_PX / desk.looking.view.scale;
  const centres = desk.choosing.inReach.map((shape) => boxCentre(shapeBounds(shape)));
  const near = centres.filter((c) => distance(c, p) <= reach);
  return near.sort((a, b) => distance(a, p) - distance(b, p))[0] ?? null;
}

/** The point that a press for a centre takes: what it snaps to, the middle of a shape, or the very point. */
export function centreAt(
  desk: Desk,
  p: Point,
): { readonly at: Point; readonly snap: ReturnType<typeof snapAt> } {
  const snap = snapAt(desk, p);
  return { at: snap?.at ?? (snapping(desk) ? centreNear(desk, p) : null) ?? p, snap };
}
