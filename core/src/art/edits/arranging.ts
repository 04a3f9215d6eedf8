import { IDENTITY, scaling, translation, about, type Affine } from '../../geometry/affine';
import {
  boxCentre,
  boxHeight,
  boxWidth,
  EMPTY_BOX,
  isEmptyBox,
  uniteBoxes,
  type Box,
} from '../../geometry/bounds';
import { emptyArt } from '../blank';
import { previewArt, type Recipe } from '../change';
import { paintedBox, paintedNode } from '../paint-list';
import { outlineBox } from '../repeat';
import type { Art, ArtNode } from '../schema';
import { findNode, inPaintOrder, nodesOf, outermost, shapesIn, type TreeNode } from '../tree';
import { plain } from './draft';
import { together } from './nodes';
import { mapShape } from './paths';
import { mapRepeats } from './repeating';

// Shapes, groups and layers put into places as wholes: each by its box, whatever stands in it goes along.

/** What of a node counts: its outlines alone, or all that is painted, line weight and blur with it. */
export type Extent = 'outline' | 'painted';

/** A side or the middle of a box along one direction: 0 left or top, 0.5 middle, 1 right or bottom. */
export type Side = 0 | 0.5 | 1;

/** What nodes are put against: the box round all of them, the sheet, or one of them, which stays. */
export type Frame = 'choice' | 'sheet' | { readonly stays: string };

/** Where nodes go; null leaves a direction as it is. */
export interface Place {
  readonly across: Side | null;
  readonly down: Side | null;
}

type Way = 'across' | 'down';

/** Box of a node, sheet pixels; `EMPTY_BOX` where it is not there or nothing of it counts. */
export function nodeBox(art: Art, id: string, extent: Extent = 'outline'): Box {
  const node = findNode(art, id)?.node;
  return node ? boxOfNode(art, node, extent) : EMPTY_BOX;
}

function boxOfNode(art: Art, node: TreeNode, extent: Extent): Box {
  if (extent === 'outline') return outlineBox(node);
  const part = paintedNode(art, node);
  return part ? paintedBox([part]) : EMPTY_BOX;
}

/** Box round several nodes. */
export const nodesBox = (art: Art, ids: readonly string[], extent: Extent = 'outline'): Box =>
  nodesOf(art, ids)
    .map((node) => boxOfNode(art, node, extent))
    .reduce(uniteBoxes, EMPTY_BOX);

/** Maps all that stands in a node, as it is in a drawing. */
const mapNode = (art: Art, id: string, map: Affine): Recipe => {
  const node = findNode(art, id)?.node;
  return together(
    ...(node ? shapesIn(node) : []).map((shape) => mapShape(shape, map)),
    mapRepeats([id], map),
  );
};

interface Boxed {
  readonly id: string;
  readonly box: Box;
}

/** Nodes that have a box, each as a whole, bottom first. */
const boxed = (art: Art, ids: readonly string[], extent: Extent): Boxed[] =>
  outermost(art, inPaintOrder(art, ids))
    .map((id) => ({ id, box: nodeBox(art, id, extent) }))
    .filter(({ box }) => !isEmptyBox(box));

const low = (box: Box, way: Way): number => (way === 'across' ? box.x0 : box.y0);
const size = (box: Box, way: Way): number => (way === 'across' ? boxWidth(box) : boxHeight(box));
const along = (way: Way, by: number): Affine => (way === 'across' ? translation(by, 0) : translation(0, by));

/**
 * Puts nodes against the sides or the middle of a frame, each by its own box. The one that stays does not move. Nodes that are
 * not there, or have nothing that counts, are left out.
 */
export const arrangeNodes =
  (ids: readonly string[], { across, down }: Place, frame: Frame, extent: Extent = 'outline'): Recipe =>
  (draft) => {
    const art = plain(draft as Art);
    const nodes = boxed(art, ids, extent);
    const stays = typeof frame === 'object' ? frame.stays : null;
    const { width, height } = art.sheet;
    const to =
      frame === 'sheet'
        ? { x0: 0, y0: 0, x1: width, y1: height }
        : stays !== null
          ? nodeBox(art, stays, extent)
          : nodes.map((n) => n.box).reduce(uniteBoxes, EMPTY_BOX);
    if (isEmptyBox(to)) return;
    const by = (box: Box, way: Way, side: Side | null): number =>
      side === null ? 0 : low(to, way) - low(box, way) + side * (size(to, way) - size(box, way));
    for (const { id, box } of nodes)
      if (id !== stays)
        mapNode(art, id, translation(by(box, 'across', across), by(box, 'down', down)))(draft);
  };

/**
 * Moves nodes in one direction so that the gaps between them are alike; the first and the last along it stay. Where they are
 * wider together than the room, they overlap alike. Fewer than three stay as they are.
 */
export const spreadNodes =
  (ids: readonly string[], way: Way, extent: Extent = 'outline'): Recipe =>
  (draft) => {
    const art = plain(draft as Art);
    const middle = ({ box }: Boxed): number => low(box, way) + size(box, way) / 2;
    const nodes = boxed(art, ids, extent).sort((a, b) => middle(a) - middle(b));
    if (nodes.length < 3) return;
    const [first, last] = [nodes[0]!, nodes.at(-1)!];
    const room = low(last.box, way) + size(last.box, way) - low(first.box, way);
    const gap = (room - nodes.reduce((sum, n) => sum + size(n.box, way), 0)) / (nodes.length - 1);
    let at = low(first.box, way);
    for (const { id, box } of nodes) {
      mapNode(art, id, along(way, at - low(box, way)))(draft);
      at += size(box, way) + gap;
    }
  };

/**
 * Scales nodes in proportion, each about its middle, to the width or height of one of them. What has no extent that way stays.
 */
export const matchNodes =
  (ids: readonly string[], of: string, way: Way, extent: Extent = 'outline'): Recipe =>
  (draft) => {
    const art = plain(draft as Art);
    const wanted = size(nodeBox(art, of, extent), way);
    if (!(wanted > 0)) return;
    for (const { id, box } of boxed(art, ids, extent)) {
      const k = wanted / size(box, way);
      if (id !== of && Number.isFinite(k)) mapNode(art, id, about(scaling(k), boxCentre(box)))(draft);
    }
  };

/** Mirrors nodes together about the middle of the box round them: across swaps left and right. */
export const flipNodes =
  (ids: readonly string[], way: Way): Recipe =>
  (draft) => {
    const art = plain(draft as Art);
    const nodes = boxed(art, ids, 'outline');
    const box = nodes.map((n) => n.box).reduce(uniteBoxes, EMPTY_BOX);
    if (isEmptyBox(box)) return;
    const flip = about(way === 'across' ? scaling(-1, 1) : scaling(1, -1), boxCentre(box));
    for (const { id } of nodes) mapNode(art, id, flip)(draft);
  };

/** Nodes mapped as wholes, outside any drawing: what they share, they share with each other. */
export function mapApart(nodes: readonly ArtNode[], map: Affine): readonly ArtNode[] {
  if (map === IDENTITY || nodes.length === 0) return nodes;
  const empty = emptyArt({ width: 1, height: 1, unit: 'px' }, 'apart');
  const apart = { ...empty, layers: [{ ...empty.layers[0]!, children: nodes }] };
  const ids = nodes.map(({ id }) => id);
  return previewArt(apart, mapNodes(ids, map)).layers[0]!.children;
}

/** Moves nodes as wholes by a map of the sheet. */
export const mapNodes =
  (ids: readonly string[], map: Affine): Recipe =>
  (draft) => {
    const art = plain(draft as Art);
    if (map === IDENTITY) return;
    for (const id of outermost(art, ids)) mapNode(art, id, map)(draft);
  };
