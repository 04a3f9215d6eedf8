import type { Path } from '../path/path';
import type { Fields } from './merge-fields';
import { same } from './same';
import type { Art, ArtNode } from './schema';
import type { TreeNode } from './tree';

/** A node without what stands in it, with where it stands. */
export interface Row {
  readonly id: string;
  readonly parent: string | null;
  readonly type: TreeNode['type'] | 'path';
  readonly fields: Fields;
  /** Ids of what stands in it, in order. */
  readonly list: readonly string[];
}

/** The three drawings that are brought together. */
export interface Sides<T> {
  readonly base: T;
  readonly mine: T;
  readonly theirs: T;
}

/** All nodes of a drawing by their ids, paths included. */
export function tableOf(art: Art): Map<string, Row> {
  const table = new Map<string, Row>();
  const put = (node: TreeNode, parent: string | null): void => {
    const {
      paths = [],
      children = [],
      ...fields
    } = node as unknown as Fields & {
      readonly paths?: readonly Path[];
      readonly children?: readonly ArtNode[];
    };
    const items: readonly { readonly id: string }[] = node.type === 'shape' ? paths : children;
    table.set(node.id, { id: node.id, parent, type: node.type, fields, list: items.map(({ id }) => id) });
    for (const path of paths)
      table.set(path.id, { id: path.id, parent: node.id, type: 'path', fields: { ...path }, list: [] });
    for (const child of children) put(child, node.id);
  };
  for (const layer of art.layers) put(layer, null);
  return table;
}

export const sameRow = (a: Row, b: Row): boolean =>
  a.parent === b.parent && (a.fields === b.fields || same(a.fields, b.fields));
