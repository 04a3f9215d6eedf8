import { childrenOf, type Art, type ArtNode, type TreeNode } from '@mirrot/core';

/** A row of the stack: a layer, group, shape or picture with how deep it stands and what it inherits. */
export interface Row {
  readonly node: TreeNode;
  readonly depth: number;
  /** Hidden or locked by what it stands in. */
  readonly hidden: boolean;
  readonly shut: boolean;
}

/** All rows, top of the drawing first; what stands in a folded layer or group is left out. */
export function stackRows(art: Art, folded: ReadonlySet<string>): Row[] {
  const rows: Row[] = [];
  const walk = (nodes: readonly ArtNode[], depth: number, hidden: boolean, shut: boolean): void => {
    for (let i = nodes.length - 1; i >= 0; i--) {
      const node = nodes[i]!;
      rows.push({ node, depth, hidden, shut });
      if (!folded.has(node.id)) walk(childrenOf(node), depth + 1, hidden || !node.shown, shut || node.locked);
    }
  };
  for (let i = art.layers.length - 1; i >= 0; i--) {
    const layer = art.layers[i]!;
    rows.push({ node: layer, depth: 0, hidden: false, shut: false });
    if (!folded.has(layer.id)) walk(layer.children, 1, !layer.shown, layer.locked);
  }
  return rows;
}

/** Rows that lie in sight of a list scrolled to `top`, with a few beyond either end. All rows are `height` high. */
export function rowsInSight(
  count: number,
  height: number,
  top: number,
  room: number,
): { readonly from: number; readonly to: number } {
  const spare = 6;
  const from = Math.max(0, Math.floor(top / height) - spare);
  return { from, to: Math.min(count, Math.ceil((top + room) / height) + spare) };
}
