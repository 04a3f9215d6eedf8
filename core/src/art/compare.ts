import { same } from './same';
import type { Art, ArtNode } from './schema';
import { childrenOf, type TreeNode } from './tree';

// Two states of one drawing beside each other: what came, what went, what is not as it was.

/** Shapes and pictures of a drawing that are not the same in another, by their ids. */
export interface ArtComparison {
  /** In the later one alone, in its order, bottom first. */
  readonly added: readonly string[];
  /** In the earlier one alone. */
  readonly gone: readonly string[];
  /** In both, and not alike: lines, paint, name, or how they are laid over others. */
  readonly altered: readonly string[];
}

const leaves = (nodes: readonly TreeNode[]): ArtNode[] =>
  nodes.flatMap((node) =>
    node.type === 'shape' || node.type === 'picture' ? [node] : leaves(childrenOf(node)),
  );

/** Compares two states of one drawing. Where things stand in the stack is not looked at. */
export function compareArt(earlier: Art, later: Art): ArtComparison {
  const before = new Map(leaves(earlier.layers).map((node) => [node.id, node]));
  const after = leaves(later.layers);
  const now = new Set(after.map(({ id }) => id));
  return {
    added: after.flatMap(({ id }) => (before.has(id) ? [] : [id])),
    gone: [...before.keys()].filter((id) => !now.has(id)),
    altered: after.flatMap((node) => {
      const was = before.get(node.id);
      return was && was !== node && !same(was, node) ? [node.id] : [];
    }),
  };
}
