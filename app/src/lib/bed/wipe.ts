import type { Point } from '@mirrot/core';
import type { Wipe } from '$lib/desk/comparing.svelte';
import type { Size } from '$lib/desk/view';

/** So far a half of the plane reaches, times the sheet's longer side. */
const REACH_TIMES = 20;

/** Along the line, and to the drawing's side of it. */
export const wipeWays = ({
  angle,
}: Pick<Wipe, 'angle'>): { readonly along: Point; readonly across: Point } => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return { along: { x: c, y: s }, across: { x: -s, y: c } };
};

/** The half of the plane on one side of the line, as the points of a polygon: 1 for the drawing's, −1 for the picture's. */
export function halfPlane(wipe: Wipe, side: 1 | -1, sheet: Size): string {
  const reach = REACH_TIMES * Math.max(sheet.width, sheet.height);
  const { along, across } = wipeWays(wipe);
  const at = (k: number, m: number): string =>
    `${wipe.at.x + reach * (k * along.x + m * side * across.x)},${wipe.at.y + reach * (k * along.y + m * side * across.y)}`;
  return `${at(-1, 0)} ${at(1, 0)} ${at(1, 1)} ${at(-1, 1)}`;
}

/** Where a line leaves a box along its way, from a point of the box; null where the point lies outside of it. */
export function leaves(from: Point, way: Point, { width, height }: Size): Point | null {
  if (from.x < 0 || from.y < 0 || from.x > width || from.y > height) return null;
  const far = (p: number, d: number, end: number): number =>
    d > 0 ? (end - p) / d : d < 0 ? -p / d : Infinity;
  const k = Math.min(far(from.x, way.x, width), far(from.y, way.y, height));
  return { x: from.x + k * way.x, y: from.y + k * way.y };
}

/** The wipe's line moved so that it goes through a point. */
export const wipeThrough = (wipe: Wipe, p: Point): Wipe => ({ ...wipe, at: p });

/** The wipe turned so that its line goes from where it stands to a point. */
export const wipeTowards = (wipe: Wipe, p: Point): Wipe =>
  p.x === wipe.at.x && p.y === wipe.at.y
    ? wipe
    : { ...wipe, angle: Math.atan2(p.y - wipe.at.y, p.x - wipe.at.x) };
