import type { Anchor } from '../path/anchor';
import type { Path } from '../path/path';
import { withFittingKind } from '../path/anchor';
import { mergeFields, type Fields } from './merge-fields';
import type { Row, Sides } from './merge-table';
import { same } from './same';

// What becomes of a path that both sides changed, and of the anchors that it shares with its neighbours.

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
  return anchor.kind === 'flowing' ? anchor : withFittingKind(anchor);
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
export function mergePaths(
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
export function togetherAgain(
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
