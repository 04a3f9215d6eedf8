import { isDraft, original, type Draft } from 'mutative';
import { deriveAbout, type Axis } from '../../path/axis';
import { deriveFlow } from '../../path/flow';
import { keepForm } from '../../path/form-path';
import type { Path } from '../../path/path';
import { carryShared, holdShared, partAnchors, rebaseShared, shares } from '../../path/shared-anchors';
import type { Art, Shape } from '../schema';
import { shapeById, shapesIn, shapesOf, type TreeNode } from '../tree';
import { draftShape, plain } from './draft';

// What follows from a path that is put into a shape: what flows, its form, its other parts about an axis, and what its
// neighbours share with it.

export const keysIn = (paths: readonly Path[]): string[] =>
  paths.flatMap((p) => p.anchors.flatMap(({ shared }) => shared ?? []));

export const pathsIn = (node: TreeNode): readonly Path[] => shapesIn(node).flatMap((shape) => shape.paths);

export const lostKeys = (before: readonly string[], after: readonly Path[]): string[] => {
  const kept = new Set(keysIn(after));
  return before.filter((key) => !kept.has(key));
};

/** What follows from a path's anchors brought up to date: flow, the other parts about an axis, its form. */
function withDerived(path: Path, axis: Axis | undefined): Path {
  const held = holdShared(path);
  return keepForm(axis ? deriveAbout(held, axis) : deriveFlow(held));
}

interface Sharer {
  readonly shape: string;
  readonly path: string;
}

const sharers = new WeakMap<Art['layers'], ReadonlyMap<string, readonly Sharer[]>>();

/** Which paths hold each key of shared anchors. */
function sharerIndex(art: Art): ReadonlyMap<string, readonly Sharer[]> {
  let known = sharers.get(art.layers);
  if (!known) {
    const map = new Map<string, Sharer[]>();
    for (const { shape } of shapesOf(art))
      for (const path of shape.paths)
        for (const { shared } of path.anchors) {
          if (shared === undefined) continue;
          const list = map.get(shared) ?? [];
          if (list.length === 0) map.set(shared, list);
          if (!list.some((s) => s.path === path.id)) list.push({ shape: shape.id, path: path.id });
        }
    sharers.set(art.layers, (known = map));
  }
  return known;
}

/**
 * Takes keys off anchors that are left alone with them: a key that nobody else has would keep them from flowing and from
 * being thinned out for good.
 *
 * @param also a shape whose paths may have come into their keys just now
 */
export function dropLoneKeys(draft: Draft<Art>, keys: readonly string[], also?: Draft<Shape>): void {
  if (keys.length === 0 || !isDraft(draft)) return;
  const index = sharerIndex(original(draft) as Art);
  for (const key of new Set(keys)) {
    const holders = new Map<string, { shape: Draft<Shape>; k: number }>();
    const look = (shape: Draft<Shape> | null | undefined): void =>
      shape?.paths.forEach((p, k) => {
        if (p.anchors.some((a) => a.shared === key)) holders.set(p.id, { shape, k });
      });
    for (const { shape } of index.get(key) ?? []) look(draftShape(draft, shape));
    look(also);
    const [lone] = holders.values();
    if (!lone || holders.size > 1) continue;
    const path = plain(lone.shape.paths[lone.k] as Path);
    const own = path.anchors.flatMap((a, i) => (a.shared === key ? [i] : []));
    lone.shape.paths[lone.k] = partAnchors(path, own) as Draft<Path>;
  }
}

/** Settles a path that is about to be put into a shape, and carries what it shares into its neighbours. */
export function propagateShared(draft: Draft<Art>, shape: Draft<Shape>, path: Path): Path {
  const axis = shape.axis && plain(shape.axis as Axis);
  let next = withDerived(path, axis);
  if (!isDraft(draft)) return next;
  const art = original(draft) as Art;
  const was = shapeById(art, shape.id)?.paths.find((p) => p.id === path.id);
  const held = shape.paths.find((p) => p.id === path.id);
  if (!was || !held || !shares(was)) return next;
  const now = plain(held as Path);
  next = rebaseShared(was, now, next);
  const seen = new Set([path.id]);
  for (const { shared } of was.anchors)
    for (const sharer of (shared !== undefined && sharerIndex(art).get(shared)) || []) {
      if (seen.has(sharer.path)) continue;
      seen.add(sharer.path);
      const other = draftShape(draft, sharer.shape);
      const k = other?.paths.findIndex((p) => p.id === sharer.path) ?? -1;
      if (!other || k < 0) continue;
      const theirs = plain(other.paths[k] as Path);
      const both = carryShared(now, next, theirs);
      next = both.after;
      if (both.other !== theirs) delete other.lettering;
      other.paths[k] = withDerived(both.other, other.axis && plain(other.axis as Axis)) as Draft<Path>;
    }
  return next;
}
