import { partAnchors } from '../path/share';
import type { Art, Layer, ShapeNode } from './schema';

/**
 * Brings two drawings together that both grew from the same one, so that nothing either drew is lost.
 * Items (pictures, chips, layers, groups, shapes) are matched by id. One that only one side changed is taken from
 * that side; one that both changed is taken from `mine`, and where `theirs` differs, theirs is kept beside it,
 * hidden, under a new id. One that either side took away and the other left as it was goes; one that the other
 * changed stays.
 *
 * @param newId makes ids for what is kept beside
 */
export function mergeArt(base: Art, mine: Art, theirs: Art, newId: () => string): Art {
  const layers = mergeList<Layer>(base.layers, mine.layers, theirs.layers, (b, m, t) => ({
    ...pick(b, m, t),
    children: mergeNodes(b?.children ?? [], m.children, t.children, newId),
  }));
  const pictures = mergeList(base.pictures, mine.pictures, theirs.pictures, pick);
  const traced = pick(base.traced, mine.traced, theirs.traced);
  return {
    version: mine.version,
    sheet: pick(base.sheet, mine.sheet, theirs.sheet),
    pictures,
    traced: pictures.some((p) => p.id === traced) ? traced : (pictures[0]?.id ?? null),
    layers: layers.length > 0 ? layers : mine.layers,
    chips: mergeList(base.chips, mine.chips, theirs.chips, pick),
    guides: {
      locked: pick(base.guides.locked, mine.guides.locked, theirs.guides.locked),
      lines: mergeList(base.guides.lines, mine.guides.lines, theirs.guides.lines, pick),
    },
    grid: pick(base.grid, mine.grid, theirs.grid),
    axis: pick(base.axis, mine.axis, theirs.axis),
  };
}

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** Theirs where only they changed it, mine otherwise. */
const pick = <T>(base: T | undefined, mine: T, theirs: T): T =>
  base !== undefined && same(base, mine) ? theirs : mine;

/** Merges lists by id; what both hold is merged by `both`, which may give several. Order: mine, then what is new of theirs. */
function mergeList<T extends { readonly id: string }>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  both: (base: T | undefined, mine: T, theirs: T) => T | readonly T[],
): T[] {
  const inBase = new Map(base.map((v) => [v.id, v]));
  const inTheirs = new Map(theirs.map((v) => [v.id, v]));
  const inMine = new Set(mine.map((v) => v.id));
  const out: T[] = [];
  for (const m of mine) {
    const b = inBase.get(m.id);
    const t = inTheirs.get(m.id);
    if (t) out.push(...([both(b, m, t)].flat() as T[]));
    else if (!b || !same(b, m)) out.push(m);
  }
  for (const t of theirs) {
    if (inMine.has(t.id)) continue;
    const b = inBase.get(t.id);
    if (!b || !same(b, t)) out.push(t);
  }
  return out;
}

function mergeNodes(
  base: readonly ShapeNode[],
  mine: readonly ShapeNode[],
  theirs: readonly ShapeNode[],
  newId: () => string,
): ShapeNode[] {
  return mergeList<ShapeNode>(base, mine, theirs, (b, m, t) => {
    if (m.type === 'group' && t.type === 'group') {
      const before = b?.type === 'group' ? b.children : [];
      return { ...pick(b, m, t), children: mergeNodes(before, m.children, t.children, newId) } as ShapeNode;
    }
    if (same(m, t) || same(b, m)) return t;
    if (same(b, t)) return m;
    return [keptBeside(t, newId), m];
  });
}

/** Another tab's version of a shape both changed: hidden, renamed, with ids of its own. */
function keptBeside(node: ShapeNode, newId: () => string): ShapeNode {
  const again = (n: ShapeNode): ShapeNode =>
    n.type === 'group'
      ? { ...n, id: newId(), children: n.children.map(again) }
      : {
          ...n,
          id: newId(),
          // What is kept beside shares with nothing: else it would move along unseen.
          paths: n.paths.map((p) => ({ ...partAnchors(p, [...p.anchors.keys()]), id: newId() })),
        };
  return { ...again(node), name: `${node.name} (other tab)`.slice(0, 500), shown: false };
}
