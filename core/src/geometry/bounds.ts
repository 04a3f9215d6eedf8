import { apply, type Affine } from './affine';
import type { Point } from './vector';

/** An upright rectangle. Empty when x0 > x1. */
export interface Box {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

export const EMPTY_BOX: Box = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };

export const isEmptyBox = (b: Box): boolean => b.x0 > b.x1 || b.y0 > b.y1;
export const boxWidth = (b: Box): number => Math.max(0, b.x1 - b.x0);
export const boxHeight = (b: Box): number => Math.max(0, b.y1 - b.y0);
export const boxCentre = (b: Box): Point => ({ x: (b.x0 + b.x1) / 2, y: (b.y0 + b.y1) / 2 });

/** Smallest box over all points; `EMPTY_BOX` for none. */
export function boxOfPoints(points: Iterable<Point>): Box {
  let { x0, y0, x1, y1 } = EMPTY_BOX;
  for (const p of points) {
    x0 = Math.min(x0, p.x);
    y0 = Math.min(y0, p.y);
    x1 = Math.max(x1, p.x);
    y1 = Math.max(y1, p.y);
  }
  return { x0, y0, x1, y1 };
}

export const uniteBoxes = (a: Box, b: Box): Box => ({
  x0: Math.min(a.x0, b.x0),
  y0: Math.min(a.y0, b.y0),
  x1: Math.max(a.x1, b.x1),
  y1: Math.max(a.y1, b.y1),
});

export const growBox = (b: Box, by: number): Box => ({
  x0: b.x0 - by,
  y0: b.y0 - by,
  x1: b.x1 + by,
  y1: b.y1 + by,
});

export const boxHas = (b: Box, p: Point): boolean => p.x >= b.x0 && p.x <= b.x1 && p.y >= b.y0 && p.y <= b.y1;

export const boxesMeet = (a: Box, b: Box): boolean =>
  a.x0 <= b.x1 && b.x0 <= a.x1 && a.y0 <= b.y1 && b.y0 <= a.y1;

/** Corners of a `width` × `height` rectangle at the origin after `map`, clockwise from its top left. */
export const mappedCorners = (width: number, height: number, map: Affine): Point[] =>
  [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ].map((p) => apply(map, p));
