import { boxHeight, boxWidth, isEmptyBox, type Box } from '../geometry/bounds';
import { meanScale, scaling } from '../geometry/affine';
import { maskBox, paintedBox, paintList, type EdgeMask, type PaintedGroup, type PaintedPart, paintedPictures } from './paint-list'; // prettier-ignore
import { boxPath } from '../path/box-path';
import type { Art, Group, PlacedPicture } from './schema';
import { PX_PER } from './units';
import { findNode } from './tree';

/** Pixels to the inch of a cutout that holds no picture: what is printed. */
const PRINT_PPI = 300;

/** A cutout taken apart, to be put together from pixels. All of it is seen in `box`, `width` × `height` pixels large. */
export interface CutoutParts {
  /** Sheet pixels; where its picture lies straight, from the edge of one of that picture's pixels to that of another. */
  readonly box: Box;
  readonly width: number;
  readonly height: number;
  /** What is cut, not cut yet. */
  readonly content: readonly PaintedPart[];
  /** White as far as the sharp outline goes. */
  readonly inside: readonly PaintedPart[];
  /** White as far as the cut leaves it, as soft as it is. */
  readonly seen: readonly PaintedPart[];
  /** What lies beneath it: the shadow that stays, and what its shape paints. */
  readonly beneath: readonly PaintedPart[];
  /** The pictures in it. */
  readonly pictures: readonly PlacedPicture[];
}

function findPart(parts: readonly PaintedPart[], id: string): PaintedGroup | null {
  for (const part of parts) {
    if (part.type !== 'group') continue;
    const found = part.id === id ? part : findPart(part.parts, id);
    if (found) return found;
  }
  return null;
}

/** A part without what a clip takes of it. */
const unclipped = (part: PaintedPart, clip: string): PaintedPart =>
  part.clip?.id === clip ? { ...part, clip: null } : part;

/**
 * A group that a shape clips, in parts, at the pixels of the picture in it that has the most to the inch.
 *
 * @returns null for what is no cutout, or shows nothing
 */
export function cutoutParts(art: Art, groupId: string): CutoutParts | null {
  const group = findNode(art, groupId)?.node;
  if (group?.type !== 'group' || group.clip === undefined) return null;
  // Once, whole, as if nothing stood around it.
  const { repeat: _, edge, ...once } = group;
  const alone: Group = { ...once, shown: true, edge: edge ?? { by: 0, soft: 0 } };
  const layer = art.layers[0]!;
  const list = paintList({ ...art, layers: [{ ...layer, shown: true, opacity: 1, children: [alone] }] });
  const parts = findPart(list, groupId)?.parts ?? [];
  const within = parts.find((part) => part.mask?.kind === 'edge');
  if (within?.type !== 'group') return null;
  const mask = within.mask as EdgeMask;
  const beneath = parts.filter((part) => part !== within);
  const bounds = paintedBox(parts);
  if (isEmptyBox(bounds) || !(boxWidth(bounds) > 0 && boxHeight(bounds) > 0)) return null;

  const pictures = paintedPictures(within.parts).sort(
    (one, other) => meanScale(one.placement) - meanScale(other.placement),
  );
  const printed = scaling(PX_PER.in / PRINT_PPI);
  const finest = pictures[0]?.placement ?? printed;
  const [a, b, c, , e, f] = finest;
  const step = meanScale(finest);
  const [x, y] = b === 0 && c === 0 && a > 0 ? [e, f] : [bounds.x0, bounds.y0];
  // A hair's breadth of rounding is no pixel more.
  const down = (v: number, from: number): number => from + Math.floor((v - from) / step + 1e-6) * step;
  const up = (v: number, from: number): number => from + Math.ceil((v - from) / step - 1e-6) * step;
  const box = { x0: down(bounds.x0, x), y0: down(bounds.y0, y), x1: up(bounds.x1, x), y1: up(bounds.y1, y) };
  const white = (of: EdgeMask): PaintedPart => ({
    ...within,
    type: 'shape',
    id: `${within.id}_white`,
    paths: [boxPath(maskBox(of))],
    fill: { kind: 'flat', hex: '#ffffff' },
    fillRule: 'evenodd',
    stroke: null,
    mask: of,
  });
  return {
    box,
    width: Math.round((box.x1 - box.x0) / step),
    height: Math.round((box.y1 - box.y0) / step),
    content: within.parts.map((part) => unclipped(part, mask.id)),
    inside: [white({ ...mask, soft: 0 })],
    seen: [white(mask)],
    beneath,
    pictures,
  };
}
