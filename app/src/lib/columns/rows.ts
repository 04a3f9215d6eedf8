import { childrenOf, type Art, type ArtNode, type TreeNode } from '@mirrot/core';

/** A row of the stack: a layer, group, shape or picture with where it stands and what it inherits. */
export interface Row {
  readonly node: TreeNode;
  /** The row it stands in; null for layers. */
  readonly parent: string | null;
  readonly depth: number;
  /** Its place among those beside it, from 1 at the top, and how many they are. */
  readonly place: number;
  readonly beside: number;
  /** Hidden or locked by what it stands in. */
  readonly hidden: boolean;
  readonly shut: boolean;
}

/** Whether a row can be folded: it holds others. */
export const canFold = (node: TreeNode): boolean => node.type === 'layer' || node.type === 'group';

/** All rows, top of the drawing first; what stands in a folded layer or group is left out. */
export function stackRows(art: Art, folded: ReadonlySet<string>): Row[] {
  const rows: Row[] = [];
  const walk = (
    nodes: readonly (TreeNode | ArtNode)[],
    above: Pick<Row, 'parent' | 'depth' | 'hidden' | 'shut'>,
  ): void => {
    for (let i = nodes.length - 1; i >= 0; i--) {
      const node = nodes[i]!;
      rows.push({ node, ...above, place: nodes.length - i, beside: nodes.length });
      if (folded.has(node.id)) continue;
      walk(childrenOf(node), {
        parent: node.id,
        depth: above.depth + 1,
        hidden: above.hidden || !node.shown,
        shut: above.shut || node.locked,
      });
    }
  };
  walk(art.layers, { parent: null, depth: 0, hidden: false, shut: false });
  return rows;
}

/** What a key does in the stack, from the row it is pressed on. */
export type RowStep =
  { readonly to: number } | { readonly fold: string; readonly open: boolean } | { readonly into: true };

/**
 * Where a key leads, as in any tree: up, down, to either end; right opens a row, then goes to its controls; left closes
 * it, or goes to the row it stands in. Null when the key means nothing here.
 *
 * @param page rows that are in sight at once
 */
export function rowStep(
  rows: readonly Row[],
  at: number,
  key: string,
  folded: ReadonlySet<string>,
  page: number,
): RowStep | null {
  const row = rows[at];
  if (!row) return null;
  const within = (i: number): RowStep => ({ to: Math.min(rows.length - 1, Math.max(0, i)) });
  const { node } = row;
  switch (key) {
    case 'ArrowDown':
      return within(at + 1);
    case 'ArrowUp':
      return within(at - 1);
    case 'PageDown':
      return within(at + page);
    case 'PageUp':
      return within(at - page);
    case 'Home':
      return within(0);
    case 'End':
      return within(rows.length - 1);
    case 'ArrowRight':
      return canFold(node) && folded.has(node.id) ? { fold: node.id, open: true } : { into: true };
    case 'ArrowLeft':
      if (canFold(node) && !folded.has(node.id)) return { fold: node.id, open: false };
      return row.parent ? within(rows.findIndex((r) => r.node.id === row.parent)) : null;
    default:
      return null;
  }
}
