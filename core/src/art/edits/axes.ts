import type { Draft } from 'mutative';
import { partAnchors } from '../../path/shared-anchors';
import type { Axis } from '../../path/axis';
import type { Path } from '../../path/path';
import { artOfDraft, type Recipe } from '../change';
import type { Art, Shape } from '../schema';
import { shapesOf, wholePaths } from '../tree';
import { draftShape, plain } from './draft';
import { propagateShared } from './shared';

// Shapes drawn about an axis.

/** Gives shapes an axis about which they are drawn, or takes it off; their lines stay as they were drawn. */
export const setAxis =
  (ids: readonly string[], axis: Axis | null): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (!shape || (!axis && !shape.axis)) continue;
      if (axis) shape.axis = { ...axis };
      else delete shape.axis;
      delete shape.lettering;
      shape.paths = shape.paths.map((p) => propagateShared(draft, shape, plain(p as Path))) as Draft<Path>[];
    }
  };

/**
 * All parts of a shape about its axis as paths of their own: each with an id that nothing else has. Only what was drawn
 * shares with neighbours; the other parts lie elsewhere.
 */
function releasedPaths(art: Art, shape: Shape): Path[] {
  const own = new Set(shape.paths.map((p) => p.id));
  const taken = new Set(shapesOf(art).flatMap((s) => s.shape.paths.map((p) => p.id)));
  const drawn = new Map(
    shape.paths.flatMap((p) => p.anchors.flatMap((a) => (a.shared ? [[a.shared, a] as const] : []))),
  );
  return wholePaths(shape).map((path) => {
    let { id } = path;
    for (let n = 2; taken.has(id) && !own.has(id); n++) id = `${path.id.slice(0, 56)}-${n}`;
    own.delete(id);
    taken.add(id);
    const elsewhere = path.anchors.flatMap((a, i) => {
      const at = a.shared && drawn.get(a.shared);
      return at && (at.x !== a.x || at.y !== a.y) ? [i] : [];
    });
    return { ...partAnchors(path, elsewhere), id };
  });
}

/** Makes one whole of what was drawn about an axis and its other parts. */
export const releaseAxis =
  (ids: readonly string[]): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (!shape?.axis) continue;
      delete shape.lettering;
      shape.paths = releasedPaths(artOfDraft(draft), plain(shape as Shape)) as Draft<Path>[];
      delete shape.axis;
    }
  };

/** The axis about which new paths are drawn; null for none. */
export const setDrawingAxis =
  (axis: Axis | null): Recipe =>
  (draft) => {
    draft.axis = axis && { ...axis };
  };
