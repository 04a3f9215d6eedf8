import type { Draft } from 'mutative';
import type { Recipe } from '../change';
import type { ArtNode, Layer, PlacedPicture } from '../schema';
import { childrenOf, type TreeNode } from '../tree';
import { plain } from './draft';
import { removeNodes } from './nodes';

// Pictures on the sheet.

export const addPicture =
  (picture: PlacedPicture): Recipe =>
  (draft) => {
    draft.pictures.push(picture as Draft<PlacedPicture>);
    draft.traced ??= picture.id;
  };

export const setPicture =
  (id: string, values: Partial<Omit<PlacedPicture, 'id'>>): Recipe =>
  (draft) => {
    const picture = draft.pictures.find((p) => p.id === id);
    if (picture) Object.assign(picture, values);
  };

/**
 * Moves a picture one place up or down: past the next picture, or past the drawing, above which it may lie. At the end
 * it stays.
 */
export const movePicture =
  (id: string, move: 'up' | 'down'): Recipe =>
  (draft) => {
    const before = plain(draft.pictures as PlacedPicture[]);
    const order: (PlacedPicture | 'drawing')[] = [
      ...before.filter((p) => !p.above),
      'drawing',
      ...before.filter((p) => p.above),
    ];
    const at = order.findIndex((item) => item !== 'drawing' && item.id === id);
    const to = at + (move === 'up' ? 1 : -1);
    if (at < 0 || to < 0 || to >= order.length) return;
    [order[at], order[to]] = [order[to]!, order[at]!];
    const drawing = order.indexOf('drawing');
    draft.pictures = order.flatMap((item, i) => {
      if (item === 'drawing') return [];
      const { above: _above, ...picture } = item;
      return [i > drawing ? { ...picture, above: true as const } : picture];
    }) as Draft<PlacedPicture>[];
  };

/** Nodes of the tree that show a picture. */
const nodesOfPicture = (nodes: readonly TreeNode[], picture: string): ArtNode[] =>
  nodes.flatMap((node) =>
    node.type === 'picture'
      ? node.picture === picture
        ? [node]
        : []
      : nodesOfPicture(childrenOf(node), picture),
  );

/** Takes a picture away, and with it where it stands in the drawing. */
export const removePicture =
  (id: string): Recipe =>
  (draft) => {
    removeNodes(nodesOfPicture(plain(draft.layers as Layer[]), id).map((node) => node.id))(draft);
    draft.pictures = draft.pictures.filter((p) => p.id !== id);
    if (draft.traced === id) draft.traced = draft.pictures[0]?.id ?? null;
  };

export const traceFrom =
  (id: string): Recipe =>
  (draft) => {
    if (draft.pictures.some((p) => p.id === id)) draft.traced = id;
  };
