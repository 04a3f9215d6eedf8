// Long because every kind of node becomes what is painted in one walk, whole and placed.

import { compose, type Affine } from '../geometry/affine';
import { EMPTY_BOX, boxOfPoints, growBox, isEmptyBox, uniteBoxes, type Box } from '../geometry/bounds'; // prettier-ignore
import { boxPath } from '../path/box-path';
import { transformPath } from '../path/path-map';
import { pathBounds } from '../path/path-measure';
import type { Path } from '../path/path';
import { strokeBounds } from '../path/stroke-bounds';
import { paletteOf, seenPaint, type Palette, type SeenPaint, type Shadow, type Stroke } from './paint';
import type { Blend } from './paint-kinds';
import { shownCorners } from './placed-picture';
import { copyMaps } from './repeat';
import { same } from './same';
import { MOST_COPIES } from './limits';
import type { Art, CutEdge, PlacedPicture, Shape } from './schema';
import { byType, childrenOf, wholePaths, type ParentNode, type TreeNode } from './tree';

// The drawing as it is painted: the one description that the bed, the thumbnails and every file read. Parts follow one
// another bottom first; each is whole (its parts about an axis too) and in figures (its chips looked up).

/** The outline within which a part is seen. Inside by the even-odd rule. */
export interface Clip {
  /** The shape whose outline it is. */
  readonly id: string;
  readonly paths: readonly Path[];
}

/** What shows of a part by how light it is there: all of it where that is white, nothing where it is black. */
export type Mask = EdgeMask | ShadowMask;

/** An outline, grown and softened. */
export interface EdgeMask extends Clip {
  readonly kind: 'edge';
  /** How far the cut lies outside the outline, sheet pixels; below 0 inside. */
  readonly by: number;
  /** Standard deviation of a Gaussian, sheet pixels; 0 for sharp. */
  readonly soft: number;
}

/** How dark parts are beside a ground, on one side of an outline, fading out with the distance from it. */
interface ShadowMask extends Clip {
  readonly kind: 'shadow';
  readonly side: number;
  readonly reach: number;
  readonly ground: number;
  /** What is dark or light. */
  readonly parts: readonly PaintedPart[];
}

interface Part {
  /** The node that is painted. */
  readonly id: string;
  readonly name: string;
  /** How the whole of it is laid over what is beneath. Opacity from 0 to 1. */
  readonly opacity: number;
  readonly blend: Blend;
  /** Standard deviation of a Gaussian, sheet pixels; 0 for none. It comes before the clip. */
  readonly blur: number;
  /** Beneath it, after the blur and before the clip; null for none. */
  readonly shadow: Shadow | null;
  /** Cuts it; null for none. What clips the groups it stands in cuts it as well. */
  readonly clip: Clip | null;
  /** Softens what the clip leaves of it; null for none. */
  readonly mask: Mask | null;
}

/** A stroke with its chips looked up. */
export type SeenStroke = Omit<Stroke, 'paint'> & { readonly paint: SeenPaint };

export interface PaintedShape extends Part {
  readonly type: 'shape';
  /** All lines of it; where a fill covers twice it is outside. Open ones are filled as if they were closed. */
  readonly paths: readonly Path[];
  readonly fill: SeenPaint | null;
  readonly fillRule: 'evenodd';
  /** Painted over the fill, or beneath it where it says so. */
  readonly stroke: SeenStroke | null;
}

/** A picture, straightened and cropped, without what it is seen by (wash, views). */
export interface PaintedPicture extends Part {
  readonly type: 'picture';
  readonly picture: PlacedPicture;
}

/**
 * A layer or group. One that is opaque, normal, sharp and without a shadow is no more than its parts one after another: they are blended
 * with what lies beneath it. Any other is painted by itself first and laid over what lies beneath as a whole.
 */
export interface PaintedGroup extends Part {
  readonly type: 'group';
  readonly parts: readonly PaintedPart[];
}

export type PaintedPart = PaintedShape | PaintedPicture | PaintedGroup;

/** What parts are looked up in. */
interface Tables {
  readonly palette: Palette;
  readonly pictures: Art['pictures'];
}

const clips = new WeakMap<Shape, Clip>();

function clipOf(shape: Shape): Clip {
  let clip = clips.get(shape);
  if (!clip) clips.set(shape, (clip = { id: shape.id, paths: wholePaths(shape) }));
  return clip;
}

const partFields = (node: TreeNode, clip: Clip | null): Part => ({
  id: node.id,
  name: node.name,
  opacity: node.opacity,
  blend: node.blend ?? 'normal',
  blur: node.blur ?? 0,
  shadow: node.shadow ?? null,
  clip,
  mask: null,
});

function paintedShape(shape: Shape, clip: Clip | null, { palette }: Tables): PaintedShape {
  const { fill, stroke } = shape;
  return {
    type: 'shape',
    ...partFields(shape, clip),
    paths: wholePaths(shape),
    fill: fill && seenPaint(fill, palette),
    fillRule: 'evenodd',
    stroke: stroke && { ...stroke, paint: seenPaint(stroke.paint, palette) },
  };
}

const copiesMade = new WeakMap<PaintedPart, Map<string, PaintedPart>>();
const clipsMade = new WeakMap<Clip, Map<string, Clip>>();

/** Kept by what it is of and where it is put, so that only what changed is made again. */
function keptCopy<T extends object>(kept: WeakMap<T, Map<string, T>>, of: T, key: string, make: () => T): T {
  let copies = kept.get(of);
  if (!copies) kept.set(of, (copies = new Map()));
  let copy = copies.get(key);
  if (!copy) {
    // While a ring is turned by hand, what it was a moment ago is not wanted any more.
    if (copies.size >= 2 * MOST_COPIES) copies.clear();
    copies.set(key, (copy = make()));
  }
  return copy;
}

const seenAt = (paint: SeenPaint, map: Affine): SeenPaint =>
  paint.kind === 'flat' ? paint : { ...paint, placement: compose(map, paint.placement) };

function copiedMask(mask: Mask, map: Affine, mark: string): Mask {
  const paths = mask.paths.map((path) => transformPath(path, map));
  const placed = { id: `${mask.id}${mark}`, paths };
  if (mask.kind === 'edge') return { ...mask, ...placed };
  const side = mask.side + Math.atan2(map[1], map[0]);
  return { ...mask, ...placed, side, parts: mask.parts.map((part) => copiedPart(part, map, mark)) };
}

/** A part put somewhere else by a map that keeps its size; its ids end in `mark`. */
function copiedPart(part: PaintedPart, map: Affine, mark: string): PaintedPart {
  return keptCopy(copiesMade, part, `${mark} ${map.join(' ')}`, (): PaintedPart => {
    const clip =
      part.clip &&
      keptCopy(clipsMade, part.clip, `${mark} ${map.join(' ')}`, () => ({
        id: `${part.clip!.id}${mark}`,
        paths: part.clip!.paths.map((path) => transformPath(path, map)),
      }));
    const mask = part.mask && copiedMask(part.mask, map, mark);
    const placed = { id: `${part.id}${mark}`, clip, mask };
    if (part.type === 'group')
      return { ...part, ...placed, parts: part.parts.map((inner) => copiedPart(inner, map, mark)) };
    if (part.type === 'picture') {
      const { picture } = part;
      return { ...part, ...placed, picture: { ...picture, placement: compose(map, picture.placement) } };
    }
    return {
      ...part,
      ...placed,
      paths: part.paths.map((path) => transformPath(path, map)),
      fill: part.fill && seenAt(part.fill, map),
      stroke: part.stroke && { ...part.stroke, paint: seenAt(part.stroke.paint, map) },
    };
  });
}

const parts = new WeakMap<TreeNode, { readonly tables: Tables; readonly part: PaintedPart }>();

/** Whether two parts paint the same: what is under a group is compared as objects. */
function samePart(a: PaintedPart, b: PaintedPart): boolean {
  const [one, two] = [a as unknown as Record<string, unknown>, b as unknown as Record<string, unknown>];
  return Object.keys(one).every((key) => {
    const [x, y] = [one[key], two[key]];
    if (key === 'fill' || key === 'stroke' || key === 'shadow') return same(x, y);
    if (key === 'mask') return sameMask(x as Mask | null, y as Mask | null);
    return key === 'parts' ? sameObjects(x as readonly PaintedPart[], y as readonly PaintedPart[]) : x === y;
  });
}

const sameObjects = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((item, i) => item === b[i]);

function sameMask(a: Mask | null, b: Mask | null): boolean {
  if (!a || !b) return a === b;
  const [one, two] = [a as unknown as Record<string, unknown>, b as unknown as Record<string, unknown>];
  return Object.keys({ ...one, ...two }).every((key) =>
    key === 'parts' ? sameObjects(one.parts as unknown[], two.parts as unknown[]) : one[key] === two[key],
  );
}

/** The part kept for a node where it is as it was, so that only what changed is painted anew. */
function kept<T extends PaintedPart>(node: TreeNode, tables: Tables, part: T): T {
  const known = parts.get(node)?.part;
  const now = known && samePart(part, known) ? (known as T) : part;
  parts.set(node, { tables, part: now });
  return now;
}

/** What to paint of the tree. */
interface Choice {
  /** Whether a node is wanted whatever it stands in. */
  readonly wanted: (node: TreeNode) => boolean;
  /** Hidden ones too, and shapes without fill and stroke. */
  readonly all: boolean;
}

function paintedPart(node: TreeNode, clip: Clip | null, tables: Tables, choice: Choice): PaintedPart | null {
  if (!node.shown && !choice.all) return null;
  // Most nodes are shapes as they were.
  if (node.type === 'shape') {
    const known = parts.get(node);
    if (known?.tables.palette === tables.palette && known.part.clip === clip && choice.wanted(node))
      return known.part;
  }
  return byType<PaintedPart | null>(node, {
    layer: (layer) => paintedGroup(layer, clip, tables, choice),
    group: (group) => paintedGroup(group, clip, tables, choice),
    shape: (shape) => {
      if (!choice.wanted(shape) || (!choice.all && !shape.fill && !shape.stroke)) return null;
      const part = paintedShape(shape, clip, tables);
      return choice.all ? part : kept(shape, tables, part);
    },
    picture: (node) => {
      const picture = tables.pictures.find((p) => p.id === node.picture);
      if (!choice.wanted(node) || !picture) return null;
      return kept(node, tables, { type: 'picture', ...partFields(node, clip), picture });
    },
  });
}

function paintedGroup(
  node: ParentNode,
  clip: Clip | null,
  tables: Tables,
  { wanted, all }: Choice,
): PaintedGroup | null {
  const whole = wanted(node);
  const clipping = node.type === 'group' ? node.children.find((c) => c.id === node.clip) : undefined;
  const cut = clipping?.type === 'shape' ? clipOf(clipping) : null;
  const edge = cut && node.type === 'group' ? node.edge : undefined;
  // An edge that is not a sharp one cuts what is clipped as a whole.
  const within = edge ? null : cut;
  const inside: Choice = { wanted: whole ? () => true : wanted, all };
  const painted = childrenOf(node).flatMap(
    (child) => paintedPart(child, child === clipping ? null : within, tables, inside) ?? [],
  );
  if (!whole && painted.length === 0) return null;
  const inner = edge ? withEdge(node, painted, cut!, edge, !all) : painted;
  const copies = node.type === 'group' ? copyMaps(node) : [];
  const seen = [
    ...inner,
    ...copies.flatMap((map, k) => inner.map((one) => copiedPart(one, map, `_${node.id}_${k + 2}`))),
  ];
  const part: PaintedGroup = { type: 'group', ...partFields(node, clip), parts: seen };
  return whole && !all ? kept(node, tables, part) : part;
}

const plainPart = (id: string, name: string): Part => ({
  id,
  name,
  opacity: 1,
  blend: 'normal',
  blur: 0,
  shadow: null,
  clip: null,
  mask: null,
});

const edgesMade = new WeakMap<Clip, readonly PaintedPart[]>();

/**
 * What a group's shape clips, as one part under a mask, above the shadow that stays and what the shape itself paints. What
 * is painted for good is remembered, so that only what changed is painted anew.
 */
function withEdge(
  { name }: ParentNode,
  painted: readonly PaintedPart[],
  cut: Clip,
  { by, soft, shadow }: CutEdge,
  remember: boolean,
): readonly PaintedPart[] {
  const own = painted.filter((part) => part.id === cut.id);
  const clipped = painted.filter((part) => part.id !== cut.id);
  if (clipped.length === 0) return own;
  const outline = { id: cut.id, paths: cut.paths };
  const whole: PaintedGroup = {
    ...plainPart(`${cut.id}_within`, name),
    type: 'group',
    parts: clipped,
    mask: { kind: 'edge', ...outline, by, soft },
  };
  const made: PaintedPart[] = [whole];
  if (shadow) {
    const mask: Mask = { kind: 'shadow', ...outline, ...shadow, parts: clipped };
    made.unshift({
      ...plainPart(`${cut.id}_shadow`, `Shadow of ${name}`),
      type: 'shape',
      paths: [boxPath(maskBox(mask))],
      fill: { kind: 'flat', hex: '#000000' },
      fillRule: 'evenodd',
      stroke: null,
      mask,
    });
  }
  // Only what changed is painted anew.
  const known = (remember && edgesMade.get(cut)) || [];
  const now = made.map((part, i) => (known[i] && samePart(part, known[i]) ? known[i] : part));
  if (remember) edgesMade.set(cut, now);
  return [...own, ...now];
}

const WHOLE: Choice = { wanted: () => true, all: false };
const EVERYTHING: Choice = { wanted: () => true, all: true };

const tablesOf = ({ chips, pictures }: Art): Tables => ({ palette: paletteOf(chips), pictures });

/**
 * What is painted of a drawing, layers first, bottom first: all that is shown and has a fill, a stroke or pixels.
 *
 * @param only ids of nodes: no more than these and what stands in them, within the layers and groups they stand in
 */
export function paintList(art: Art, only?: ReadonlySet<string>): readonly PaintedGroup[] {
  const tables = tablesOf(art);
  const choice = only ? { wanted: (node: TreeNode) => only.has(node.id), all: false } : WHOLE;
  return art.layers.flatMap((layer) => (paintedPart(layer, null, tables, choice) ?? []) as PaintedGroup);
}

/** A node of a drawing as it is painted by itself, hidden or not; null for a picture that is not in the document. */
export const paintedNode = (art: Art, node: TreeNode): PaintedPart | null =>
  paintedPart(node, null, tablesOf(art), EVERYTHING);

/** A part that is no group, with all that the groups it stands in do to it. */
export interface PaintedLeaf {
  readonly part: PaintedShape | PaintedPicture;
  /** Its own opacity times those of what it stands in. */
  readonly opacity: number;
  /** All outlines that cut it. */
  readonly clips: readonly Clip[];
}

/** The parts that are no groups, in the order they are painted. */
export const paintedLeaves = (
  list: readonly PaintedPart[],
  opacity = 1,
  outer: readonly Clip[] = [],
): PaintedLeaf[] =>
  list.flatMap((part) => {
    const clipped = part.clip ? [...outer, part.clip] : outer;
    const seen = opacity * part.opacity;
    return part.type === 'group'
      ? paintedLeaves(part.parts, seen, clipped)
      : [{ part, opacity: seen, clips: clipped }];
  });

/** The pictures that are painted, each as often as it is, those that lend a mask their light too. */
export const paintedPictures = (parts: readonly PaintedPart[]): PlacedPicture[] =>
  parts.flatMap((part) => [
    ...(part.mask?.kind === 'shadow' ? paintedPictures(part.mask.parts) : []),
    ...(part.type === 'group' ? paintedPictures(part.parts) : part.type === 'picture' ? [part.picture] : []),
  ]);

/** A blur reaches so many standard deviations: beyond, less than one 255th is left. */
const BLUR_REACH = 3;

const pathsBox = (paths: readonly Path[]): Box => paths.map(pathBounds).reduce(uniteBoxes, EMPTY_BOX);

const meet = (a: Box, b: Box): Box => ({
  x0: Math.max(a.x0, b.x0),
  y0: Math.max(a.y0, b.y0),
  x1: Math.min(a.x1, b.x1),
  y1: Math.min(a.y1, b.y1),
});

/** How far a mask reaches, sheet pixels. */
export function maskBox(mask: Mask): Box {
  const box = pathsBox(mask.paths);
  if (isEmptyBox(box)) return box;
  return growBox(box, mask.kind === 'edge' ? Math.max(0, mask.by) + BLUR_REACH * mask.soft : mask.reach);
}

/** Bounds of what a part paints before it is blurred and cut, sheet pixels. */
function sharpBox(part: PaintedPart): Box {
  if (part.type === 'group') return paintedBox(part.parts);
  if (part.type === 'picture') return boxOfPoints(shownCorners(part.picture));
  const lines = pathsBox(part.paths);
  const { stroke } = part;
  if (!stroke) return lines;
  const painted = part.paths.map((p) => strokeBounds(p, stroke)).reduce(uniteBoxes, EMPTY_BOX);
  return part.fill ? uniteBoxes(lines, painted) : painted;
}

/** What a part's blur and shadow need room for, sheet pixels. */
export function filterBox(part: PaintedPart): Box {
  const box = growBox(sharpBox(part), BLUR_REACH * part.blur);
  const { shadow } = part;
  if (!shadow || isEmptyBox(box)) return box;
  const beneath = { x0: box.x0 + shadow.x, y0: box.y0 + shadow.y, x1: box.x1 + shadow.x, y1: box.y1 + shadow.y }; // prettier-ignore
  return uniteBoxes(box, growBox(beneath, BLUR_REACH * shadow.blur));
}

/** Bounds of what is painted, strokes, blurs, shadows and clips counted; `EMPTY_BOX` for nothing. */
export const paintedBox = (list: readonly PaintedPart[]): Box =>
  list
    .map((part) => {
      const box = filterBox(part);
      const clipped = part.clip ? meet(box, pathsBox(part.clip.paths)) : box;
      return part.mask ? meet(clipped, maskBox(part.mask)) : clipped;
    })
    .filter((box) => !isEmptyBox(box))
    .reduce(uniteBoxes, EMPTY_BOX);
