import { current, isDraft, original, type Draft } from 'mutative';
import type { Art, Shape } from '../schema';
import { findNode, isParent, nodePlaces, placeOf, type Found, type ParentNode, type TreeNode } from '../tree';

// Finding things in a draft of the document.

/** Nodes that belong to a draft alone though they are no proxies: copies of what was put into it. */
const ownedByDraft = new WeakSet<TreeNode>();

/**
 * The node at an index of a draft's list, safe to be changed. What was put into a draft as it stood in a document is no
 * proxy: changed in place, that document would change as well. So a copy takes its place.
 */
function changeable(list: TreeNode[], index: number): TreeNode | undefined {
  const node = list[index];
  if (!node || isDraft(node) || ownedByDraft.has(node)) return node;
  const own = (one: TreeNode): void => {
    ownedByDraft.add(one);
    if (isParent(one)) one.children.forEach(own);
  };
  const copy = cloned(node);
  own(copy);
  return (list[index] = copy);
}

/** The node that stands in a draft at a place of the tree; null where another one does. */
function draftAt(draft: Draft<Art>, place: readonly number[], id: string): Found | null {
  let parent: ParentNode | null = null;
  let list = draft.layers as TreeNode[];
  for (const i of place.slice(0, -1)) {
    const node: TreeNode | undefined = changeable(list, i);
    parent = node && isParent(node) ? node : null;
    list = (parent?.children ?? []) as TreeNode[];
  }
  const index = place.at(-1)!;
  if (list[index]?.id !== id) return null;
  return { node: changeable(list, index)!, parent, index };
}

/**
 * Finds a node in a draft. Walking a draft makes a proxy of every node passed, so its place is looked up in the document
 * the draft was made of, and where the draft has changed since, in what it is now.
 */
export function draftFind(draft: Draft<Art>, id: string): Found | null {
  if (!isDraft(draft)) return findNode(draft as Art, id);
  const place = nodePlaces(original(draft) as Art).get(id);
  const found = place && draftAt(draft, place, id);
  if (found) return found;
  const placeNow = placeOf(current(draft) as Art, id);
  return placeNow && draftAt(draft, placeNow, id);
}

export const draftNode = (draft: Draft<Art>, id: string): Draft<TreeNode> | null =>
  (draftFind(draft, id)?.node as Draft<TreeNode> | undefined) ?? null;

/** A layer or group by id, or null. */
export const draftParent = (draft: Draft<Art>, id: string): Draft<ParentNode> | null => {
  const node = draftNode(draft, id);
  return node && isParent(node as TreeNode) ? (node as Draft<ParentNode>) : null;
};

export const draftShape = (draft: Draft<Art>, id: string): Draft<Shape> | null => {
  const node = draftNode(draft, id);
  return node?.type === 'shape' ? node : null;
};

export const plain = <T extends object>(value: T): T => (isDraft(value) ? current(value) : value);

/** Plain data once more. */
export const cloned = <T>(value: T): T => {
  if (Array.isArray(value)) return value.map(cloned) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, cloned(inner)])) as T;
};
