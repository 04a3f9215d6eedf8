import type { Draft } from 'mutative';
import type { Path } from '../../path/path';
import { closeAlong, type Borders } from '../../path/border';
import { withKeys, partAnchors, spotOf } from '../../path/shared-anchors';
import type { Recipe } from '../change';
import type { Art } from '../schema';
import { shapesOf } from '../tree';
import { draftShape, plain } from './draft';
import { setPath } from './paths';

// Borders that neighbours share.

/**
 * Closes a path along a border of its neighbours. All anchors on the way get one key in every outline that runs through
 * them, so that they move together from now on.
 *
 * @param path open, its last anchor where the way begins, its first where the way ends
 */
export const shareBorder =
  (shapeId: string, path: Path, borders: Borders, way: number, newKey: () => string): Recipe =>
  (draft) => {
    const border = borders.ways[way];
    if (!border) return;
    for (const { shape, path: grown } of borders.added) setPath(shape, grown)(draft);
    const spots = new Set(border.anchors.map(spotOf));
    const keys = new Map<string, string>();
    const places = shapesOf(plain(draft as Art)).flatMap(({ shape }) =>
      shape.id === shapeId
        ? []
        : shape.paths.flatMap((p, k) =>
            p.anchors.some((a) => spots.has(spotOf(a))) ? [{ shape: shape.id, k, p }] : [],
          ),
    );
    for (const { p } of places)
      for (const a of p.anchors) if (a.shared && spots.has(spotOf(a))) keys.set(spotOf(a), a.shared);
    for (const spot of spots) if (!keys.has(spot)) keys.set(spot, newKey());
    for (const { shape, k, p } of places)
      draftShape(draft, shape)!.paths[k] = withKeys(p, keys) as Draft<Path>;
    setPath(shapeId, withKeys(closeAlong(path, border), keys))(draft);
  };

/** Parts anchors from their neighbours': they no longer move together. A neighbour left alone with a key loses it too. */
export const partShared =
  (refs: readonly { readonly shape: string; readonly path: string; readonly index: number }[]): Recipe =>
  (draft) => {
    const art = plain(draft as Art);
    const part = (shapeId: string, pathId: string, indices: readonly number[]): void => {
      const shape = draftShape(draft, shapeId);
      const k = shape?.paths.findIndex((p) => p.id === pathId) ?? -1;
      if (shape && k >= 0)
        shape.paths[k] = partAnchors(plain(shape.paths[k] as Path), indices) as Draft<Path>;
    };
    const holders = new Map<string, { shape: string; path: string; index: number }[]>();
    for (const { shape } of shapesOf(art))
      for (const path of shape.paths)
        path.anchors.forEach(({ shared }, index) => {
          if (shared !== undefined)
            holders.set(shared, [...(holders.get(shared) ?? []), { shape: shape.id, path: path.id, index }]);
        });
    for (const [, all] of holders) {
      const kept = all.filter((h) => !refs.some((r) => r.path === h.path && r.index === h.index));
      if (kept.length === all.length) continue;
      for (const h of kept.length > 1 ? all.filter((h) => !kept.includes(h)) : all)
        part(h.shape, h.path, [h.index]);
    }
  };
