import { ancestorsOf, childrenOf, type Art, type ArtNode, type TreeNode } from '@mirrot/core';
import type { StackPlace } from '$lib/edits/nesting';

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
  /** Left out of drift with what it stands in. */
  readonly unmeasured: boolean;
  /** For the group it stands in, and each around that from the outermost: whether more of it follows below. */
  readonly veins: readonly boolean[];
}

/** Whether a row can be folded: it holds others. */
export const canFold = (node: TreeNode): boolean => node.type === 'layer' || node.type === 'group';

/** All rows, top of the drawing first; what stands in a folded layer or group is left out. */
export function stackRows(art: Art, folded: ReadonlySet<string>): Row[] {
  const rows: Row[] = [];
  const walk = (
    nodes: readonly (TreeNode | ArtNode)[],
    above: Pick<Row, 'parent' | 'depth' | 'hidden' | 'shut' | 'unmeasured' | 'veins'>,
  ): void => {
    for (let i = nodes.length - 1; i >= 0; i--) {
      const node = nodes[i]!;
      const veins = above.depth > 1 ? [...above.veins, i > 0] : above.veins;
      rows.push({ node, ...above, veins, place: nodes.length - i, beside: nodes.length });
      if (folded.has(node.id)) continue;
      walk(childrenOf(node), {
        parent: node.id,
        depth: above.depth + 1,
        hidden: above.hidden || !node.shown,
        shut: above.shut || node.locked,
        unmeasured: above.unmeasured || ('unmeasured' in node && node.unmeasured === true),
        veins,
      });
    }
  };
  walk(art.layers, { parent: null, depth: 0, hidden: false, shut: false, unmeasured: false, veins: [] });
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

/** Where on a row something is dropped. */
export type RowPart = 'above' | 'in' | 'below';

/** Shares of the height of a row that holds others within which a drop goes beside it, not into it. */
const BESIDE = 0.28;

/** A drop seen before it is made: the place, and how the row shows it. */
export interface Drop {
  readonly row: string;
  readonly part: RowPart;
  readonly depth: number;
  readonly place: StackPlace;
}

/**
 * Where what is dragged would go, dropped on a row; null where it cannot go there: into itself, a layer into a layer.
 *
 * @param share of the row's height, from its top
 * @param folded whether the row is
 */
export function dropOn(
  art: Art,
  row: Row,
  share: number,
  dragged: readonly TreeNode[],
  folded: boolean,
): Drop | null {
  const { node, depth } = row;
  const ids = new Set(dragged.map(({ id }) => id));
  const inside = [node, ...ancestorsOf(art, node.id)].some(({ id }) => ids.has(id));
  if (dragged.length === 0 || inside) return null;
  const at = row.beside - row.place;
  const layers = dragged.filter(({ type }) => type === 'layer').length;
  if (layers > 0) {
    if (layers < dragged.length || node.type !== 'layer') return null;
    return share < 0.5
      ? { row: node.id, part: 'above', depth, place: { parent: null, index: at + 1 } }
      : { row: node.id, part: 'below', depth, place: { parent: null, index: at } };
  }
  const holds = canFold(node);
  const top = { parent: node.id, index: childrenOf(node).length };
  if (node.type === 'layer' || (holds && share >= BESIDE && share <= 1 - BESIDE))
    return { row: node.id, part: 'in', depth, place: top };
  if (share < 0.5)
    return { row: node.id, part: 'above', depth, place: { parent: row.parent, index: at + 1 } };
  // Right below the head of an open group is its top.
  if (holds && !folded) return { row: node.id, part: 'below', depth: depth + 1, place: top };
  return { row: node.id, part: 'below', depth, place: { parent: row.parent, index: at } };
}

/** The rows whose nodes are wanted, and those they stand in. */
export function rowsFound(rows: readonly Row[], wanted: (node: TreeNode) => boolean): Row[] {
  const holding = new Set<string>();
  const found: Row[] = [];
  for (let i = rows.length - 1; i >= 0; i--) {
    const row = rows[i]!;
    if (!holding.has(row.node.id) && !wanted(row.node)) continue;
    found.push(row);
    if (row.parent) holding.add(row.parent);
  }
  return found.reverse();
}
