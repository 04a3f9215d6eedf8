import { settleAbout } from '../path/axis';
import { settleFlow } from '../path/flow';
import { keepForm } from '../path/form';
import type { Anchor, Path } from '../path/path';
import { holdShared, shares, withFittingKind } from '../path/share';
import { checkChange, holdingsOf } from './check';
import { mergeOrder } from './order';
import { same } from './same';
import type { Art, Layer, Shape, ShapeNode } from './schema';

// Two drawings that grew from one are brought together over the whole tree by id: parent, order, field by field. Paths
// are parts of the tree as well, since a hole may be freed from one shape and made of another.

/** A drawing that holds what both sides did, and the names of what both changed in one field. */
export interface Merged {
  readonly art: Art;
  /** Names of shapes, layers, pictures where the later hand was taken over the other's, each once. */
  readonly conflicts: readonly string[];
}

type Fields = Readonly<Record<string, unknown>>;

/** A node without what stands in it, with where it stands. */
interface Row {
  readonly id: string;
  readonly parent: string | null;
  readonly type: 'layer' | 'group' | 'shape' | 'path';
  readonly fields: Fields;
  /** Ids of what stands in it, in order. */
  readonly list: readonly string[];
}

function tableOf(art: Art): Map<string, Row> {
  const table = new Map<string, Row>();
  const put = (node: Layer | ShapeNode, parent: string | null): void => {
    const {
      paths = [],
      children = [],
      ...fields
    } = node as unknown as Fields & {
      readonly paths?: readonly Path[];
      readonly children?: readonly ShapeNode[];
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

const sameRow = (a: Row, b: Row): boolean =>
  a.parent === b.parent && (a.fields === b.fields || same(a.fields, b.fields));

/** Picks between values field by field: who changed it has it, and where both did, mine. */
function mergeFields(base: Fields | undefined, mine: Fields, theirs: Fields, conflict: () => void): Fields {
  if (same(mine, theirs)) return mine;
  const out: Record<string, unknown> = {};
  for (const key of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    const [b, m, t] = [base?.[key], mine[key], theirs[key]];
    const taken = same(b, m) ? t : m;
    if (!same(b, m) && !same(b, t) && !same(m, t)) conflict();
    if (taken !== undefined) out[key] = taken;
  }
  return out;
}

const AT = (a: Anchor): Fields => ({ x: a.x, y: a.y });

/** An anchor that both sides changed: its place, its handles, its kind and its marks each by themselves. */
function mergeAnchor(base: Anchor, mine: Anchor, theirs: Anchor, conflict: () => void): Anchor {
  if (mine === theirs || same(base, theirs)) return mine;
  if (same(base, mine)) return theirs;
  const place = mergeFields({ at: AT(base) }, { at: AT(mine) }, { at: AT(theirs) }, conflict).at;
  const { x: _bx, y: _by, ...b } = base;
  const { x: _mx, y: _my, ...m } = mine;
  const { x: _tx, y: _ty, ...t } = theirs;
  const anchor = { ...(place as object), ...mergeFields(b, m, t, conflict) } as unknown as Anchor;
  const { equal, ...bare } = anchor;
  const even = (h: Anchor['in']): number => (h ? Math.hypot(h.x, h.y) : 0);
  const lengths = [even(anchor.in), even(anchor.out)] as const;
  const stillEqual = equal && Math.abs(lengths[0] - lengths[1]) <= 1e-9 * Math.max(...lengths);
  return anchor.kind === 'flowing' ? anchor : withFittingKind(stillEqual ? anchor : bare);
}

/** The lines of a path that both sides changed, or null where one side's have to be taken whole. */
function mergeLines(base: Path, mine: Path, theirs: Path, conflict: () => void): Path | null {
  const even = base.anchors.length === mine.anchors.length && base.anchors.length === theirs.anchors.length;
  if (!even || mine.form || theirs.form) return null;
  const anchors = base.anchors.map((b, i) => mergeAnchor(b, mine.anchors[i]!, theirs.anchors[i]!, conflict));
  const { closed } = mergeFields(
    { closed: base.closed },
    { closed: mine.closed },
    { closed: theirs.closed },
    conflict,
  );
  return { id: mine.id, closed: closed as boolean, anchors };
}

interface Sides<T> {
  readonly base: T;
  readonly mine: T;
  readonly theirs: T;
}

/** Paths whose anchors carry one key, in any of the three drawings, belong together; gives what belongs with `start`. */
function sharingWith(start: ReadonlySet<string>, tables: readonly ReadonlyMap<string, Row>[]): Set<string> {
  const holders = new Map<string, Set<string>>();
  const keysOf = new Map<string, Set<string>>();
  for (const table of tables)
    for (const row of table.values()) {
      if (row.type !== 'path') continue;
      for (const { shared } of (row.fields as unknown as Path).anchors) {
        if (shared === undefined) continue;
        if (!holders.has(shared)) holders.set(shared, new Set());
        holders.get(shared)!.add(row.id);
        if (!keysOf.has(row.id)) keysOf.set(row.id, new Set());
        keysOf.get(row.id)!.add(shared);
      }
    }
  const reached = new Set(start);
  const open = [...start];
  for (let id = open.pop(); id !== undefined; id = open.pop())
    for (const key of keysOf.get(id) ?? [])
      for (const other of holders.get(key)!)
        if (!reached.has(other)) {
          reached.add(other);
          open.push(other);
        }
  return reached;
}

/** What a path is in the merged drawing, before it is looked at what it shares. */
function mergePaths(
  { base, mine, theirs }: Sides<ReadonlyMap<string, Row>>,
  present: ReadonlySet<string>,
  conflict: (id: string) => void,
): Map<string, Path> {
  const out = new Map<string, Path>();
  const torn = new Set<string>();
  const lines = (table: ReadonlyMap<string, Row>, id: string): Path | undefined =>
    table.get(id)?.fields as unknown as Path | undefined;
  for (const id of present) {
    const [b, m, t] = [lines(base, id), lines(mine, id), lines(theirs, id)];
    if ((mine.get(id) ?? theirs.get(id))!.type !== 'path') continue;
    if (!m || !t) out.set(id, (m ?? t)!);
    else if (same(m, t) || (b && same(b, t))) out.set(id, m);
    else if (b && same(b, m)) out.set(id, t);
    else {
      const both = b && mergeLines(b, m, t, () => conflict(id));
      if (!both) {
        conflict(id);
        torn.add(id);
      }
      out.set(id, both ?? m);
    }
  }
  if (torn.size > 0)
    for (const id of sharingWith(torn, [base, mine, theirs])) {
      const [m, now] = [lines(mine, id), out.get(id)];
      if (!m || !now || now === m || same(now, m)) continue;
      conflict(id);
      out.set(id, m);
    }
  return out;
}

/** Puts anchors that share a key onto one spot again: where mine moved it, else where theirs has it. */
function togetherAgain(
  paths: Map<string, Path>,
  { base, mine, theirs }: Sides<ReadonlyMap<string, Row>>,
): void {
  const spots = (table: ReadonlyMap<string, Row>): Map<string, Anchor> => {
    const map = new Map<string, Anchor>();
    for (const row of table.values())
      if (row.type === 'path')
        for (const a of (row.fields as unknown as Path).anchors) if (a.shared) map.set(a.shared, a);
    return map;
  };
  const holders = new Map<string, Anchor[]>();
  for (const { anchors } of paths.values())
    for (const a of anchors) if (a.shared) holders.set(a.shared, [...(holders.get(a.shared) ?? []), a]);
  const apart = new Set(
    [...holders].filter(([, all]) => all.some((a) => a.x !== all[0]!.x || a.y !== all[0]!.y)).map(([k]) => k),
  );
  if (apart.size === 0) return;
  const [was, my, their] = [spots(base), spots(mine), spots(theirs)];
  for (const [id, path] of paths) {
    if (!path.anchors.some((a) => a.shared && apart.has(a.shared))) continue;
    const anchors = path.anchors.map((a) => {
      if (!a.shared || !apart.has(a.shared)) return a;
      const [b, m, t] = [was.get(a.shared), my.get(a.shared), their.get(a.shared)];
      const to = m && (!t || !b || m.x !== b.x || m.y !== b.y) ? m : (t ?? a);
      return { ...a, x: to.x, y: to.y };
    });
    paths.set(id, { ...path, anchors });
  }
}

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

/** What merges a list of things with ids outside the tree: pictures, chips, guides. */
function mergeItems<T extends { readonly id: string }>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  conflict: (item: T) => void,
): readonly T[] {
  if (same(mine, theirs) || same(base, theirs)) return mine;
  if (same(base, mine)) return theirs;
  const [b, m, t] = [base, mine, theirs].map((list) => new Map(list.map((item) => [item.id, item])));
  const order = mergeOrder(
    base.map(({ id }) => id),
    mine.map(({ id }) => id),
    theirs.map(({ id }) => id),
  );
  return order.flatMap((id): T[] => {
    const [was, my, their] = [b!.get(id), m!.get(id), t!.get(id)];
    if (my && their)
      return [
        mergeFields(was as Fields | undefined, my as Fields, their as Fields, () =>
          conflict(my),
        ) as unknown as T,
      ];
    const only = (my ?? their)!;
    return was && same(was, only) ? [] : [only];
  });
}

/**
 * Brings two drawings together that both grew from `base`, so that nothing either did is lost: what each side added,
 * took away, moved in the stack and changed, field by field. Where both changed one field, `mine` is the later hand and
 * has it. Anchors that neighbours share end on one spot.
 *
 * @throws MirrotError `art` should the result be no drawing
 */
export function mergeArt(base: Art, mine: Art, theirs: Art): Merged {
  if (mine === theirs || base === theirs) return { art: mine, conflicts: [] };
  if (base === mine) return { art: theirs, conflicts: [] };
  const names = new Set<string>();
  const conflictOf = (item: { readonly name?: unknown }): void =>
    void names.add(typeof item.name === 'string' && item.name !== '' ? item.name : 'a colour');
  const plainFields = (what: string, b: object, m: object, t: object): Fields =>
    mergeFields(b as Fields, m as Fields, t as Fields, () => names.add(what));
  const layers = mergeTree(base, mine, theirs, names);
  const pictures = mergeItems(base.pictures, mine.pictures, theirs.pictures, conflictOf);
  const { traced } = plainFields(
    'the traced picture',
    { traced: base.traced },
    { traced: mine.traced },
    { traced: theirs.traced },
  );
  const { locked } = plainFields(
    'the guides',
    { locked: base.guides.locked },
    { locked: mine.guides.locked },
    { locked: theirs.guides.locked },
  );
  const { axis } = plainFields('the axis', { axis: base.axis }, { axis: mine.axis }, { axis: theirs.axis });
  const art = {
    version: mine.version,
    sheet: plainFields('the sheet', base.sheet, mine.sheet, theirs.sheet),
    pictures,
    traced: pictures.some((p) => p.id === traced) ? traced : (pictures[0]?.id ?? null),
    layers,
    chips: mergeItems(base.chips, mine.chips, theirs.chips, conflictOf),
    guides: {
      locked,
      lines: mergeItems(base.guides.lines, mine.guides.lines, theirs.guides.lines, () =>
        names.add('the guides'),
      ),
    },
    grid: plainFields('the grid', base.grid, mine.grid, theirs.grid),
    axis,
  };
  checkChange(mine, art, holdingsOf(mine));
  return { art: art as Art, conflicts: [...names] };
}

function mergeTree(base: Art, mine: Art, theirs: Art, names: Set<string>): readonly Layer[] {
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

  const childrenOf = new Map<string | null, Set<string>>();
  for (const [id, parent] of parents) {
    if (!childrenOf.has(parent)) childrenOf.set(parent, new Set());
    childrenOf.get(parent)!.add(id);
  }
  const listOf = (parent: string | null): string[] => {
    const own = childrenOf.get(parent) ?? new Set<string>();
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
  const note = (map: Map<string, object>, nodes: readonly (Layer | ShapeNode)[]): void => {
    for (const node of nodes) {
      map.set(node.id, node);
      if (node.type === 'shape') node.paths.forEach((p) => map.set(p.id, p));
      else note(map, node.children);
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
  const build = (id: string): Layer | ShapeNode | null => {
    const { type, fields: first } = either(id);
    const [b, m, t] = [tables.base.get(id), tables.mine.get(id), tables.theirs.get(id)];
    const fields = m && t ? mergeFields(b?.fields, m.fields, t.fields, () => conflict(id)) : first;
    if (type !== 'shape') {
      const children = listOf(id).flatMap((child) => build(child) ?? []);
      return held(id, { ...fields, children: heldList(id, 'children', children) } as unknown as Layer);
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
    return keepForm(axis ? settleAbout(next, axis) : settleFlow(next));
  };
  const layers = listOf(null).map((id) => build(id) as Layer);
  return layers.length > 0 ? layers : mine.layers;
}

/** Whether two objects hold the same values under the same names, parts compared as objects first. */
function sameShallow(a: object, b: object): boolean {
  const [one, two] = [a as Fields, b as Fields];
  const keys = Object.keys(one);
  return keys.length === Object.keys(two).length && keys.every((key) => one[key] === two[key]);
}
