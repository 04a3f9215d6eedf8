import { current, isDraft, original, type Draft } from 'mutative';
import type { Art, Group, Layer, Shape } from '../schema';
import { findNode, nodePlaces, type Found, type TreeNode } from '../tree';

// Finding things in a draft of the document.

/**
 * Finds a node in a draft. Walking a draft makes a proxy of every node passed, so it is looked up in the document the
 * draft was made of; where the draft has changed too much since for that place to hold, it is searched.
 */
export function draftFind(draft: Draft<Art>, id: string): Found | null {
  const place = isDraft(draft) ? nodePlaces(original(draft) as Art).get(id) : undefined;
  if (place) {
    let parent: Layer | Group | null = null;
    let list: readonly TreeNode[] = draft.layers as readonly TreeNode[];
    place.slice(0, -1).forEach((i) => {
      const node = list[i];
      parent = node && node.type !== 'shape' ? node : null;
      list = parent?.children ?? [];
    });
    const index = place.at(-1)!;
    const node = list[index];
    if (node?.id === id) return { node, parent, index };
  }
  return findNode(draft as Art, id);
}

export const draftNode = (draft: Draft<Art>, id: string): Draft<Layer | Group | Shape> | null =>
  (draftFind(draft, id)?.node as Draft<Layer | Group | Shape> | undefined) ?? null;

export const draftShape = (draft: Draft<Art>, id: string): Draft<Shape> | null => {
  const node = draftNode(draft, id);
  return node?.type === 'shape' ? node : null;
};

export const plain = <T extends object>(value: T): T => (isDraft(value) ? current(value) : value);
