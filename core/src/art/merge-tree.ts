import { deriveAbout } from '../path/axis';
import { deriveFlow } from '../path/flow';
import { keepForm } from '../path/form-path';
import type { Path } from '../path/path';
import { holdShared, shares } from '../path/shared-anchors';
import { mergeFields, type Fields } from './merge-fields';
import { mergePaths, togetherAgain } from './merge-lines';
import { sameRow, tableOf, type Row, type Sides } from './merge-table';
import { mergeOrder } from './order';
import type { Art, ArtNode, Group, Layer, PictureNode, Shape } from './schema';
import { childrenOf, type TreeNode } from './tree';

// Layers, groups, shapes and paths of two drawings brought together by id: which there are, what each stands in, in
// what order, and its fields.

/** Which ids the merged drawing has: what one side took away and the other left as it was is gone. */
function presentIds({ base, mine, theirs }: Sides<ReadonlyMap<string, Row>>): Set<string> {
  const present = new Set<string>();
  const changed = new Set<string>();
  // What was changed on one side and taken away on the other stays, and with it all it stands in.
  const keep = (row: Row, table: ReadonlyMap<string, Row>): void => {
    for (
      let at: Row | undefined = row;
      at && !changed.has(at.id);
      at = at.parent === null ? undefined : table.get(at.parent)
    ) {
      changed.add(at.id);
      present.add(at.id);
      // A shape that stays has all its lines.
      if (at.type === 'shape') for (const path of at.list) present.add(path);
    }
  };
  const add = (own: ReadonlyMap<string, Row>, other: ReadonlyMap<string, Row>): void => {
    for (const row of own.values()) {
      const before = base.get(row.id);
      if (other.has(row.id)) present.add(row.id);
      else if (!before || !sameRow(before, row)) keep(row, own);
    }
  };
  add(mine, theirs);
  add(theirs, mine);
  return present;
}

/**
 * The layers of the merged drawing; nodes that did not change are the objects they were.
 *
 * @param names gains the names of what both sides changed in one field
 */
export function mergeTree(base: Art, mine: Art, theirs: Art, names: Set<string>): readonly Layer[] {
  if (base.layers === theirs.layers) return mine.layers;
  if (base.layers === mine.layers) return theirs.layers;
  const tables: Sides<ReadonlyMap<string, Row>> = {
    base: tableOf(base),
    mine: tableOf(mine),
    theirs: tableOf(theirs),
  };
  const present = presentIds(tables);
  const either = (id: string): Row => (tables.mine.get(id) ?? tables.theirs.get(id))!;
  const conflict = (id: string): void => {
    const row = either(id);
    const named = row.type === 'path' && row.parent !== null ? either(row.parent) : row;
    names.add(String(named.fields.name));
  };
  const paths = mergePaths(tables, present, conflict);
  togetherAgain(paths, tables);

  const parents = new Map<string, string | null>();
  for (const id of present) {
    const [b, m, t] = [tables.base.get(id), tables.mine.get(id), tables.theirs.get(id)];
    if (m && t) {
      if (b && b.parent !== m.parent && b.parent !== t.parent && m.parent !== t.parent) conflict(id);
      parents.set(id, b && b.parent === m.parent ? t.parent : m.parent);
    } else parents.set(id, (m ?? t)!.parent);
  }
  // A parent that is gone (its group was freed on the other side) hands on to its own, in the end to a layer.
  const standsIn = (id: string): string | null => {
    let parent = parents.get(id) ?? null;
    while (parent !== null && !present.has(parent))
      parent =
        (tables.mine.get(parent) ?? tables.theirs.get(parent) ?? tables.base.get(parent))?.parent ?? null;
    return parent;
  };
  const firstLayer = [...present].find((id) => either(id).type === 'layer') ?? null;
  for (const id of present)
    parents.set(id, standsIn(id) ?? (either(id).type === 'layer' ? null : firstLayer));
  // Two groups, each moved into the other: there, mine stand as they stood here.
  for (const id of present) {
    const seen = new Set<string>();
    for (let at: string | null = id; at !== null; at = parents.get(at) ?? null) {
      if (!seen.has(at)) {
        seen.add(at);
        continue;
      }
      for (const held of seen) if (tables.mine.has(held)) parents.set(held, tables.mine.get(held)!.parent);
      conflict(id);
      break;
    }
  }

  const standingIn = new Map<string | null, Set<string>>();
  for (const [id, parent] of parents) {
    if (!standingIn.has(parent)) standingIn.set(parent, new Set());
    standingIn.get(parent)!.add(id);
  }
  const listOf = (parent: string | null): string[] => {
    const own = standingIn.get(parent) ?? new Set<string>();
    const ids = (table: ReadonlyMap<string, Row>, art: Art): readonly string[] =>
      parent === null ? art.layers.map(({ id }) => id) : (table.get(parent)?.list ?? []);
    const order = mergeOrder(
      ids(tables.base, base).filter((id) => own.has(id)),
      ids(tables.mine, mine).filter((id) => own.has(id)),
      ids(tables.theirs, theirs).filter((id) => own.has(id)),
    );
    // What came here because its own parent is gone stands on top.
    const placed = new Set(order);
    return [...order, ...[...own].filter((id) => !placed.has(id))];
  };
  const mineNodes = new Map<string, object>();
  const theirNodes = new Map<string, object>();
  const note = (map: Map<string, object>, nodes: readonly TreeNode[]): void => {
    for (const node of nodes) {
      map.set(node.id, node);
      if (node.type === 'shape') node.paths.forEach((p) => map.set(p.id, p));
      else note(map, childrenOf(node));
    }
  };
  note(mineNodes, mine.layers);
  note(theirNodes, theirs.layers);
  /** The node of either side where it is just that, so that what did not change stays the same object. */
  const held = <T extends object>(id: string, made: T): T => {
    for (const side of [mineNodes.get(id), theirNodes.get(id)])
      if (side && sameShallow(side, made)) return side as T;
    return made;
  };
  const build = (id: string): TreeNode | null => {
    const { type, fields: first } = either(id);
    const [b, m, t] = [tables.base.get(id), tables.mine.get(id), tables.theirs.get(id)];
    const fields = m && t ? mergeFields(b?.fields, m.fields, t.fields, () => conflict(id)) : first;
    if (type === 'picture') return held(id, fields as unknown as PictureNode);
    if (type !== 'shape') {
      const children = listOf(id).flatMap((child) => (build(child) ?? []) as ArtNode);
      const made = { ...fields, children: heldList(id, 'children', children) } as unknown as Group;
      return held(id, withClipThere(made));
    }
    const lines = listOf(id).map((path) => held(path, settledPath(path)));
    if (lines.length === 0) return null;
    return held(id, { ...fields, paths: heldList(id, 'paths', lines) } as unknown as Shape);
  };
  const heldList = <T>(id: string, key: string, list: readonly T[]): readonly T[] => {
    for (const side of [mineNodes.get(id), theirNodes.get(id)]) {
      const known = (side as Record<string, readonly T[] | undefined> | undefined)?.[key];
      if (known && known.length === list.length && known.every((item, i) => item === list[i])) return known;
    }
    return list;
  };
  const settledPath = (id: string): Path => {
    const path = paths.get(id)!;
    const sides = [tables.mine.get(id), tables.theirs.get(id)].map(
      (row) => row?.fields as unknown as Path | undefined,
    );
    if (sides.some((side) => side && side.anchors === path.anchors)) return path;
    const parent = parents.get(id);
    const shape = parent ? (mineNodes.get(parent) ?? theirNodes.get(parent)) : undefined;
    const axis = (shape as Shape | undefined)?.axis;
    const next = shares(path) ? holdShared(path) : path;
    return keepForm(axis ? deriveAbout(next, axis) : deriveFlow(next));
  };
  const layers = listOf(null).map((id) => build(id) as Layer);
  return layers.length > 0 ? layers : mine.layers;
}

/** The group without its clip, and the clip's edge, where the shape that clipped it no longer stands in it. */
function withClipThere(group: Group): Group {
  const { clip, edge: _, ...rest } = group;
  return clip === undefined || group.children.some((c) => c.id === clip && c.type === 'shape') ? group : rest;
}

/** Whether two objects hold the same values under the same names, parts compared as objects first. */
function sameShallow(a: object, b: object): boolean {
  const [one, two] = [a as Fields, b as Fields];
  const keys = Object.keys(one);
  return keys.length === Object.keys(two).length && keys.every((key) => one[key] === two[key]);
}
