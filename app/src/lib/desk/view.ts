import { boxCentre, boxHeight, boxWidth, isEmptyBox, type Affine, type Box, type Point } from '@mirrot/core';

/** How the sheet lies on the bed: bed pixels are sheet pixels × scale + (tx, ty). */
export interface View {
  readonly scale: number;
  readonly tx: number;
  readonly ty: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

export const LEAST_SCALE = 0.01;
export const MOST_SCALE = 256;

export const toBed = (view: View, p: Point): Point => ({
  x: p.x * view.scale + view.tx,
  y: p.y * view.scale + view.ty,
});

export const toSheet = (view: View, p: Point): Point => ({
  x: (p.x - view.tx) / view.scale,
  y: (p.y - view.ty) / view.scale,
});

export const viewMatrix = ({ scale, tx, ty }: View): Affine => [scale, 0, 0, scale, tx, ty];

export const panned = (view: View, dx: number, dy: number): View => ({
  ...view,
  tx: view.tx + dx,
  ty: view.ty + dy,
});

/** The view scaled by `factor` with the sheet point under `at` (bed pixels) staying where it is. */
export function zoomed(view: View, factor: number, at: Point): View {
  const scale = Math.min(MOST_SCALE, Math.max(LEAST_SCALE, view.scale * factor));
  const k = scale / view.scale;
  return { scale, tx: at.x - (at.x - view.tx) * k, ty: at.y - (at.y - view.ty) * k };
}

/** The view in which `box` (sheet pixels) fills the bed but for a margin; 100 % for an empty box. */
export function fitted(box: Box, bed: Size, margin = 32): View {
  if (isEmptyBox(box)) return { scale: 1, tx: bed.width / 2, ty: bed.height / 2 };
  const room = (size: number): number => Math.max(40, size - 2 * margin);
  const scale = Math.min(
    room(bed.width) / Math.max(boxWidth(box), 1e-3),
    room(bed.height) / Math.max(boxHeight(box), 1e-3),
  );
  const kept = Math.min(MOST_SCALE, Math.max(LEAST_SCALE, scale));
  const centre = boxCentre(box);
  return { scale: kept, tx: bed.width / 2 - centre.x * kept, ty: bed.height / 2 - centre.y * kept };
}

/** The map from how `drawn` was drawn to how `now` looks: what the composited layer is moved by. */
export function moveBetween(drawn: View, now: View): { scale: number; x: number; y: number } {
  const scale = now.scale / drawn.scale;
  return { scale, x: now.tx - drawn.tx * scale, y: now.ty - drawn.ty * scale };
}

export const matrixText = (m: Affine): string => `matrix(${m.join(' ')})`;

/** Whether the bed now shows what was not drawn: `margin` bed pixels round the bed were, in the view `drawn`. */
export function uncovered(drawn: View, now: View, bed: Size, margin: number): boolean {
  const { scale, x, y } = moveBetween(drawn, now);
  return (
    x - margin * scale > 0 ||
    y - margin * scale > 0 ||
    x + (bed.width + margin) * scale < bed.width ||
    y + (bed.height + margin) * scale < bed.height
  );
}

/** A point of the bed as path data has it, to a hundredth of a pixel. */
export const pointText = (p: Point): string => `${p.x.toFixed(2)} ${p.y.toFixed(2)}`;
