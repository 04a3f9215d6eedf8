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
